package bake.formats.picture;

import bake.core.scene.Panorama;
import bake.formats.FormatException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Locale;

/** Reads an HDRI for use as light. */
public final class PanoramaReader {
    private PanoramaReader() {}

    public static Panorama read(Path file) throws IOException {
        String name = file.getFileName().toString(), lower = name.toLowerCase(Locale.ROOT);
        Raster r;
        if (lower.endsWith(".hdr") || lower.endsWith(".pic")) r = HdrFile.read(file);
        else if (lower.endsWith(".exr")) r = ExrFile.read(file);
        else throw new FormatException(name, null, "a panorama is an .hdr or .exr file");
        if (r.width() < 2 || r.width() != 2 * r.height())
            throw new FormatException(name, null, "is " + r.width() + "x" + r.height() + "; an equirectangular panorama is twice as wide as high");
        return new Panorama(name, r.width(), r.height(), r.rgb());
    }
}
