package bake.studio.scene;

import bake.core.finish.ToneResponse;
import bake.core.math.Srgb;
import bake.core.scene.Outlook;
import bake.core.scene.Panorama;
import bake.core.scene.Texture;
import bake.formats.FormatException;
import bake.formats.SafePath;
import bake.formats.picture.ExrFile;
import bake.formats.picture.HdrFile;
import bake.formats.picture.Raster;
import bake.formats.picture.TextureReader;
import bake.formats.project.View;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;

/** The flat pictures that stand behind models, read once. */
final class Backdrops {
    /** Luminance that a code of 255 stands for before the exposure, so that small floats hold the darkest codes well. */
    private static final float UNIT = 1f / 256;

    private final Path folder;
    private String key;
    private Panorama kept;

    Backdrops(Path folder) {
        this.folder = folder;
    }

    /**
     * A view's flat backdrop. A displayed picture (PNG, JPEG) is turned back through the view's tone curve, so that under the exposure it
     * was taken at it comes out as it went in; an .hdr or .exr holds cd/m2.
     */
    synchronized Outlook.Plate plate(View view, View.Around a) throws IOException {
        if (a.file() == null) throw new FormatException("project.json", "view '" + view.name() + "'",
                "has a flat picture as its backdrop but names no file; choose one on the Light station");
        Path p = SafePath.inside(folder, a.file(), "project.json");
        String name = p.getFileName().toString(), lower = name.toLowerCase(Locale.ROOT);
        boolean light = lower.endsWith(".exr") || lower.endsWith(".hdr");
        ToneResponse curve = view.look().response();
        if (!Files.isRegularFile(p)) throw new FormatException(name, null, "is not there; choose the backdrop's picture again");
        String now = a.file() + " " + (light ? "" : view.curve() + view.finish().toe() + view.finish().shoulder()) + Files.getLastModifiedTime(p) + Files.size(p);
        if (!now.equals(key)) {
            kept = light ? lit(p, name, lower) : shown(p, name, curve);
            key = now;
        }
        double stops = Math.pow(2, a.or(a.skyStops(), 0));
        double factor = light ? stops : stops * 1.2 * Math.pow(2, a.ev() == null ? view.camera().camera().ev100() : a.ev());
        return new Outlook.Plate(kept, factor, a.or(a.size(), 1), a.or(a.across(), 0), a.or(a.up(), 0));
    }

    private static Panorama lit(Path p, String name, String lower) throws IOException {
        Raster r = lower.endsWith(".exr") ? ExrFile.read(p) : HdrFile.read(p);
        r.mend();
        return new Panorama(name, r.width(), r.height(), r.rgb());
    }

    private static Panorama shown(Path p, String name, ToneResponse curve) throws IOException {
        Texture t;
        try (InputStream in = Files.newInputStream(p)) {
            t = TextureReader.read(in, name, true);
        }
        short[] light = new short[256];
        for (int i = 0; i < 256; i++) light[i] = Float.floatToFloat16((float) (curve.invert(Srgb.decode(i / 255.0)) / UNIT));
        short[] out = new short[3 * t.width() * t.height()];
        for (int i = 0, o = 0; o < out.length; i += 4) for (int k = 0; k < 3; k++) out[o++] = light[t.rgba()[i + k] & 255];
        return Panorama.packed(name, t.width(), t.height(), out, UNIT);
    }
}
