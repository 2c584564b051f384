package bake.desktop.station.view;

import bake.core.finish.Look;
import bake.core.finish.ToneCurve;
import bake.desktop.parts.Dial;
import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.text.Quantity;
import bake.desktop.work.FinishHand;
import bake.desktop.work.Station;
import bake.formats.project.FinishSpec;
import bake.formats.project.View;
import bake.studio.live.ToneHistogram;
import java.io.File;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/** View, second page: what is done to the picture after it is rendered. Everything shows at once and nothing is rendered again. */
final class FinishSheet extends VBox {
    private final ViewWork work;
    private final FinishHand hand;
    /** What shows the values of a view anew. */
    private final List<Consumer<View>> shown = new ArrayList<>();
    private final ComboBox<String> curve = new ComboBox<>();
    private final ToggleGroup colour = new ToggleGroup();
    private final CurveBoard board;
    private final Label table = Ui.label("", "line-name");
    private boolean setting;

    FinishSheet(ViewWork work) {
        this.work = work;
        hand = work.finish();
        board = new CurveBoard((c, gesture) -> hand.curve(colour(), c, gesture));
        getChildren().addAll(new LooksCard(work), tones(), curves(), colours(), sky(), lens(), drawing(), new PaperCard(hand));
        work.tones().countedProperty().addListener((o, a, c) -> show(c.histogram()));
        work.document().viewProperty().addListener((o, a, v) -> refresh());
        work.station().addListener((o, a, b) -> refresh());
        visibleProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    /** A value of the finish with its dial; at what it usually is it is taken away. */
    private Dial dial(String key, String name, String format, double min, double max, double usual, String help, Function<FinishSpec,
            Double> of) {
        Dial d = new Dial("finish-" + key, name, format, min, max, usual, false, help, x -> {
            double r = Math.rint(x * 1000) / 1000;
            if (!setting) hand.set(key, r == usual ? null : r);
        });
        shown.add(v -> d.show(of.apply(v.finish()) == null ? usual : of.apply(v.finish())));
        return d;
    }

    /** The same in hundredths. */
    private Dial percent(String key, String name, double min, double max, double usual, String help, Function<FinishSpec, Double> of) {
        Dial d = new Dial("finish-" + key, name, min < 0 ? "%+.0f %%" : "%.0f %%", 100 * min, 100 * max, 100 * usual, false, help, x -> {
            double r = Math.rint(x) / 100;
            if (!setting) hand.set(key, r == usual ? null : r);
        });
        shown.add(v -> d.show(100 * (of.apply(v.finish()) == null ? usual : of.apply(v.finish()))));
        return d;
    }

    private Node tones() {
        for (ToneCurve c : ToneCurve.values()) curve.getItems().add(word(c));
        curve.setId("finish-kind");
        curve.setAccessibleText("Tone curve");
        curve.valueProperty().addListener((o, a, b) -> {
            if (!setting && b != null) work.document().editView(null, v -> v.withCurve(b.toLowerCase(Locale.ROOT)));
        });
        shown.add(v -> curve.setValue(word(ToneCurve.valueOf(v.curve().toUpperCase(Locale.ROOT)))));
        CheckBox hue = new CheckBox("Keep hues in bright light");
        hue.setId("finish-keepHue");
        hue.setTooltip(Ui.tip("The curve is taken of the brightest colour alone: a red lamp stays red, where film turns it yellow and white."));
        hue.selectedProperty().addListener((o, a, b) -> {
            if (!setting) hand.set("keepHue", b ? true : null);
        });
        shown.add(v -> hue.setSelected(Boolean.TRUE.equals(v.finish().keepHue())));
        Dial toe = percent("toe", "Toe", -1, 1, 0, "How steeply the film curve leaves black.", FinishSpec::toe),
                shoulder = percent("shoulder", "Shoulder", -1, 1, 0, "How far above white the film curve still tells highlights apart: two stops to six.", FinishSpec::shoulder);
        shown.add(v -> {
            boolean film = v.curve().equals("film");
            Ui.show(toe, film);
            Ui.show(shoulder, film);
        });
        return Ui.card("Tones", null, Ui.row(Ui.label("Tone curve", "dial-name"), Ui.spring(), curve), toe, shoulder, hue,
                dial("lighten", "Lighten", "%+.2f stops", -3, 3, 0, "Stops after the fact; the camera's exposure stays.", FinishSpec::lighten),
                percent("highlights", "Highlights", -1, 1, 0, "Lower them to see more in windows and lamps; two stops at most.", FinishSpec::highlights),
                percent("shadows", "Shadows", -1, 1, 0, "Raise them to see into corners; two stops at most.", FinishSpec::shadows),
                percent("contrast", "Contrast", -1, 1, 0, "About the middle of the display.", FinishSpec::contrast));
    }

    private static String word(ToneCurve c) {
        String n = c.name();
        return n.charAt(0) + n.substring(1).toLowerCase(Locale.ROOT);
    }

    private String colour() {
        String c = colour.getSelectedToggle() == null ? "All" : (String) colour.getSelectedToggle().getUserData();
        return c.equals("All") ? null : c.toLowerCase(Locale.ROOT);
    }

    private Node curves() {
        Node choice = Ui.choice(colour, "curve-of-", "All", "Red", "Green", "Blue");
        colour.getToggles().getFirst().setSelected(true);
        colour.selectedToggleProperty().addListener((o, a, b) -> {
            if (b != null && work.document().view() != null) board.show(hand.curve(colour()));
        });
        shown.add(v -> board.show(hand.curve(colour())));
        return Ui.card("Curve", Ui.button("curve-straight", "Straighten", "Takes all points of this curve away", () -> hand.curve(colour(),
                bake.core.finish.SplineCurve.STRAIGHT, ""), "small"), choice, board);
    }

    void show(ToneHistogram t) {
        board.show(t);
    }

    private Node colours() {
        Dial white = new Dial("white-balance", "White balance", "%.0f K", 2000, 12_000, Look.NEUTRAL, true,
                "Light of this colour temperature looks white: lamps about 2700 to 3000 K, sun about 5200 K.", x -> {
            if (!setting) work.document().editView("white", v -> v.withWhiteBalance(Math.rint(x / 10) * 10));
        });
        shown.add(v -> white.show(v.look().whiteBalance()));
        ToggleButton pick = new ToggleButton("Pick a grey");
        pick.setId("pick-grey");
        pick.getStyleClass().add("small");
        pick.setTooltip(Ui.tip("Then click what is grey or white in the picture: balance and tint follow"));
        pick.selectedProperty().bindBidirectional(hand.pickingProperty());
        VBox wheels = new VBox(7);
        String[] names = {"Slope", "Offset", "Power"}, keys = {"slope", "offset", "power"};
        double[] usual = {1, 0, 1}, least = {0, -1, 0.1}, most = {10, 1, 10};
        for (int k = 0; k < 3; k++) wheels.getChildren().add(three(names[k], keys[k], usual[k], least[k], most[k]));
        shown.add(v -> table.setText(v.finish().lut() == null ? "no colour table" : v.finish().lut()));
        Node without = Ui.button("lut-out", "Leave out", "Without a colour table", () -> hand.set("lut", null), "small");
        shown.add(v -> Ui.show(without, v.finish().lut() != null));
        return Ui.card("Colour", null, white, Ui.row(pick, Ui.button("white-of-light", "Of the main light", "Balance for the light that gives most in this picture", hand::ofMainLight, "small")),
                percent("tint", "Tint", -1, 1, 0, "Above 0 for light that is greenish, below for magenta.", FinishSpec::tint),
                percent("saturation", "Saturation", -1, 1, 0, "Of all colours; -100 % is grey.", FinishSpec::saturation),
                percent("vibrance", "Vibrance", -1, 1, 0, "Saturation where there is little of it; strong colours stay.", FinishSpec::vibrance),
                Ui.more("grade-more", Ui.note("Red, green and blue: in \u00d7 slope + offset, to the power, on what is displayed."), wheels,
                Ui.row(table, Ui.spring(), Ui.button("lut-choose", "Colour table\u2026", "A .cube file of a grading program; it comes into the project", this::choose, "small"), without),
                percent("lutStrength", "Table's strength", 0, 1, 1, null, FinishSpec::lutStrength)));
    }

    private Node three(String name, String key, double usual, double least, double most) {
        Field[] f = new Field[3];
        Quantity q = Quantity.of("%.3f");
        for (int c = 0; c < 3; c++) {
            int at = c;
            f[c] = new Field("finish-" + key + "-" + "rgb".charAt(c), 52, t -> {
                double x = q.parse(t, least, most);
                List<Double> v = new ArrayList<>(values(key, work.document().view(), usual));
                v.set(at, x);
                hand.set(key, v.stream().allMatch(d -> d == usual) ? null : List.copyOf(v));
            });
            f[c].setAccessibleText(name + " of " + List.of("red", "green", "blue").get(c));
        }
        shown.add(v -> {
            List<Double> x = values(key, v, usual);
            for (int c = 0; c < 3; c++) f[c].show(String.format(Locale.ROOT, "%.3f", x.get(c)));
        });
        return Ui.row(Ui.label(name, "dial-name"), Ui.spring(), f[0], f[1], f[2]);
    }

    private static List<Double> values(String key, View v, double usual) {
        FinishSpec s = v.finish();
        List<Double> x = key.equals("slope") ? s.slope() : key.equals("offset") ? s.offset() : s.power();
        return x == null ? List.of(usual, usual, usual) : x;
    }

    private void choose() {
        FileChooser c = new FileChooser();
        c.setTitle("Choose a colour table");
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("Colour tables", "*.cube"));
        File f = c.showOpenDialog(getScene().getWindow());
        if (f != null) hand.table(f.toPath());
    }

    private Node sky() {
        return Ui.card("Sky and backdrop", null,
                dial("skyLighten", "Lighten", "%+.2f stops", -3, 3, 0, "Only what is seen behind the model, also through its glass; the light in the rooms stays.", FinishSpec::skyLighten),
                percent("skySaturation", "Saturation", -1, 1, 0, "Of what is behind the model.", FinishSpec::skySaturation),
                percent("skyWarmth", "Warmth", -1, 1, 0, "Below 0 bluer, above warmer.", FinishSpec::skyWarmth));
    }

    private Node lens() {
        Look.Optics o = Look.Optics.NONE;
        return Ui.card("Lens and film", null, percent("glow", "Glow", 0, 1, 0, "Light that lens and eye scatter around what is bright.", FinishSpec::glow),
                percent("vignette", "Vignette", 0, 1, 0, "Darker corners, as wide lenses make them.", FinishSpec::vignette),
                percent("sharpen", "Sharpen", 0, 2, 0, "Brings out fine detail.", FinishSpec::sharpen),
                percent("grain", "Grain", 0, 1, 0, "As film has it; also hides bands in skies and on walls.", FinishSpec::grain),
                Ui.more("lens-more", percent("glowSize", "Glow reaches", 0.01, 1, o.glowSize(), "Of the picture's height.", FinishSpec::glowSize),
                dial("grainSize", "Size of a grain", "%.1f px", 1, 8, o.grainSize(), null, FinishSpec::grainSize),
                dial("fringe", "Colour fringe", "%+.1f \u2030", -5, 5, 0, "Red and blue apart in the corners.", FinishSpec::fringe)));
    }

    private Node drawing() {
        Look.Drawing d = Look.Drawing.NONE;
        return Ui.card("Drawing", null, percent("outline", "Outline", 0, 1, 0, "Lines where something ends, turns or changes its colour.", FinishSpec::outline),
                percent("wash", "Wash", 0, 1, 0, "Tones run together within their edges.", FinishSpec::wash),
                Ui.more("drawing-more", dial("outlineWeight", "Line", "%.1f \u2030", 0.5, 10, d.weight(), "Thousandths of the picture's height.", FinishSpec::outlineWeight),
                percent("wobble", "Free hand", 0, 1, 0, "How far the hand strays.", FinishSpec::wobble),
                dial("washSize", "Brush", "%.0f \u2030", 1, 30, d.washSize(), "Thousandths of the picture's height.", FinishSpec::washSize)));
    }

    private void refresh() {
        // So many values are not shown anew at each edit while nobody sees them.
        if (work.station().get() != Station.VIEW || !isVisible()) return;
        View v = work.document().view();
        setDisable(v == null);
        if (v == null) return;
        setting = true;
        for (Consumer<View> s : shown) s.accept(v);
        setting = false;
    }
}
