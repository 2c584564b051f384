package bake.formats.picture;

import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.picture.exr.Reader;
import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The Radiance picture format (RGBE): shared exponent, flat, old or new run-length coding, any of the eight
 * orientations on reading. Written as {@code -Y h +X w} with the new coding. Values are in cd/m2 by colour; the file
 * stores them divided by 179 lm/W as the format asks (Ward, "Real Pixels", Graphics Gems II, 1991).
 */
public final class HdrFile {
    private static final Pattern SIZE = Pattern.compile("([+-])([XY]) (\\d{1,6}) ([+-])([XY]) (\\d{1,6})");
    /** Luminous efficacy the format uses for white light, lm/W. */
    public static final float EFFICACY = 179;

    private HdrFile() {}

    /** Writes cd/m2. */
    public static void write(Path file, Raster r) throws IOException {
        AtomicFile.write(file, out -> {
            out.write(("#?RADIANCE\nFORMAT=32-bit_rle_rgbe\nPRIMARIES=0.64 0.33 0.30 0.60 0.15 0.06 0.3127 0.3290\n\n-Y "
                    + r.height() + " +X " + r.width() + "\n").getBytes(StandardCharsets.US_ASCII));
            byte[] row = new byte[4 * r.width()];
            for (int y = 0; y < r.height(); y++) {
                for (int x = 0; x < r.width(); x++) encode(r.rgb(), 3 * (y * r.width() + x), row, 4 * x);
                writeRow(out, row, r.width());
            }
        });
    }

    private static void encode(float[] rgb, int i, byte[] out, int o) {
        float r = rgb[i] / EFFICACY, g = rgb[i + 1] / EFFICACY, b = rgb[i + 2] / EFFICACY, m = Math.max(r, Math.max(g, b));
        if (!(m > 1e-32f)) {
            out[o] = out[o + 1] = out[o + 2] = out[o + 3] = 0;
            return;
        }
        int e = Math.getExponent(m) + 1;
        float k = (float) Math.scalb(256.0, -e);
        out[o] = (byte) Math.clamp((int) (r * k), 0, 255);
        out[o + 1] = (byte) Math.clamp((int) (g * k), 0, 255);
        out[o + 2] = (byte) Math.clamp((int) (b * k), 0, 255);
        out[o + 3] = (byte) Math.clamp(e + 128, 1, 255);
    }

    private static void writeRow(OutputStream out, byte[] row, int w) throws IOException {
        if (w < 8 || w > 32767) {
            out.write(row);
            return;
        }
        out.write(new byte[] {2, 2, (byte) (w >> 8), (byte) w});
        for (int c = 0; c < 4; c++)
            for (int x = 0; x < w; ) {
                int run = 1;
                while (x + run < w && run < 127 && row[4 * (x + run) + c] == row[4 * x + c]) run++;
                if (run >= 4) {
                    out.write(128 + run);
                    out.write(row[4 * x + c]);
                    x += run;
                    continue;
                }
                int n = 1;
                while (x + n < w && n < 128 && !(x + n + 3 < w && row[4 * (x + n) + c] == row[4 * (x + n + 1) + c]
                        && row[4 * (x + n) + c] == row[4 * (x + n + 2) + c] && row[4 * (x + n) + c] == row[4 * (x + n + 3) + c])) n++;
                out.write(n);
                for (int k = 0; k < n; k++) out.write(row[4 * (x + k) + c]);
                x += n;
            }
    }

    /** Reads cd/m2 by colour. Broken values are mended to zero. */
    public static Raster read(Path file) throws IOException {
        Raster[] out = new Raster[1];
        read(file, (w, h) -> {
            if (3L * w * h > Integer.MAX_VALUE - 16)
                throw new FormatException(file.getFileName().toString(), null, "is too large to hold as a whole");
            float[] rgb = new float[3 * w * h];
            out[0] = new Raster(w, h, rgb);
            return (x, y, row, n) -> System.arraycopy(row, 0, rgb, 3 * (y * w + x), 3 * n);
        }, d -> {}, () -> false);
        out[0].mend();
        return out[0];
    }

    /** Reads row by row, as {@link Reader#read} does; each pixel once, within the picture. */
    public static void read(Path file, Reader.Begin begin, DoubleConsumer done, BooleanSupplier stop) throws IOException {
        String name = file.getFileName().toString();
        try (InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
            read(in, name, Files.size(file), begin, done, stop);
        } catch (EOFException e) {
            throw new FormatException(name, null, "the file ends in the middle of the picture; copy or export it again");
        }
    }

    private static void read(InputStream in, String name, long bytes, Reader.Begin begin, DoubleConsumer done, BooleanSupplier stop)
            throws IOException {
        String line = line(in, name);
        if (!line.startsWith("#?")) throw new FormatException(name, "header", "this is not a Radiance picture");
        float exposure = 1;
        for (int n = 0; !(line = line(in, name)).isEmpty(); n++) {
            if (n > 200) throw new FormatException(name, "header", "the header does not end; export the file again");
            if (line.startsWith("FORMAT=") && !line.equals("FORMAT=32-bit_rle_rgbe"))
                throw new FormatException(name, "header", "the coding " + line.substring(7) + " is not RGBE; save it as RGBE or OpenEXR");
            if (line.startsWith("EXPOSURE=")) exposure *= positive(line.substring(9), name);
        }
        Matcher m = SIZE.matcher(line(in, name));
        if (!m.matches() || m.group(2).equals(m.group(5)))
            throw new FormatException(name, "header", "the picture's size is not there; export the file again");
        int n1 = Integer.parseInt(m.group(3)), n2 = Integer.parseInt(m.group(6));
        long pixels = (long) n1 * n2;
        // A run of 127 takes two bytes for each channel: the file cannot hold more than about 64 pixels a byte.
        if (n1 < 1 || n2 < 1 || pixels > Raster.MOST_PIXELS || pixels > bytes * 64)
            throw new FormatException(name, "header", "a size of " + n2 + "x" + n1 + " does not fit this file; export it again");
        boolean rowsAreY = m.group(2).equals("Y"), flip1 = m.group(1).equals(rowsAreY ? "+" : "-"),
                flip2 = m.group(4).equals(rowsAreY ? "-" : "+");
        int w = rowsAreY ? n2 : n1, h = rowsAreY ? n1 : n2;
        Reader.Sink sink = begin.begin(w, h);
        byte[] row = new byte[4 * n2];
        float[] rgb = new float[3 * n2];
        for (int j = 0; j < n1; j++) {
            if (stop.getAsBoolean()) throw new FormatException(name, null, "reading was stopped");
            readRow(in, row, n2, name, j);
            for (int i = 0; i < n2; i++) {
                int b = flip2 ? n2 - 1 - i : i, o = 3 * b, e = row[4 * i + 3] & 255;
                float k = e == 0 ? 0 : (float) Math.scalb((double) EFFICACY / exposure, e - 136);
                for (int c = 0; c < 3; c++) rgb[o + c] = ((row[4 * i + c] & 255) + (e == 0 ? 0 : 0.5f)) * k;
            }
            int a = flip1 ? n1 - 1 - j : j;
            if (rowsAreY) sink.row(0, a, rgb, n2);
            else for (int i = 0; i < n2; i++) sink.row(a, i, new float[] {rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]}, 1);
            done.accept((j + 1.0) / n1);
        }
    }

    private static float positive(String s, String name) throws FormatException {
        try {
            float f = Float.parseFloat(s.trim());
            if (f > 0 && f < 1e12f) return f;
        } catch (NumberFormatException e) {
            // said below
        }
        throw new FormatException(name, "header", "EXPOSURE is not a number above zero; export the file again");
    }

    private static String line(InputStream in, String name) throws IOException {
        StringBuilder s = new StringBuilder();
        for (int c = in.read(); c != '\n'; c = in.read()) {
            if (c < 0) throw new EOFException();
            if (s.length() > 4096) throw new FormatException(name, "header", "this is not a Radiance picture");
            s.append((char) c);
        }
        return s.toString().stripTrailing();
    }

    private static void readRow(InputStream in, byte[] row, int n, String name, int number) throws IOException {
        need(in, row, 0, Math.min(4, row.length));
        if (n >= 8 && n <= 32767 && row[0] == 2 && row[1] == 2 && (row[2] & 128) == 0) {
            if (((row[2] & 255) << 8 | row[3] & 255) != n)
                throw new FormatException(name, "row " + number, "its length differs from the picture's; export the file again");
            for (int c = 0; c < 4; c++)
                for (int x = 0; x < n; ) {
                    int k = read(in);
                    boolean run = k > 128;
                    if (run) k -= 128;
                    if (k == 0 || x + k > n) throw new FormatException(name, "row " + number, "a run is too long; export the file again");
                    int v = run ? read(in) : 0;
                    for (; k > 0; k--) row[4 * x++ + c] = (byte) (run ? v : read(in));
                }
            return;
        }
        int shift = 0;
        for (int x = 0; x < n; ) {
            if (x > 0) need(in, row, 4 * x, 4);
            if (x > 0 && row[4 * x] == 1 && row[4 * x + 1] == 1 && row[4 * x + 2] == 1) { // old run of the last pixel
                long k = (long) (row[4 * x + 3] & 255) << shift;
                if (x + k > n) throw new FormatException(name, "row " + number, "a run is too long; export the file again");
                for (; k > 0; k--, x++) System.arraycopy(row, 4 * x - 4, row, 4 * x, 4);
                shift += 8;
            } else {
                x++;
                shift = 0;
            }
        }
    }

    private static int read(InputStream in) throws IOException {
        int c = in.read();
        if (c < 0) throw new EOFException();
        return c;
    }

    private static void need(InputStream in, byte[] to, int at, int n) throws IOException {
        if (in.readNBytes(to, at, n) < n) throw new EOFException();
    }
}
