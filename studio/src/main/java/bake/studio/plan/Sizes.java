package bake.studio.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Sizes of pictures by name: of screens, and of paper at some resolution with a bleed. Paper: ISO 216 (A and B; 2007) and the North
 * American sizes of ANSI/ASME Y14.1, millimetres, from memory.
 */
public final class Sizes {
    /** Bleed that printers usually ask for, millimetres (common practice, no source), and the resolutions that are asked about. */
    public static final double BLEED = 3;
    public static final int FINE = 300, COARSE = 150;
    private static final double INCH = 25.4;

    private Sizes() {}

    /** A screen. */
    public record Screen(String name, int width, int height) {}

    /** A sheet of paper lying on its longer side, millimetres. */
    public record Paper(String name, double width, double height) {
        /**
         * Pixels of a picture that fills it.
         *
         * @param bleed millimetres beyond each edge
         */
        public int[] pixels(double dpi, double bleed) {
            return new int[] {(int) Math.round((width + 2 * bleed) / INCH * dpi), (int) Math.round((height + 2 * bleed) / INCH * dpi)};
        }

        public String words() {
            return String.format(Locale.ROOT, "%s, %.0f \u00d7 %.0f mm", name, width, height);
        }
    }

    public static final List<Screen> SCREENS = List.of(new Screen("HD", 1280, 720), new Screen("Full HD", 1920, 1080), new Screen("WUXGA", 1920, 1200),
            new Screen("QHD", 2560, 1440), new Screen("UHD 4K", 3840, 2160), new Screen("Square", 2160, 2160));
    public static final List<Paper> PAPERS = papers();

    private static List<Paper> papers() {
        List<Paper> out = new ArrayList<>();
        double[][] first = {{1189, 841}, {1414, 1000}};
        for (int s = 0; s < 2; s++) {
            double w = first[s][0], h = first[s][1];
            for (int n = 0; n <= 6; n++) {
                out.add(new Paper("AB".charAt(s) + "" + n, w, h));
                double half = Math.floor(w / 2);
                w = h;
                h = half;
            }
        }
        out.add(new Paper("Letter", 11 * INCH, 8.5 * INCH));
        out.add(new Paper("Legal", 14 * INCH, 8.5 * INCH));
        out.add(new Paper("Tabloid", 17 * INCH, 11 * INCH));
        return List.copyOf(out);
    }

    /** The largest paper of a series that pixels fill at some resolution, both lying; null where they fill none. */
    public static Paper largest(String series, int width, int height, double dpi) {
        int w = Math.max(width, height), h = Math.min(width, height);
        for (Paper p : PAPERS) if (p.name.startsWith(series) && p.name.length() == 2) {
            int[] need = p.pixels(dpi, 0);
            // Half a percent is not seen.
            if (w >= 0.995 * need[0] && h >= 0.995 * need[1]) return p;
        }
        return null;
    }

    /** What some pixels are on paper, in words: how large at both resolutions. */
    public static String onPaper(int width, int height) {
        StringBuilder b = new StringBuilder();
        for (int dpi : new int[] {FINE, COARSE}) {
            Paper p = largest("A", width, height, dpi);
            b.append(b.isEmpty() ? "" : "; ").append(String.format(Locale.ROOT, "%.0f \u00d7 %.0f mm at %d dpi", width / (double) dpi * INCH, height / (double) dpi
                    * INCH, dpi)).append(p == null ? "" : " (fills " + p.name + ")");
        }
        return b.toString();
    }
}
