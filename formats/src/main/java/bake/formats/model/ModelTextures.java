package bake.formats.model;

import bake.core.scene.Texture;
import bake.core.surface.SurfaceTable;
import bake.formats.picture.TextureReader;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.PriorityQueue;
import java.util.stream.IntStream;

/**
 * The pictures of one model. Their sizes are read as they are named, and they are decoded when all are known: so many of the largest as do
 * not fit into the memory that is left are halved, each before the next large one is decoded.
 */
public final class ModelTextures {
    /** Those with more pixels are decoded one after another. */
    private static final long LARGE = 1L << 24, HUGE = 8192L * 8192;
    private static final int LEAST = 1;

    /** Where a picture's bytes come from; asked twice. */
    public interface Source {
        InputStream open() throws IOException;
    }

    private record Named(String name, boolean srgb, int width, int height, Source source) {}

    private final List<Named> all = new ArrayList<>();
    private final long most;

    /** @param bytes that all may take once they are decoded, with their smaller copies */
    public ModelTextures(long bytes) {
        most = bytes;
    }

    /**
     * Names a picture; returns its number.
     *
     * @throws IOException when it cannot be opened or is none that is read
     */
    public int add(String name, boolean srgb, Source source) throws IOException {
        try (InputStream in = source.open()) {
            int[] size = TextureReader.size(in, name);
            all.add(new Named(name, srgb, size[0], size[1], source));
            return all.size() - 1;
        }
    }

    /** A plain one in place of a picture that cannot be read; returns its number. */
    public int plain(String name, boolean srgb) {
        all.add(new Named(name, srgb, 1, 1, null));
        return all.size() - 1;
    }

    private static long bytes(long w, long h) {
        return 4 * w * h * 4 / 3;
    }

    /** How often each has to be halved so that all fit: the largest first, again and again. */
    static int[] halvings(int[] widths, int[] heights, long most) {
        int[] out = new int[widths.length];
        long[] size = new long[widths.length];
        long total = 0;
        PriorityQueue<Integer> largest = new PriorityQueue<>(Comparator.comparingLong(i -> -size[i]));
        for (int i = 0; i < out.length; i++) {
            total += size[i] = bytes(widths[i], heights[i]);
            largest.add(i);
        }
        while (total > most && !largest.isEmpty()) {
            int i = largest.poll();
            if (widths[i] >> out[i] <= LEAST && heights[i] >> out[i] <= LEAST) break;
            total -= size[i];
            out[i]++;
            total += size[i] = bytes(Math.max(1, widths[i] >> out[i]), Math.max(1, heights[i] >> out[i]));
            largest.add(i);
        }
        return out;
    }

    /** Decodes all, in the order of their numbers; what is wrong with one is found and a plain one stands for it. */
    public List<Texture> decode(List<Finding> findings) {
        int n = all.size();
        int[] halvings = halvings(all.stream().mapToInt(Named::width).toArray(), all.stream().mapToInt(Named::height).toArray(), most);
        Texture[] out = new Texture[n];
        String[] problems = new String[n], warnings = new String[n];
        // Pictures do not depend on each other, and decoding is most of the time of a textured file.
        IntStream.range(0, n).parallel().filter(i -> !large(i)).forEach(i -> decode(i, halvings[i], out, problems, warnings));
        IntStream.range(0, n).filter(this::large).forEach(i -> decode(i, halvings[i], out, problems, warnings));
        long before = 0, after = 0;
        int less = 0;
        for (int i = 0; i < n; i++) {
            Named p = all.get(i);
            before += bytes(p.width, p.height);
            after += bytes(out[i].width(), out[i].height());
            if (warnings[i] != null) findings.add(new Finding(Finding.Kind.BROKEN_VALUES, p.name, warnings[i]));
            if (problems[i] != null) findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, p.name, problems[i]));
            else if (halvings[i] > 0) {
                less++;
                findings.add(new Finding(Finding.Kind.HUGE_TEXTURE, p.name, String.format(Locale.ROOT,
                        "kept at %dx%d instead of %dx%d to save memory", out[i].width(), out[i].height(), p.width, p.height)));
            } else if ((long) p.width * p.height > HUGE) findings.add(new Finding(Finding.Kind.HUGE_TEXTURE, p.name,
                    p.width + "x" + p.height + " pixels; smaller would look the same"));
        }
        if (less > 0) findings.add(new Finding(Finding.Kind.HUGE_TEXTURE, "textures", String.format(Locale.ROOT,
                "%d made smaller: %d MB instead of %d; BAKE_TEXTURES sets the most, in megabytes", less, after >> 20, before >> 20)));
        return List.of(out);
    }

    private boolean large(int i) {
        return (long) all.get(i).width * all.get(i).height > LARGE;
    }

    private void decode(int i, int halvings, Texture[] out, String[] problems, String[] warnings) {
        Named p = all.get(i);
        out[i] = new Texture(p.name, 1, 1, new byte[] {-128, -128, -1, -1}, p.srgb);
        if (p.source == null) return;
        try (InputStream in = p.source.open()) {
            Texture t = TextureReader.read(in, p.name, p.srgb, w -> warnings[i] = w);
            for (int k = 0; k < halvings; k++) t = SurfaceTable.halved(t);
            out[i] = t;
        } catch (IOException e) {
            problems[i] = e.getMessage();
        }
    }
}
