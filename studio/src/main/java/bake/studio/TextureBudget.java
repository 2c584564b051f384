package bake.studio;

import bake.core.scene.Texture;
import bake.core.surface.SurfaceTable;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.PriorityQueue;

/** Keeps a model's textures within a number of bytes by halving the largest, again and again, and says which. */
final class TextureBudget {
    private TextureBudget() {}

    /** What all textures may take: BAKE_TEXTURES megabytes where that is set, else a quarter of Java's memory. */
    static long bytes() {
        String set = System.getenv("BAKE_TEXTURES");
        if (set != null && set.matches("\\d{1,9}")) return Long.parseLong(set) << 20;
        return Runtime.getRuntime().maxMemory() / 4;
    }

    private static long size(Texture t) {
        return 4L * t.width() * t.height() * 4 / 3;
    }

    /** Bytes that a model's textures take. */
    static long size(ImportedModel m) {
        return m.textures().stream().mapToLong(TextureBudget::size).sum();
    }

    private record Entry(int at, Texture texture) {}

    /** The model with textures that fit; the same object where they fit already. */
    static ImportedModel fit(ImportedModel m, long most) {
        long total = size(m);
        if (total <= most) return m;
        long before = total;
        List<Texture> out = new ArrayList<>(m.textures());
        PriorityQueue<Entry> largest = new PriorityQueue<>(Comparator.comparingLong(e -> -size(e.texture)));
        for (int i = 0; i < out.size(); i++) largest.add(new Entry(i, out.get(i)));
        List<Finding> findings = new ArrayList<>(m.findings());
        boolean[] less = new boolean[out.size()];
        while (total > most && !largest.isEmpty()) {
            Entry e = largest.poll();
            if (e.texture.width() == 1 && e.texture.height() == 1) break;
            Texture half = SurfaceTable.halved(e.texture);
            total += size(half) - size(e.texture);
            out.set(e.at, half);
            less[e.at] = true;
            largest.add(new Entry(e.at, half));
        }
        int n = 0;
        for (int i = 0; i < less.length; i++) {
            if (!less[i]) continue;
            n++;
            findings.add(new Finding(Finding.Kind.HUGE_TEXTURE, out.get(i).name(),
                    String.format(Locale.ROOT, "kept at %dx%d instead of %dx%d to save memory", out.get(i).width(), out.get(i).height(),
                    m.textures().get(i).width(), m.textures().get(i).height())));
        }
        findings.add(new Finding(Finding.Kind.HUGE_TEXTURE, m.name(), String.format(Locale.ROOT,
                "%d textures made smaller: %d MB instead of %d; BAKE_TEXTURES sets the most, in megabytes", n, total >> 20, before >> 20)));
        return new ImportedModel(m.name(), m.meshes(), m.instances(), m.materials(), out, m.layers(), m.cameras(), m.lamps(), findings);
    }
}
