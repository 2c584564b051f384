package bake.desktop;

import bake.core.light.GeneralSky;
import bake.formats.FormatException;
import bake.formats.project.View;
import bake.studio.LiveRender;
import bake.studio.SunPosition;
import java.io.File;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/** Light: which surroundings, the sun's path and hour, haze, levels, HDRI. */
final class LightSheet extends VBox {
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.ENGLISH), LONG_DATE = DateTimeFormatter.ofPattern("d MMMM uuuu", Locale.ENGLISH);
    private final Workbench bench;
    private final ToggleGroup kinds = new ToggleGroup();
    private final SunPathDiagram path;
    private final TextField date = field("date", 118), time = field("time", 62);
    private final Label place = Ui.label("", "figure"), angles = Ui.label("", "figure"), file = Ui.label("", "figure");
    private final Dial haze, sun, sky, size, rotation, level;
    private final VBox sunCards, hdriCard, plainCard, levels;
    private final StandardSkyCard standard;
    private final Label skyLux = Ui.label("", "figure"), sunLux = Ui.label("", "figure"), allLux = Ui.label("", "figure");
    private final Dial plain;
    private boolean setting;

    LightSheet(Workbench bench) {
        this.bench = bench;
        path = new SunPathDiagram((key, d, t) -> bench.editView(key, v -> v.withAround(v.around().withTime(d.toString(), t.truncatedTo(ChronoUnit.MINUTES).toString()))));
        haze = new Dial("haze", "Haze (turbidity)", "%.1f", 1, 10, 2.5, false, "More haze: whiter sky, weaker and warmer sun. Costs nothing.", x -> around("haze", a -> a.withHaze(x)));
        sun = new Dial("sun-stops", "Sun", "%+.1f st", -8, 8, 0, false, "Level of the sun in stops against nature.", x -> around("sun level", a -> a.withStops(x, a.or(a.skyStops(), 0))));
        sky = new Dial("sky-stops", "Sky", "%+.1f st", -8, 8, 0, false, "Level of the sky in stops against nature.", x -> around("sky level", a -> a.withStops(a.or(a.sunStops(), 0), x)));
        size = new Dial("sun-size", "Sun size", "%.2f\u00b0", 0.05, 10, 0.533, true, "A bigger sun gives softer shadows and more noise.", x -> around("sun size", a -> a.withSunSize(x)));
        rotation = new Dial("rotation", "Rotation", "%.0f\u00b0", -180, 180, 0, false, "Turns the panorama, clockwise from above.", x -> around("rotation", a -> a.withRotation(x)));
        level = new Dial("hdri-stops", "Level", "%+.1f st", -12, 12, 0, false, "Level of the panorama in stops.", x -> around("hdri level", a -> a.withStops(a.or(a.sunStops(), 0), x)));
        plain = new Dial("plain-level", "Luminance", "%.0f cd/m\u00b2", 1, 100_000, 1000, true, "The same luminance from everywhere.",
                x -> around("plain", a -> new View.Around(a.kind(), a.date(), a.time(), a.haze(), a.sunStops(), 0.0, a.sunSize(), a.albedo(), a.file(), a.rotation(), new double[] {x, x, x}, a.skyType(), a.other())));
        sunCards = new VBox(Ui.card("Sun path", place, path, Ui.row(Ui.label("Date", "dial-name"), Ui.spring(), date, time), Ui.row(Ui.label("Sun stands", "dial-name"), Ui.spring(), angles)),
                Ui.card("Air and levels", null, haze, sun, sky, size));
        hdriCard = Ui.card("Panorama", Ui.button("choose-hdri", "Choose\u2026", "An .hdr or .exr file, twice as wide as high", this::choose, "small"), file, rotation, level);
        plainCard = Ui.card("Plain colour", null, plain);
        standard = new StandardSkyCard(bench);
        levels = Ui.card("On open ground", null, Ui.line("From the sky", skyLux), Ui.line("From the sun", sunLux), Ui.line("Together", allLux));
        VBox choice = new VBox(Ui.choice(kinds, "around-", "Sun and sky", "Standard sky", "HDRI", "Plain"));
        choice.getStyleClass().add("card");
        getChildren().addAll(choice, standard.card(), sunCards, hdriCard, plainCard, levels);
        bench.frameProperty().addListener((o, a, f) -> lux(f));
        kinds.selectedToggleProperty().addListener((o, a, b) -> {
            if (!setting && b != null) kind(((String) b.getUserData()).toLowerCase(Locale.ROOT));
        });
        date.setOnAction(e -> readTime());
        time.setOnAction(e -> readTime());
        // What was typed and not taken is put right when the field is left.
        date.focusedProperty().addListener((o, a, b) -> refresh());
        time.focusedProperty().addListener((o, a, b) -> refresh());
        bench.viewProperty().addListener((o, a, v) -> refresh());
        refresh();
    }

    private static TextField field(String id, double width) {
        TextField f = new TextField();
        f.setId(id);
        f.getStyleClass().add("figure-field");
        f.setPrefWidth(width);
        f.setMinWidth(width);
        return f;
    }

    private void around(String key, java.util.function.UnaryOperator<View.Around> change) {
        bench.editView(key, v -> v.withAround(change.apply(v.around())));
    }

    private void kind(String k) {
        View v = bench.view();
        if (v == null || v.around().kind().equals(k)) return;
        if (k.equals("hdri") && v.around().file() == null) {
            choose();
            refresh();
            return;
        }
        around(null, a -> a.withKind(k));
    }

    private void choose() {
        FileChooser c = new FileChooser();
        c.setTitle("Choose a panorama");
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("Panoramas (.hdr, .exr)", "*.hdr", "*.exr"));
        if (bench.folder() != null) c.setInitialDirectory(bench.folder().toFile());
        File f = c.showOpenDialog(getScene().getWindow());
        if (f != null) bench.useHdri(f.toPath());
    }

    private void readTime() {
        try {
            LocalDate d = date.getText().matches("\\d{4}-\\d{2}-\\d{2}") ? LocalDate.parse(date.getText()) : LocalDate.parse(date.getText().strip(), date.getText().strip().length() > 11 ? LONG_DATE : DATE);
            LocalTime t = LocalTime.parse(time.getText().strip().length() == 4 ? "0" + time.getText().strip() : time.getText().strip());
            around(null, a -> a.withTime(d.toString(), t.truncatedTo(ChronoUnit.MINUTES).toString()));
        } catch (DateTimeParseException e) {
            bench.messageProperty().set(new Workbench.Message("A date looks like 14 March 2027, a time like 09:10.", true));
            refresh();
        }
    }

    private void refresh() {
        View v = bench.view();
        setDisable(v == null);
        if (v == null) return;
        setting = true;
        View.Around a = v.around();
        for (Toggle t : kinds.getToggles()) if (((String) t.getUserData()).equalsIgnoreCase(a.kind())) t.setSelected(true);
        boolean general = a.kind().equals("standard sky");
        show(standard.card(), general);
        if (general) standard.show(a.standardSky());
        boolean covered = general && GeneralSky.hidesSun(a.standardSky());
        sun.setDisable(covered);
        size.setDisable(covered);
        haze.setDisable(covered);
        show(sunCards, general || a.kind().equals("sun and sky"));
        show(hdriCard, a.kind().equals("hdri"));
        show(plainCard, a.kind().equals("plain"));
        var pl = bench.project().place();
        place.setText(String.format(Locale.ROOT, "%.1f %s %.1f %s", Math.abs(pl.latitude()), pl.latitude() < 0 ? "S" : "N", Math.abs(pl.longitude()), pl.longitude() < 0 ? "W" : "E"));
        path.show(pl, a);
        try {
            var when = SunPosition.moment(pl, a);
            SunPosition.Angles s = SunPosition.at(pl, when);
            if (!date.isFocused()) date.setText(DATE.format(when));
            if (!time.isFocused()) time.setText(when.toLocalTime().truncatedTo(ChronoUnit.MINUTES).toString());
            angles.setText(String.format(Locale.ROOT, "%.0f\u00b0 %s, azimuth %.0f\u00b0", Math.abs(s.height()), s.height() < 0 ? "below" : "high", s.azimuth()));
        } catch (FormatException e) {
            angles.setText("\u2013");
        }
        haze.show(a.or(a.haze(), 2.5));
        sun.show(a.or(a.sunStops(), 0));
        sky.show(a.or(a.skyStops(), 0));
        size.show(a.or(a.sunSize(), 0.533));
        rotation.show(a.or(a.rotation(), 0));
        level.show(a.or(a.skyStops(), 0));
        plain.show(a.luminance() == null ? 1000 : Math.max(1, a.luminance()[1]));
        file.setText(a.file() == null ? "none chosen" : a.file());
        setting = false;
    }

    private void lux(LiveRender.Frame f) {
        if (f == null) return;
        skyLux.setText(Texts.lux(f.skyLux()));
        sunLux.setText(Texts.lux(f.sunLux()));
        allLux.setText(Texts.lux(f.skyLux() + f.sunLux()));
    }

    private static void show(VBox b, boolean visible) {
        b.setVisible(visible);
        b.setManaged(visible);
    }
}
