package bake.desktop.station.finals;

import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.text.Moments;
import bake.desktop.text.Texts;
import bake.desktop.work.Workbench;
import bake.formats.project.Preset;
import bake.studio.preset.Presets;
import java.io.File;
import java.time.LocalDateTime;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;

/** The Finals sheet: where the files go, in which format, and with which settings. */
public final class FinalsSheet extends VBox {
    private final Workbench bench;
    private final Field due = new Field("due", 190, this::due);
    private final Label left = Ui.note("");
    private final Label folder = Ui.label("", "figure");
    private final VBox presets = Ui.card("Final presets", null);

    public FinalsSheet(Workbench bench) {
        this.bench = bench;
        folder.setWrapText(true);
        ToggleGroup endings = new ToggleGroup();
        var choice = Ui.choice(endings, "ending-", "PNG", "TIF", "EXR", "HDR");
        for (Toggle t : endings.getToggles()) if (ending(t).equals(bench.finals().endingProperty().get())) t.setSelected(true);
        endings.selectedToggleProperty().addListener((o, a, b) -> {
            if (b != null) bench.finals().endingProperty().set(ending(b));
        });
        due.setPromptText("14 March 2027 17:00");
        getChildren().addAll(Ui.card("Promised", null, Ui.row(Ui.label("Due", "dial-name"), Ui.spring(), due), left), Ui.card("Files", null, choice,
                Ui.note("PNG and TIF hold the finished picture in 16 bit, EXR and HDR the light of the scene in cd/m\u00b2.")),
                Ui.card("Folder", Ui.button("finals-folder", "Choose\u2026", null, this::choose, "small"), folder), presets);
        bench.finals().folderProperty().addListener((o, a, b) -> refresh());
        bench.projectProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private void due(String t) {
        String to = t.isEmpty() ? null : Moments.parse(t, LocalDateTime.now()).toString();
        bench.edit(null, p -> p.withDue(to));
    }

    private static String ending(Toggle t) {
        return "." + ((String) t.getUserData()).toLowerCase(Locale.ROOT);
    }

    private void choose() {
        DirectoryChooser c = new DirectoryChooser();
        c.setTitle("Folder for the finals");
        if (bench.folder() != null) c.setInitialDirectory(bench.folder().toFile());
        File f = c.showDialog(getScene().getWindow());
        if (f != null) bench.finals().folderProperty().set(f.toPath());
    }

    private void refresh() {
        setDisable(bench.project() == null);
        var promised = bench.project() == null ? null : Moments.read(bench.project().due());
        due.show(promised == null ? "" : Moments.text(promised));
        left.setText(promised == null ? "Date and time, such as \"Friday 12:00\" or 14 March 2027 17:00; empty for none."
                : Texts.until(LocalDateTime.now(), promised) + ".");
        var f = bench.finals().folderProperty().get();
        folder.setText(f == null ? "" : bench.folder() != null && f.startsWith(bench.folder()) ? bench.folder().relativize(f).toString()
                : f.toString());
        presets.getChildren().remove(1, presets.getChildren().size());
        if (bench.project() == null) return;
        for (Preset p : Presets.all(bench.project())) {
            if (!p.isFinal()) continue;
            presets.getChildren().add(Ui.line(p.name(), Ui.label("noise " + Texts.noise(p.noiseAim()) + ", " + p.bounces() + " bounces",
                    "figure")));
        }
    }
}
