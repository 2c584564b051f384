package bake.desktop.station.light;

import bake.desktop.parts.Dial;
import bake.desktop.parts.Ui;
import bake.desktop.work.Sights.Part;
import bake.desktop.work.Sights;
import bake.formats.project.View.Around;
import java.io.File;
import java.util.List;
import java.util.function.BiFunction;
import javafx.scene.control.Label;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/** What is seen in one place instead of the light: which kind, and that kind's values. */
final class SightCard extends VBox {
    private static final List<String> WORDS = List.of("As lit", "HDRI", "Sky", "Colour", "Picture");
    private static final List<String> KINDS = java.util.Arrays.asList(null, "hdri", "sun and sky", "plain", "picture");

    private final LightWork work;
    private final Sights sights;
    private final Part part;
    private final ToggleGroup kinds = new ToggleGroup();
    private final Label file = Ui.label("", "figure");
    private final Dial level, turn, plain, ev, size, across, up;
    private final VBox fileLine, moves;
    private boolean setting;

    SightCard(LightWork work, Part part) {
        super(7);
        this.work = work;
        this.part = part;
        sights = work.sights();
        String id = part.key;
        level = dial(id + "-level", "Level", "%+.1f stops", -12, 12, 0, false, "How bright it is seen; it lights nothing.",
                Around::withSkyStops, 10);
        turn = dial(id + "-turn", "Turned", "%.0f\u00b0", -180, 180, 0, false, "Clockwise seen from above.", Around::withRotation, 1);
        plain = new Dial(id + "-plain", "Luminance", "%.0f cd/m\u00b2", 1, 100_000, 500, true, null,
                x -> change("plain", a -> a.withLuminance(new double[] {x, x, x})));
        ev = dial(id + "-ev", "Taken at", "EV %.1f", -4, 20, 13, false,
                "Exposure of the photograph. Until it is set the picture follows the view's exposure.", Around::withEv, 10);
        size = dial(id + "-size", "Size", "%.2f", 1, 6, 1, true, "1 just fills the frame.", Around::withSize, 100);
        across = dial(id + "-across", "Across", "%+.2f", -1, 1, 0, false, "Moves it, in widths of the frame.", Around::withAcross, 100);
        up = dial(id + "-up", "Up", "%+.2f", -1, 1, 0, false, "Moves it, in heights of the frame; for its horizon.", Around::withUp, 100);
        fileLine = new VBox(Ui.row(Ui.button(id + "-choose", "Choose\u2026", "A file for it", this::chooseFile, "small"), Ui.spring(),
                file));
        moves = Ui.more(id + "-more", ev, size, across, up);
        String[] words = (part == Part.BACKDROP ? WORDS : WORDS.subList(0, 4)).toArray(String[]::new);
        getChildren().addAll(Ui.label(part == Part.BACKDROP ? "Behind the model" : "In mirrors and gloss", "line-name"),
                Ui.choice(kinds, id + "-", words), fileLine, plain, level, turn, moves);
        kinds.selectedToggleProperty().addListener((o, a, b) -> {
            if (!setting && b != null) choose(KINDS.get(WORDS.indexOf((String) b.getUserData())));
        });
    }

    private Dial dial(String id, String name, String format, double min, double max, double standard, boolean log, String help,
            BiFunction<Around, Double, Around> set, double steps) {
        return new Dial(id, name, format, min, max, standard, log, help, x -> change(id, a -> set.apply(a, Math.rint(x * steps) / steps)));
    }

    private void change(String key, java.util.function.UnaryOperator<Around> how) {
        if (!setting) sights.change(part, part.key + " " + key, how);
    }

    private void choose(String kind) {
        boolean needsFile = "picture".equals(kind) || "hdri".equals(kind) && work.document().view().around().file() == null;
        if (needsFile && !kind.equals(sights.kind(part))) pick(kind);
        else sights.choose(part, kind);
        show(work.document().view().around());
    }

    private void chooseFile() {
        pick(sights.kind(part));
    }

    private void pick(String kind) {
        boolean flat = "picture".equals(kind);
        FileChooser c = new FileChooser();
        c.setTitle(flat ? "Choose a picture" : "Choose a panorama");
        c.getExtensionFilters().add(flat ? new FileChooser.ExtensionFilter("Pictures", "*.png", "*.jpg", "*.jpeg", "*.hdr", "*.exr")
                : new FileChooser.ExtensionFilter("Panoramas (.hdr, .exr)", "*.hdr", "*.exr"));
        if (work.document().folder() != null) c.setInitialDirectory(work.document().folder().toFile());
        File f = c.showOpenDialog(getScene() == null ? null : getScene().getWindow());
        if (f != null) sights.use(part, kind, f.toPath());
    }

    void show(Around light) {
        setting = true;
        Around a = part.of(light);
        String kind = a == null ? null : a.kind();
        for (Toggle t : kinds.getToggles()) if (java.util.Objects.equals(kind, KINDS.get(WORDS.indexOf((String) t.getUserData()))))
            t.setSelected(true);
        boolean flat = "picture".equals(kind), hdri = "hdri".equals(kind);
        Ui.show(fileLine, flat || hdri);
        Ui.show(level, a != null && !"plain".equals(kind));
        Ui.show(turn, hdri);
        Ui.show(plain, "plain".equals(kind));
        Ui.show(moves, flat);
        if (a != null) {
            file.setText(a.file() == null ? "none chosen" : a.file());
            level.show(a.or(a.skyStops(), 0));
            turn.show(a.or(a.rotation(), hdri ? light.or(light.rotation(), 0) : 0));
            plain.show(a.luminance() == null ? 500 : Math.max(1, a.luminance()[1]));
            ev.show(a.or(a.ev(), work.document().view().camera().camera().ev100()));
            size.show(a.or(a.size(), 1));
            across.show(a.or(a.across(), 0));
            up.show(a.or(a.up(), 0));
        }
        setting = false;
    }
}
