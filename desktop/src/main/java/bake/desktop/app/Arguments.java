package bake.desktop.app;

import bake.desktop.work.CompareHand;
import bake.desktop.work.Station;
import bake.studio.live.Showing;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** What the window was started with. */
@Command(name = "bake open", sortOptions = false, mixinStandardHelpOptions = true, version = "Bake 0.1.0",
        description = "Open the window, with a project or model, the demo, or nothing.")
final class Arguments {
    @Parameters(paramLabel = "PROJECT", arity = "0..2", hideParamSyntax = true, description = "a project's folder, a model file, or demo")
    private String[] what = {};

    @Option(names = "--shot", paramLabel = "FILE.png", description = "write a picture of the window, and quit")
    private Path shot;

    @Option(names = "--wait", paramLabel = "SECONDS", defaultValue = "12", description = "time that the easel has before the shot")
    private double seconds;

    @Option(names = "--station", paramLabel = "NAME", defaultValue = "LIGHT", description = "model, light, view, prove or finals")
    private Station station;

    @Option(names = "--view", paramLabel = "NAME", description = "view to look at")
    private String view;

    @Option(names = "--show", paramLabel = "WHAT", defaultValue = "PICTURE",
            description = "picture, clay, edges, materials, lux, sky-guide, lamp-guide, records, cells, photons, or light"
                    + " that is seen, direct, bounced, reflected or refracted")
    private Showing showing;

    @Option(names = "--fold", description = "without the picture rail")
    private boolean fold;

    @Option(names = "--proof", description = "make a proof at once")
    private boolean proof;

    @Option(names = "--hang", paramLabel = "NUMBER", split = ",", description = "proofs to hang as A and B")
    private int[] hung = {};

    @Option(names = "--compare", paramLabel = "MODE", defaultValue = "WIPE", description = "wipe, flip, beside or difference")
    private CompareHand.Mode compare;

    @Option(names = "--take-back", description = "ask what would be taken back from A")
    private boolean takeBack;

    @Option(names = "--find-openings", description = "look for openings at once")
    private boolean openings;

    @Option(names = "--lamp", paramLabel = "NAME", description = "lamp to work on")
    private String lamp;

    @Option(names = "--press", paramLabel = "ID", split = ",", description = "press buttons of the window by their names, one after another")
    private List<String> press = List.of();

    @Option(names = "--scroll", paramLabel = "SHARE", description = "how far down the sheet is, 0 to 1")
    private double scroll;

    @Option(names = "--evening", description = "in evening colours")
    private boolean evening;

    @Option(names = "--text-size", paramLabel = "PERCENT", defaultValue = "100", description = "90 to 150")
    private int textSize;

    @Option(names = "--window", paramLabel = "WxH", defaultValue = "1280x800", description = "size of the window's content")
    private Size size;

    /** In units of the screen. */
    private record Size(int width, int height) {}

    private Arguments() {}

    /** @throws IllegalArgumentException when they are not understood, with words for whoever wrote them */
    static Arguments parse(String... args) {
        Arguments a = new Arguments();
        CommandLine line = line(a);
        try {
            CommandLine.ParseResult r = line.parseArgs(args);
            if (CommandLine.printHelpIfRequested(r)) System.exit(0);
        } catch (CommandLine.ParameterException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
        return a;
    }

    private static CommandLine line(Arguments a) {
        CommandLine line = new CommandLine(a);
        line.setCaseInsensitiveEnumValuesAllowed(true);
        line.registerConverter(Showing.class, s -> Showing.valueOf(s.toUpperCase(Locale.ROOT).replace('-', '_')));
        line.registerConverter(Size.class, s -> {
            if (!s.matches("\\d{2,5}x\\d{2,5}")) throw new CommandLine.TypeConversionException("'" + s + "' is no size such as 1280x800");
            String[] p = s.split("x");
            return new Size(Integer.parseInt(p[0]), Integer.parseInt(p[1]));
        });
        return line;
    }

    /** A folder, a file, "demo", or null for an empty window. */
    String project() {
        for (String w : what) if (!w.equals("open")) return w;
        return null;
    }

    Path shot() {
        return shot;
    }

    double seconds() {
        return seconds;
    }

    int width() {
        return size.width;
    }

    int height() {
        return size.height;
    }

    Station station() {
        return station;
    }

    String view() {
        return view;
    }

    boolean fold() {
        return fold;
    }

    boolean proof() {
        return proof;
    }

    /** Numbers of the proofs to hang. */
    int[] hung() {
        return hung.clone();
    }

    CompareHand.Mode compare() {
        return compare;
    }

    boolean takeBack() {
        return takeBack;
    }

    Showing showing() {
        return showing;
    }

    boolean openings() {
        return openings;
    }

    String lamp() {
        return lamp;
    }

    List<String> press() {
        return press;
    }

    double scroll() {
        return scroll;
    }

    boolean evening() {
        return evening;
    }

    int textSize() {
        return textSize;
    }
}
