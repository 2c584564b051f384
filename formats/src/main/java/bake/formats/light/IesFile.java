package bake.formats.light;

import bake.core.scene.PhotometricWeb;
import bake.formats.FormatException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Photometric files of ANSI/IES LM-63, all editions from 1986 to 2019 (layout from memory of LM-63-2002): keywords, the tilt table, and the
 * intensities by angle.
 */
public final class IesFile {
    private static final int MOST_BYTES = 16_000_000, MOST_ANGLES = 2000;
    private static final double FOOT = 0.3048;

    private IesFile() {}

    /**
     * What a file says.
     *
     * @param keywords such as MANUFAC and LUMINAIRE, in their order
     * @param web with all of the file's factors in it
     * @param lampLumens lumens of the bare lamps, or a negative number where intensities are absolute
     * @param watts input power, W
     * @param width opening across, metres; of a round one its diameter
     * @param length opening along the direction of horizontal angle 0, metres; 0 for a round opening
     * @param tiltAngles degrees from the position the lamp was measured in, or null where tilt does not matter
     * @param tiltFactors output at these angles
     * @param notes what in the file was not taken as it stands
     */
    public record Photometry(Map<String, String> keywords, PhotometricWeb web, double lampLumens, double watts, double width, double length,
            double[] tiltAngles, double[] tiltFactors, List<String> notes) {
        /** Factor on the output of a luminaire tilted by an angle from straight down, degrees. */
        public double tilt(double degrees) {
            if (tiltAngles == null) return 1;
            int n = tiltAngles.length, i = 0;
            while (i < n - 2 && degrees > tiltAngles[i + 1]) i++;
            if (n == 1) return tiltFactors[0];
            double f = Math.clamp((degrees - tiltAngles[i]) / (tiltAngles[i + 1] - tiltAngles[i]), 0, 1);
            return tiltFactors[i] * (1 - f) + tiltFactors[i + 1] * f;
        }

        /** What the luminaire is called, as far as the file says it. */
        public String title() {
            for (String k : new String[] {"LUMINAIRE", "LUMCAT", "MANUFAC"}) if (!keywords.getOrDefault(k, "").isBlank())
                return keywords.get(k);
            return "";
        }
    }

    /** @throws FormatException when the file is no photometric file, is cut short, or says what cannot be */
    public static Photometry read(Path file) throws IOException {
        String name = file.getFileName().toString();
        if (Files.size(file) > MOST_BYTES)
            throw new FormatException(name, null, "is " + Files.size(file) / 1_000_000
                    + " MB; a photometric file has some kilobytes. Choose another file");
        return read(new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1), name);
    }

    static Photometry read(String text, String name) throws FormatException {
        String[] lines = text.replace("\r\n", "\n").replace('\r', '\n').split("\n");
        Map<String, String> keywords = new LinkedHashMap<>();
        int i = 0;
        String last = null;
        for (; i < lines.length; i++) {
            String l = lines[i].strip(), upper = l.toUpperCase(Locale.ROOT);
            if (upper.replace(" ", "").startsWith("TILT=")) break;
            if (l.startsWith("[") && l.indexOf(']') > 0) {
                String key = l.substring(1, l.indexOf(']')).strip().toUpperCase(Locale.ROOT),
                        value = l.substring(l.indexOf(']') + 1).strip();
                if (key.equals("MORE") && last != null) keywords.merge(last, value, (a, b) -> a + " " + b);
                else keywords.put(last = key, value);
            }
            if (i > 2000) break;
        }
        if (i >= lines.length || i > 2000)
            throw new FormatException(name, null, "has no line TILT=; this is not a photometric file after LM-63");
        String tilt = lines[i].strip().replace(" ", "").substring(5).toUpperCase(Locale.ROOT);
        Numbers n = new Numbers(lines, i + 1, name);
        double[] angles = null, factors = null;
        if (tilt.equals("INCLUDE")) {
            n.whole("the lamp's position", 0, 4);
            int k = n.whole("the number of tilt angles", 1, 1000);
            angles = n.ascending("tilt angles", k, -360, 360);
            factors = n.list("tilt factors", k, 0, 100);
        } else if (!tilt.equals("NONE"))
            throw new FormatException(name, "line " + (i + 1), "refers to the tilt file " + tilt
                    + ", which is not part of it; ask for a file with TILT=INCLUDE or TILT=NONE");
        n.whole("the number of lamps", 0, 10000);
        double lampLumens = n.next("lumens per lamp", -1e9, 1e9);
        double factor = n.next("the multiplier", 1e-9, 1e9);
        int vertical = n.whole("the number of vertical angles", 1, MOST_ANGLES),
                horizontal = n.whole("the number of horizontal angles", 1, MOST_ANGLES);
        int type = n.whole("the photometric type", 1, 3), unit = n.whole("the unit", 1, 2);
        double k = unit == 1 ? FOOT : 1;
        double width = n.next("the width", -1e6, 1e6) * k, length = n.next("the length", -1e6, 1e6) * k;
        n.next("the height", -1e6, 1e6);
        factor *= n.next("the ballast factor", 1e-6, 1000);
        // The next number was the ballast-lamp photometric factor until 1995, and is for future use, 1, since.
        factor *= n.next("the ballast-lamp factor", 1e-6, 1000);
        double watts = n.next("the input watts", 0, 1e9);
        float[] v = floats(n.ascending("vertical angles", vertical, -90, 180)),
                h = floats(n.ascending("horizontal angles", horizontal, -90, 360));
        check(type, v, h, name);
        double[] c = n.list("intensities", vertical * horizontal, -1e9, 1e9);
        int more = n.left();
        if (more > 0) throw new FormatException(name, "intensities", "are " + more + " more than " + vertical + " x " + horizontal
                + " angles need; numbers need a point before their decimals, not a comma");
        List<String> notes = new ArrayList<>();
        float[] candela = new float[c.length];
        int negative = 0;
        for (int q = 0; q < c.length; q++) {
            // A few files hold small negative values from measuring in darkness.
            candela[q] = (float) Math.max(0, c[q] * factor);
            if (c[q] < 0) negative++;
        }
        if (negative > 0) notes.add(negative + (negative == 1 ? " intensity" : " intensities") + " below zero taken as none");
        PhotometricWeb web = new PhotometricWeb(type == 1 ? PhotometricWeb.Angle.C : type == 2 ? PhotometricWeb.Angle.B
                : PhotometricWeb.Angle.A, v, h, candela);
        if (!(web.lumens() > 0) && web.peak() > 0 && type > 1) throw new FormatException(name, "horizontal angles",
                "of type " + (type == 2 ? "B" : "A") + " go over " + horizontal + (horizontal == 1 ? " angle" : " angles")
                        + " only, in which no light fits; the type in the file may be wrong: one angle alone is of type C");
        if (!(web.lumens() > 0)) throw new FormatException(name, "intensities", "are all zero; choose another file");
        boolean round = width < 0 || length < 0;
        double w = Math.abs(round ? (width != 0 ? width : length) : width), l = round ? 0 : length;
        return new Photometry(keywords, web, lampLumens, watts, w, w == 0 ? 0 : l, angles, factors, List.copyOf(notes));
    }

    private static void check(int type, float[] v, float[] h, String name) throws FormatException {
        float v0 = v[0], v1 = v[v.length - 1], h0 = h[0], h1 = h[h.length - 1];
        if (type == 1) {
            if (v0 < 0) throw new FormatException(name, "vertical angles", "begin at " + v0 + "; those of type C begin at 0 or 90");
            boolean whole = h.length == 1 || h0 == 0 && (h1 == 90 || h1 == 180 || h1 > 180) || h0 == 90 && h1 == 270;
            if (!whole) throw new FormatException(name, "horizontal angles",
                    "go from " + h0 + " to " + h1 + "; those of type C go from 0 to 0, 90, 180 or 360, or from 90 to 270");
        } else if (v0 < -90 || v1 > 90 || h1 > 90)
            throw new FormatException(name, "angles", "of types A and B go from -90 or 0 to 90, these to " + Math.max(v1, h1)
                    + "; the type may be wrong in the file");
    }

    private static float[] floats(double[] d) {
        float[] f = new float[d.length];
        for (int i = 0; i < d.length; i++) f[i] = (float) d[i];
        return f;
    }

    /** Numbers one after the other, separated by blanks, commas or the ends of lines. */
    private static final class Numbers {
        private final String[] lines;
        private final String name;
        private int line, at;
        private String[] words = {};

        Numbers(String[] lines, int line, String name) {
            this.lines = lines;
            this.line = line;
            this.name = name;
        }

        double next(String what, double least, double most) throws FormatException {
            while (at >= words.length) {
                if (line >= lines.length) throw new FormatException(name, what, "the file ends before; copy or ask for it again");
                words = lines[line++].strip().split("[\\s,]+");
                at = words.length == 1 && words[0].isEmpty() ? 1 : 0;
            }
            String w = words[at++];
            double d;
            try {
                d = Double.parseDouble(w);
            } catch (NumberFormatException e) {
                throw new FormatException(name, "line " + line, "'" + (w.length() > 24 ? w.substring(0, 24) + "\u2026" : w)
                        + "' stands where " + what + " should be");
            }
            if (!(d >= least && d <= most)) throw new FormatException(name, "line " + line, what + " cannot be " + w);
            return d;
        }

        /** How many numbers follow to the end of the file. */
        int left() {
            int more = 0;
            for (int i = at; i < words.length; i++) if (words[i].matches("[-+.\\d].*")) more++;
            for (int i = line; i < lines.length; i++)
                for (String w : lines[i].strip().split("[\\s,]+")) if (w.matches("[-+.]?\\d.*")) more++;
            return more;
        }

        int whole(String what, int least, int most) throws FormatException {
            double d = next(what, least, most);
            if (d != Math.rint(d)) throw new FormatException(name, "line " + line, what + " must be a whole number, not " + d);
            return (int) d;
        }

        double[] list(String what, int n, double least, double most) throws FormatException {
            double[] out = new double[n];
            for (int i = 0; i < n; i++) out[i] = next(what, least, most);
            return out;
        }

        double[] ascending(String what, int n, double least, double most) throws FormatException {
            double[] out = list(what, n, least, most);
            for (int i = 1; i < n; i++) if (!(out[i] > out[i - 1]))
                throw new FormatException(name, what, out[i] + " comes after " + out[i - 1] + "; angles must ascend");
            return out;
        }
    }
}
