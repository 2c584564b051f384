package bake.formats.picture;

import bake.formats.FormatException;
import bake.formats.picture.exr.Reader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;

/** OpenEXR pictures, scene-referred: cd/m2 by colour, Rec. 709 primaries. */
public final class ExrFile {
    private ExrFile() {}

    /**
     * Writes channels of equal size, ZIP compressed.
     *
     * @param channels name to plane of {@code width * height} floats
     * @param half whether channels are stored in 16 bit, all but those that hold greater numbers, such as the sun's disc, and those in
     * which
     *     every bit counts: depth, place, counts and numbers of things
     */
    public static void write(Path file, int width, int height, SortedMap<String, float[]> channels, boolean half, ExrNotes notes)
            throws IOException {
        List<ExrRows.Channel> all = new ArrayList<>();
        boolean colours = half && channels.entrySet().stream().noneMatch(e -> colour(e.getKey()) && most(e.getValue()) > ExrRows.MOST_HALF);
        channels.forEach((name, plane) -> all.add(new ExrRows.Channel(name, colour(name) ? colours
                : half && !whole(name) && most(plane) <= ExrRows.MOST_HALF)));
        float[][] planes = channels.values().toArray(float[][]::new);
        float[] row = new float[planes.length * width];
        try (ExrRows out = new ExrRows(file, width, height, all, notes)) {
            for (int y = 0; y < height; y++) {
                for (int x = 0, o = 0; x < width; x++) for (float[] p : planes) row[o++] = p[y * width + x];
                out.row(row);
            }
            out.finish();
        }
    }

    private static boolean whole(String name) {
        return name.startsWith("Z") || name.startsWith("P.") || name.startsWith("uv.") || name.startsWith("samples.") || name.startsWith("clean.") || name.startsWith("seen.guide.") || IdMatte.exact(name);
    }

    /** Colours and their coverage are all of one kind. */
    private static boolean colour(String name) {
        return name.length() == 1 && "RGBA".contains(name);
    }

    private static float most(float[] plane) {
        float m = 0;
        for (float v : plane) m = Math.max(m, Math.abs(v));
        return m;
    }

    /** Reads the colours of a picture: R, G, B, or Y for grey, in its display window. Broken values are mended. */
    public static Raster read(Path file) throws IOException {
        Raster r = read(file, null);
        if (r == null) throw new FormatException(file.getFileName().toString(), null, "has no colour channels R, G, B; save it with them");
        r.mend();
        return r;
    }

    /** What its attributes of text say, by their names. */
    public static Map<String, String> texts(Path file) throws IOException {
        return Reader.texts(file);
    }

    /**
     * Channels by name, as they are stored.
     *
     * @param names of the channels; null for colours
     * @return as many values a pixel as there are names, three for colours; null where there are none of these names
     */
    public static Raster read(Path file, List<String> names) throws IOException {
        Raster[] out = new Raster[1];
        int values = names == null ? 3 : names.size();
        Reader.read(file, names, (w, h) -> {
            if ((long) values * w * h > Integer.MAX_VALUE - 16)
                throw new FormatException(file.getFileName().toString(), null, "is too large to hold as a whole");
            float[] all = new float[values * w * h];
            out[0] = new Raster(w, h, all);
            return (x, y, row, n) -> {
                for (int i = 0; i < n; i++) if (x + i >= 0 && x + i < w && y >= 0 && y < h)
                    System.arraycopy(row, values * i, all, values * (y * w + x + i), values);
            };
        }, done -> {}, () -> false);
        return out[0];
    }
}
