package bake.desktop.station.prove;

import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.work.PresetHand;
import bake.desktop.work.PresetMeeting;
import bake.desktop.work.Prover;
import bake.formats.project.Preset;
import bake.formats.project.SharedPreset;
import bake.studio.preset.PresetChanges;
import java.io.File;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;

/** Test or Final, the presets there are, what was changed of the chosen one, and the shelf that it is saved to. */
final class PresetCard extends VBox {
    private final Prover prover;
    private final PresetHand hand;
    private final ToggleGroup purpose = new ToggleGroup();
    private final HBox choice = Ui.choice(purpose, "purpose-", "Test", "Final");
    /** Whether the lines for saving are shown; and the texts typed so far. */
    private boolean saving, others;
    private String name = "", reason = "";
    private int shelf;
    private boolean setting;

    PresetCard(Prover prover) {
        super(7);
        this.prover = prover;
        hand = prover.presets();
        setId("preset-card");
        getStyleClass().add("card");
        purpose.selectedToggleProperty().addListener((o, a, b) -> {
            if (!setting && b != null) prover.wantsFinalProperty().set(b.getUserData().equals("Final"));
        });
        prover.presetProperty().addListener((o, a, b) -> {
            if (a == null || b == null || !a.name().equals(b.name()) || a.version() != b.version()) saving = false;
            refresh();
        });
        prover.runningProperty().addListener((o, a, b) -> refresh());
        hand.allProperty().addListener((o, a, b) -> refresh());
        hand.shelfNamesProperty().addListener((o, a, b) -> refresh());
        hand.newerProperty().addListener((o, a, b) -> refresh());
        hand.aboutProperty().addListener((o, a, b) -> refresh());
        hand.meeting().foundProperty().addListener((o, a, b) -> {
            if (b == null && a != null) saving = false;
            refresh();
        });
        refresh();
    }

    private void refresh() {
        Ui.refill(this, this::fill);
    }

    private void fill() {
        Preset p = prover.presetProperty().get();
        getChildren().clear();
        boolean last = prover.wantsFinalProperty().get();
        setting = true;
        for (Toggle t : purpose.getToggles()) if (t.getUserData().equals(last ? "Final" : "Test")) t.setSelected(true);
        setting = false;
        List<PresetChanges.Change> changes = hand.changes();
        getChildren().addAll(Ui.row(Ui.label("Preset", "card-title"), Ui.spring(), Ui.label(changes.isEmpty() ? ""
                : changes.size() + (changes.size() == 1 ? " change" : " changes"), "figure")), choice);
        if (p == null) return;
        getChildren().add(presets(p, last));
        about(p);
        newer();
        if (!changes.isEmpty()) changes(changes);
        PresetMeeting.Meeting m = hand.meeting().foundProperty().get();
        if (m != null) getChildren().add(new MeetingPart(hand.meeting(), m, name));
        else save(p);
        setDisable(prover.runningProperty().get());
    }

    private VBox presets(Preset p, boolean last) {
        VBox list = new VBox(1);
        int n = 0, hidden = 0;
        for (Preset x : hand.allProperty().get()) {
            if (x.isFinal() != last) continue;
            if (!others && !hand.suits(x) && !x.name().equals(p.name())) {
                hidden++;
                continue;
            }
            Button b = Ui.button("preset-" + n++, x.name() + "   v" + (x.name().equals(p.name()) ? p : x).version(), null,
                    () -> hand.choose(x), "list-line");
            b.setMaxWidth(Double.MAX_VALUE);
            if (x.name().equals(p.name())) b.getStyleClass().add("list-here");
            // Dragged out of the window it is a file; one that is dropped on the window is taken.
            b.setOnDragDetected(e -> {
                File f = hand.files().asFile(x);
                if (f == null) return;
                ClipboardContent c = new ClipboardContent();
                c.putFiles(List.of(f));
                b.startDragAndDrop(TransferMode.COPY).setContent(c);
                e.consume();
            });
            list.getChildren().add(b);
        }
        if (hidden > 0 || others) list.getChildren().add(Ui.button("preset-others", others ? "Only those for this setting" : hidden + " for the other setting", null, () -> {
            others = !others;
            refresh();
        }, "list-line", "quiet-line"));
        return list;
    }

    /** What the preset is for, and the exposure that suits its setting. */
    private void about(Preset p) {
        SharedPreset s = hand.aboutProperty().get();
        if (s == null || !s.preset().name().equalsIgnoreCase(p.name())) return;
        if (s.description() != null) getChildren().add(Ui.note(s.description()));
        if (s.exposure() == null || hand.ev() == null) return;
        Node text = Ui.note(String.format(java.util.Locale.ROOT, "Usual exposure EV %.1f, here EV %.1f.", s.exposure(), hand.ev()));
        getChildren().add(Math.abs(s.exposure() - hand.ev()) < 0.5 ? text : Ui.row(text, Ui.spring(), Ui.button("advised-ev",
                String.format(java.util.Locale.ROOT, "Use EV %.1f", s.exposure()), "Exposes this view by the preset's advice; undo brings the old exposure back", () -> hand.expose(s.exposure()),
                "small")));
    }

    /** A newer version on a shelf, with what it would change. */
    private void newer() {
        SharedPreset n = hand.newerProperty().get();
        Preset p = prover.presetProperty().get();
        if (n == null || p == null || !n.preset().name().equalsIgnoreCase(p.name())) return;
        String what = PresetChanges.between(p, n.preset()).stream().map(PresetChanges.Change::line).collect(Collectors.joining(", "));
        Node text = Ui.note("Version " + n.preset().version() + " is on the shelf" + (n.reason() == null ? "" : ": " + n.reason()) + ". "
                + (what.isEmpty() ? "It has the same settings." : "It would change " + what + "."));
        getChildren().add(Ui.row(text, Ui.spring(), Ui.button("take-newer", "Take it", "Use this version from now on; undo brings the old one back",
                hand::takeNewer, "small")));
    }

    /** Each changed setting with a way back. */
    private void changes(List<PresetChanges.Change> changes) {
        VBox lines = new VBox(1);
        for (PresetChanges.Change c : changes) {
            Button back = Ui.button("back-" + c.key(), "Back", "Return " + c.name() + " to " + c.was(), () -> hand.back(c.key()), "small");
            lines.getChildren().add(Ui.row(Ui.note(c.line()), Ui.spring(), back));
        }
        if (changes.size() > 1) lines.getChildren().add(Ui.row(Ui.spring(), Ui.button("back-all", "All back",
                "Return all settings to those of the preset", () -> hand.back(null), "small")));
        getChildren().add(lines);
    }

    private void save(Preset p) {
        if (!saving) {
            getChildren().add(Ui.row(Ui.button("preset-save", "Save to a shelf", "Keep these settings for other projects and colleagues", () -> {
                saving = true;
                name = p.name();
                reason = "";
                refresh();
            }, "small"), Ui.button("preset-file", "As a file\u2026", "One file with this preset, for mail or another studio; drop it on the window there", this::toFile, "small"), Ui.spring()));
            return;
        }
        ComboBox<String> where = new ComboBox<>();
        where.setId("preset-shelf");
        where.getItems().setAll(hand.shelfNamesProperty().get());
        shelf = Math.clamp(shelf, 0, Math.max(0, where.getItems().size() - 1));
        where.getSelectionModel().select(shelf);
        where.setOnAction(e -> shelf = where.getSelectionModel().getSelectedIndex());
        Field title = new Field("preset-name", 150, t -> name = t), why = new Field("preset-reason", 150, t -> reason = t);
        title.show(name);
        why.show(reason);
        why.setPromptText("why it was changed");
        Button now = Ui.button("preset-save-now", "Save", "As the next version, or as a new preset under another name",
                () -> hand.save(shelf, name, reason), "small"),
                leave = Ui.button("preset-save-not", "Do not save", null, () -> {
                    saving = false;
                    refresh();
                }, "small");
        getChildren().addAll(Ui.line("Name", title), Ui.line("Reason", why), Ui.line("Shelf", where), Ui.row(now, leave),
                Ui.row(Ui.button("preset-studio", "Choose the studio's folder", "A folder that colleagues reach too is the studio's shelf",
                        this::studio, "small")));
    }

    private void toFile() {
        FileChooser c = new FileChooser();
        c.setTitle("Save the preset as a file");
        c.setInitialFileName(prover.presetProperty().get().name() + ".json");
        File f = c.showSaveDialog(getScene().getWindow());
        if (f != null) hand.files().write(prover.presetProperty().get(), f.toPath());
    }

    private void studio() {
        DirectoryChooser c = new DirectoryChooser();
        c.setTitle("The studio's shelf of presets");
        File f = c.showDialog(getScene().getWindow());
        if (f == null) return;
        hand.chooseStudio(f.toPath());
        refresh();
    }
}
