package bake.desktop.station.light;

import bake.core.scene.Lamp;
import bake.desktop.parts.Dial;
import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.text.Quantity;
import bake.desktop.text.Texts;
import bake.desktop.work.Lighting;
import bake.formats.project.LampSpec;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/** One lamp: its output in any unit with what that is in the others, colour, size, place, and who sees it. */
final class LampEditor extends VBox {
    private static final List<String> UNITS = List.of("lumens", "candela", "luminance", "lux");
    private static final List<String> WORDS = List.of("lm", "cd", "cd/m\u00b2", "lx at 1 m");

    private final LightWork work;
    private final Lighting lighting;
    private final ToggleGroup units = new ToggleGroup();
    private final Dial output, kelvin, multiplier, width, height, beam, field, turn, weight;
    private final Label conversions = Ui.note(""), file = Ui.label("", "figure"), shared = Ui.note(""), many = Ui.note("");
    private final CheckBox visible = new CheckBox("Seen by the camera"), mirrored = new CheckBox("Seen in reflections"),
            twoSided = new CheckBox("Both sides shine");
    private final Field title, group, x, y, z;
    private final CandelaWeb web = new CandelaWeb();
    private final VBox place;
    private final javafx.scene.layout.HBox aim;
    private String name;
    private boolean setting;

    LampEditor(LightWork work) {
        super(6);
        this.work = work;
        lighting = work.lighting();
        getStyleClass().add("lamp-editor");
        setId("lamp-editor");
        output = dial("lamp-output", "Output", "%.0f", 1, 100_000, 800, true, null, v -> set("output", l -> output(l, unit(l), v)));
        kelvin = dial("lamp-kelvin", "Colour", "%.0f K", 1500, 12_000, 3000, true, "Colour temperature. A candle has 1900, daylight 6500.",
                v -> set("kelvin", l -> l.withKelvin(Math.rint(v)).withColour(null)));
        multiplier = dial("lamp-multiplier", "Multiplier", "%.2f", 0.01, 20, 1, true, "Of the output that the photometric file states.",
                v -> set("multiplier", l -> l.withMultiplier(v)));
        width = dial("lamp-width", "Width", "%.3f m", 0.001, 10, 0.12, true,
                "The real size makes the softness of the shadow. A larger lamp costs a little more noise.",
                v -> set("width", l -> l.width() != null ? l.withWidth(v) : l.withDiameter(v)));
        height = dial("lamp-height", "Height", "%.3f m", 0.001, 10, 0.12, true, "Height of a rectangle, length of a tube.",
                v -> set("height", l -> l.withHeight(v)));
        beam = dial("lamp-beam", "Beam", "%.0f\u00b0", 1, 180, 36, false, "Full angle that is lit evenly.",
                v -> set("beam", l -> l.withBeam(Math.rint(v)).withField(Math.max(l.field() == null ? 60 : l.field(), Math.rint(v)))));
        field = dial("lamp-field", "Field", "%.0f\u00b0", 1, 180, 60, false, "Full angle outside of which there is no light.",
                v -> set("field", l -> l.withField(Math.rint(v)).withBeam(Math.min(l.beam() == null ? 36 : l.beam(), Math.rint(v)))));
        turn = dial("lamp-turn", "Turn", "%.0f\u00b0", -180, 180, 0, false, "About its own axis.",
                v -> set("turn", l -> l.withTurn(Math.rint(v))));
        weight = dial("lamp-weight", "Sample weight", "%.2f", 0.1, 10, 1, true,
                "How often this lamp is looked for against others. More takes noise from its light and adds a little to all else; the light stays.", v -> set("weight", l -> l.withWeight(v)));
        group = new Field("lamp-group", 170, t -> {
            LampSpec l = lighting.lamps().find(name);
            if (!setting && l != null && !t.isEmpty() && !t.equals(l.groupName())) lighting.lamps().changeEach(null, q -> q.withGroup(t));
        });
        title = new Field("lamp-name", 170, t -> {
            if (!setting && name != null) lighting.lamps().rename(name, t);
        });
        x = coordinate("lamp-x", 0);
        y = coordinate("lamp-y", 1);
        z = coordinate("lamp-z", 2);
        check(visible, "lamp-visible", "Off makes a helper that lights the picture but is not in it",
                b -> l -> l.withVisible(b).withMirrored(l.mirrored() == null ? null : l.mirrored()));
        check(mirrored, "lamp-mirrored", "Whether mirrors and glossy surfaces show its body", b -> l -> l.withMirrored(b));
        check(twoSided, "lamp-two-sided", "Its lumens are shared by both faces", b -> l -> l.withTwoSided(b));
        var choice = Ui.choice(units, "lamp-unit-", WORDS.toArray(String[]::new));
        for (int i = 0; i < UNITS.size(); i++) ((ToggleButton) units.getToggles().get(i)).setId("lamp-unit-" + UNITS.get(i));
        units.selectedToggleProperty().addListener((o, a, b) -> {
            if (!setting && b != null) change(UNITS.get(WORDS.indexOf((String) b.getUserData())));
        });
        place = new VBox(6, Ui.row(Ui.label("At", "dial-name"), Ui.spring(), x, y, z, Ui.label("m", "dial-name")),
                aim = Ui.row(Ui.button("lamp-aim", "Aim: click there", "The next click on the picture turns the lamp to what is there; so does dragging the mark before it",
                () -> lighting.toolProperty().set(Lighting.Tool.AIM), "small")),
                Ui.row(Ui.button("lamp-move", "Move: click there", "The next click on the picture moves the lamp before the surface there",
                () -> lighting.toolProperty().set(Lighting.Tool.MOVE), "small"),
                        Ui.button("lamp-copy", "Copy", "A copy shares all settings but its place", () -> lighting.lamps().copy(name),
                        "small"), Ui.button("lamp-delete", "Delete", null, () -> lighting.lamps().delete(name), "small")));
        getChildren().addAll(many, Ui.row(shared, Ui.spring(), single()), choice, output, conversions, file, web, multiplier, kelvin, width,
                height, beam, field, place,
                Ui.more("lamp-more", Ui.row(Ui.label("Name", "dial-name"), Ui.spring(), title), Ui.row(Ui.label("Group", "dial-name"), Ui.spring(), group), turn, visible, mirrored, twoSided,
                weight));
    }

    private javafx.scene.control.Button single() {
        var b = Ui.button("lamp-single", "Make single", "Gives it settings of its own", () -> lighting.lamps().single(name), "small");
        b.visibleProperty().bind(shared.textProperty().isNotEmpty());
        b.managedProperty().bind(b.visibleProperty());
        shared.visibleProperty().bind(b.visibleProperty());
        shared.managedProperty().bind(b.visibleProperty());
        return b;
    }

    private Dial dial(String id, String title, String format, double min, double max, double standard, boolean log, String cost,
            java.util.function.DoubleConsumer c) {
        return new Dial(id, title, format, min, max, standard, log, cost, v -> c.accept(v));
    }

    private void check(CheckBox b, String id, String help, java.util.function.Function<Boolean, UnaryOperator<LampSpec>> how) {
        b.setId(id);
        b.setTooltip(Ui.tip(help));
        b.selectedProperty().addListener((o, p, q) -> {
            if (!setting) set(null, how.apply(q));
        });
    }

    private Field coordinate(String id, int axis) {
        return new Field(id, 58, t -> {
            LampSpec l = lighting.lamps().find(name);
            if (setting || l == null) return;
            double[] p = l.position().clone();
            p[axis] = Quantity.METRES.parse(t, -1e5, 1e5);
            lighting.lamps().change(name, null, q -> q.withPosition(p));
        });
    }

    /** Changes what the lamp's settings are: its own, or those that it shares. */
    private void set(String key, UnaryOperator<LampSpec> how) {
        if (setting || name == null) return;
        if ("turn".equals(key)) lighting.lamps().changeEach("lamp turn", how);
        else lighting.lamps().changeChosen(key == null ? null : "lamp " + key, how);
    }

    private static String unit(LampSpec l) {
        return l.candela() != null ? "candela" : l.luminance() != null ? "luminance" : l.lux() != null ? "lux" : "lumens";
    }

    /** The same output in another unit. */
    private void change(String unit) {
        LampSpec l = lighting.lamps().find(name);
        Lamp now = l == null ? null : lighting.output().lamp(l);
        if (now == null) return;
        double v = value(now, unit);
        if (!(v > 0)) {
            show(l);
            return;
        }
        double rounded = Math.rint(v * 1000) / 1000;
        set(null, q -> output(q.withLumens(null).withCandela(null).withLuminance(null).withLux(null).withAt(null).withMultiplier(null),
                unit,
                rounded));
    }

    private static LampSpec output(LampSpec l, String unit, double v) {
        return switch (unit) {
            case "candela" -> l.withCandela(v);
            case "luminance" -> l.withLuminance(v);
            case "lux" -> l.withLux(v);
            default -> l.withLumens(v);
        };
    }

    private static double value(Lamp l, String unit) {
        return switch (unit) {
            case "candela" -> l.candela();
            case "luminance" -> l.luminance();
            case "lux" -> l.luxAt(1);
            default -> l.lumens();
        };
    }

    void show(LampSpec l) {
        name = l == null ? null : l.name();
        if (l == null) return;
        setting = true;
        LampSpec s = l.alone(work.document().project().lamps());
        Lamp now = lighting.output().lamp(l);
        shared.setText(l.like() == null ? "" : "Shares the settings of " + l.like());
        String unit = unit(s), kind = s.kind() == null ? "point" : s.kind();
        boolean ies = kind.equals("ies"), own = ies && s.lumens() == null && s.candela() == null && s.lux() == null;
        units.selectToggle(own ? null : units.getToggles().get(UNITS.indexOf(unit)));
        ((ToggleButton) units.getToggles().get(2)).setDisable(now != null && !(now.area() > 0));
        Double v = unit.equals("candela") ? s.candela() : unit.equals("luminance") ? s.luminance() : unit.equals("lux") ? s.lux()
                : s.lumens();
        Ui.show(output, !own);
        output.show(v == null ? 800 : v);
        conversions.setText(now == null ? "" : String.format(Locale.ROOT, "%s lm   %s cd   %s%s lx at 1 m", Texts.three(now.lumens()),
                Texts.three(now.candela()), now.area() > 0 ? Texts.three(now.luminance()) + " cd/m\u00b2   " : "",
                Texts.three(now.luxAt(1))));
        kelvin.show(s.kelvin() == null ? 3000 : s.kelvin());
        Ui.show(multiplier, own);
        multiplier.show(s.multiplier() == null ? 1 : s.multiplier());
        Ui.show(file, ies);
        Ui.show(web, ies);
        if (ies) {
            file.setText(s.file());
            web.show(now == null ? null : now.web());
        }
        boolean flat = kind.equals("rectangle"), tube = kind.equals("tube"), spot = kind.equals("spot"), body = flat || tube
                || kind.equals("disc") || kind.equals("sphere");
        Ui.show(aim, !kind.equals("sphere") && !kind.equals("point"));
        Ui.show(width, body || spot);
        width.show(s.width() != null ? s.width() : s.diameter() != null ? s.diameter() : 0.001);
        Ui.show(height, flat || tube);
        height.show(s.height() != null ? s.height() : 0.1);
        Ui.show(beam, spot);
        Ui.show(field, spot);
        beam.show(s.beam() == null ? 36 : s.beam());
        field.show(s.field() == null ? 60 : s.field());
        turn.show(l.turn() == null ? 0 : l.turn());
        weight.show(s.weight() == null ? 1 : s.weight());
        visible.setSelected(s.visible() == null || s.visible());
        mirrored.setSelected(s.mirrored() == null ? visible.isSelected() : s.mirrored());
        twoSided.setSelected(s.twoSided() != null && s.twoSided());
        Ui.show(twoSided, flat || kind.equals("disc"));
        Ui.show(visible, body);
        Ui.show(mirrored, body);
        title.show(l.name());
        group.show(l.groupName());
        int n = lighting.lamps().choice().allProperty().get().size();
        many.setText(n > 1 ? "What is set here is set for all " + n + " chosen lamps." : "");
        Ui.show(many, n > 1);
        Field[] f = {x, y, z};
        for (int k = 0; k < 3; k++) f[k].show(String.format(Locale.ROOT, "%.2f", l.position()[k]));
        setting = false;
    }

    /** Asks for a photometric file. */
    void chooseFile(Consumer<Path> take) {
        FileChooser c = new FileChooser();
        c.setTitle("Choose a photometric file");
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("Photometric files (.ies)", "*.ies", "*.IES"));
        File f = c.showOpenDialog(getScene() == null ? null : getScene().getWindow());
        if (f != null) take.accept(f.toPath());
    }
}
