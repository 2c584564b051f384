package bake.formats.picture;

import bake.core.finish.ColourTable;
import bake.formats.FormatException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/** Colour tables in the text format that grading programs exchange (.cube): one curve for each colour, or a cube. */
public final class CubeFile {
    private static final int MOST_CUBE = 129, MOST_CURVE = 65_536;
    private static final long MOST_BYTES = 200L << 20;

    private CubeFile() {}

    /**
     * @throws FormatException when it is none, naming the line
     */
    public static ColourTable read(Path file) throws IOException {
        String name = file.getFileName().toString();
        if (!Files.isRegularFile(file)) throw new FormatException(name, null, "is not there");
        if (Files.size(file) > MOST_BYTES) throw new FormatException(name, null, "is larger than any colour table");
        float[] low = {0, 0, 0}, high = {1, 1, 1}, values = null;
        int size = 0, n = 0, number = 0;
        boolean cube = false;
        for (String raw : Files.readString(file, StandardCharsets.ISO_8859_1).split("\r?\n|\r")) {
            number++;
            String line = raw.strip();
            if (line.isEmpty() || line.startsWith("#") || line.startsWith("TITLE")) continue;
            String at = "line " + number;
            String[] w = line.split("\\s+");
            switch (w[0]) {
                case "LUT_3D_SIZE", "LUT_1D_SIZE" -> {
                    if (size > 0) throw new FormatException(name, at, "says the size a second time");
                    cube = w[0].equals("LUT_3D_SIZE");
                    float s = w.length == 2 ? number(w[1], name, at) : 0;
                    if (s != (int) s || s < 2 || s > (cube ? MOST_CUBE : MOST_CURVE))
                        throw new FormatException(name, at, "a size is 2 to " + (cube ? MOST_CUBE : MOST_CURVE));
                    size = (int) s;
                    values = new float[cube ? 3 * size * size * size : 3 * size];
                }
                case "DOMAIN_MIN" -> low = three(w, 1, name, at);
                case "DOMAIN_MAX" -> high = three(w, 1, name, at);
                case "LUT_3D_INPUT_RANGE", "LUT_1D_INPUT_RANGE" -> {
                    if (w.length != 3) throw new FormatException(name, at, "a range is two numbers");
                    float a = number(w[1], name, at), b = number(w[2], name, at);
                    low = new float[] {a, a, a};
                    high = new float[] {b, b, b};
                }
                default -> {
                    if (!(Character.isDigit(w[0].charAt(0)) || "+-.".indexOf(w[0].charAt(0)) >= 0)) continue; // words of other programs
                    if (values == null) throw new FormatException(name, at, "values come before the size is said");
                    if (n == values.length) throw new FormatException(name, at, "there are more values than the size says");
                    float[] v = three(w, 0, name, at);
                    System.arraycopy(v, 0, values, n, 3);
                    n += 3;
                }
            }
        }
        if (values == null) throw new FormatException(name, null, "says no size: this is no colour table");
        if (n < values.length) throw new FormatException(name, null, "ends after " + n / 3 + " of " + values.length / 3 + " values");
        for (int k = 0; k < 3; k++) if (!(high[k] > low[k])) throw new FormatException(name, null, "its domain ends before it begins");
        return new ColourTable(size, cube, low, high, values);
    }

    private static float[] three(String[] w, int from, String file, String at) throws FormatException {
        if (w.length != from + 3) throw new FormatException(file, at, "three numbers are needed");
        return new float[] {number(w[from], file, at), number(w[from + 1], file, at), number(w[from + 2], file, at)};
    }

    private static float number(String s, String file, String at) throws FormatException {
        try {
            float v = Float.parseFloat(s);
            if (Float.isFinite(v)) return v;
        } catch (NumberFormatException e) {
            // said below
        }
        throw new FormatException(file, at, "'" + (s.length() > 20 ? s.substring(0, 20) : s) + "' is no number");
    }
}
