package bake.studio.scene;

import bake.core.scene.Texture;
import bake.formats.model.ImportedModel;

/** The memory that textures of a project may take. */
final class TextureBudget {
    private TextureBudget() {}

    /** What all textures may take: BAKE_TEXTURES megabytes where that is set, else a quarter of Java's memory. */
    static long bytes() {
        String set = System.getenv("BAKE_TEXTURES");
        if (set != null && set.matches("\\d{1,9}")) return Long.parseLong(set) << 20;
        return Runtime.getRuntime().maxMemory() / 4;
    }

    /** Bytes that a model's textures take with their smaller copies. */
    static long size(ImportedModel m) {
        long sum = 0;
        for (Texture t : m.textures()) sum += 4L * t.width() * t.height() * 4 / 3;
        return sum;
    }
}
