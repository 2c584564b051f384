package bake.desktop.app;

import bake.desktop.work.Station;
import bake.studio.live.Showing;
import java.nio.file.Path;
import java.util.Locale;

/**
 * What the window was started with.
 *
 * @param project a folder, a file, "demo", or null for an empty window
 * @param shot where to write a picture of the window, or null
 * @param proof whether to start a proof at once
 * @param openings whether to look for openings at once
 * @param lamp to be worked on, or null
 * @param evening whether in evening colours
 * @param textSize in percent
 * @param scroll how far down the sheet is, 0 to 1
 * @param seconds the easel may work before the shot
 */
record Arguments(String project, Path shot, double seconds, int width, int height, Station station, String view, boolean fold,
        boolean proof, Showing showing, boolean openings, String lamp, double scroll,
        boolean evening, int textSize) {

    static Arguments parse(String... a) {
        String project = null, view = null;
        Path shot = null;
        double seconds = 12;
        int w = 1280, h = 800;
        Station station = Station.LIGHT;
        Showing showing = Showing.PICTURE;
        boolean fold = false, proof = false, openings = false;
        String lamp = null;
        double scroll = 0;
        boolean evening = false;
        int textSize = 100;
        for (int i = 0; i < a.length; i++) {
            switch (a[i]) {
                case "demo" -> project = "demo";
                case "open" -> { }
                case "--shot" -> shot = Path.of(value(a, ++i));
                case "--wait" -> seconds = number(value(a, ++i));
                case "--view" -> view = value(a, ++i);
                case "--show" -> {
                    try {
                        showing = Showing.valueOf(value(a, ++i).toUpperCase(Locale.ROOT).replace('-', '_'));
                    } catch (IllegalArgumentException e) {
                        throw new IllegalArgumentException("--show takes picture, clay, edges, materials, lux, sky-guide, lamp-guide, records, cells or photons");
                    }
                }
                case "--find-openings" -> openings = true;
                case "--lamp" -> lamp = value(a, ++i);
                case "--scroll" -> scroll = number(value(a, ++i));
                case "--evening" -> evening = true;
                case "--text-size" -> textSize = (int) number(value(a, ++i));
                case "--fold" -> fold = true;
                case "--proof" -> proof = true;
                case "--station" -> {
                    String s = value(a, ++i).toUpperCase(Locale.ROOT);
                    try {
                        station = Station.valueOf(s);
                    } catch (IllegalArgumentException e) {
                        throw new IllegalArgumentException("--station takes model, light, view, prove or finals");
                    }
                }
                case "--window" -> {
                    String[] s = value(a, ++i).split("x");
                    if (s.length != 2) throw new IllegalArgumentException("--window takes width x height, such as 1280x800");
                    w = (int) number(s[0]);
                    h = (int) number(s[1]);
                }
                default -> {
                    if (a[i].startsWith("-")) throw new IllegalArgumentException("unknown option " + a[i]
                            + "; the window takes --shot, --wait, --station, --show, --view, --fold, --proof, --find-openings, --lamp, --scroll, --evening, --text-size and --window");
                    project = a[i];
                }
            }
        }
        return new Arguments(project, shot, seconds, w, h, station, view, fold, proof, showing, openings, lamp, scroll, evening, textSize);
    }

    private static String value(String[] a, int i) {
        if (i >= a.length) throw new IllegalArgumentException(a[i - 1] + " needs a value");
        return a[i];
    }

    private static double number(String s) {
        try {
            return Double.parseDouble(s);
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("'" + s + "' is not a number");
        }
    }
}
