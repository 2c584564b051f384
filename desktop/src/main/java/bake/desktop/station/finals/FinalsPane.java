package bake.desktop.station.finals;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.Finals;
import bake.desktop.work.Workbench;
import bake.studio.render.RenderJob;
import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The finals of the chosen views, one line each, rendered one after another. */
public final class FinalsPane extends VBox {
    private final Workbench bench;
    private final GridPane table = new GridPane();
    private final Label title = Ui.label("", "finals-title"), due = Ui.label("", "finals-due");

    public FinalsPane(Workbench bench) {
        this.bench = bench;
        setId("finals-pane");
        getStyleClass().add("finals");
        setSpacing(14);
        Button start = Ui.button("finals-start", "Render finals", "Renders the chosen views with the Final preset, one after another",
                () -> {
            if (bench.finals().runningProperty().get()) bench.finals().stop();
            else bench.finals().start();
        }, "main-action");
        bench.finals().runningProperty().addListener((o, a, b) -> start.setText(b ? "Stop, keep" : "Render finals"));
        Button keep = Ui.button("finals-keep", "Keep so far",
                "Writes the final in work to disk after its next pass; it is kept every minute anyway, and goes on from there after a stop or a crash",
                () -> bench.finals().saveSoon(), "small");
        keep.visibleProperty().bind(bench.finals().runningProperty());
        keep.managedProperty().bind(keep.visibleProperty());
        start.disableProperty().bind(bench.prover().runningProperty());
        table.setHgap(16);
        double[] least = {26, 110, 88, 92, 100, 40}, wanted = {26, 190, 96, 112, 160, 170};
        for (int i = 0; i < least.length; i++) {
            ColumnConstraints c = new ColumnConstraints(least[i], wanted[i], Double.MAX_VALUE);
            if (i == 1) c.setHgrow(Priority.ALWAYS);
            table.getColumnConstraints().add(c);
        }
        // Narrow windows cut names and notes short, not the figures and not the window.
        table.setMinWidth(0);
        setMinWidth(0);
        VBox asked = asked();
        getChildren().addAll(Ui.row(title, due, Ui.spring(), keep, start), asked, table);
        bench.finals().rows().addListener((ListChangeListener<Finals.Row>) c -> fill());
        bench.projectProperty().addListener((o, a, b) -> fill());
        fill();
    }

    /** What is to become of finals that are there already. */
    private VBox asked() {
        Label text = Ui.note("");
        VBox out = new VBox(6, text, Ui.row(
                Ui.button("finals-number", "Keep them, number the new ones", "New finals get names that end in -2, -3 and so on",
                        () -> bench.finals().number(), "small"),
                Ui.button("finals-replace", "Replace them", "Each goes once its new picture is whole, and not before",
                        () -> bench.finals().replace(), "small"),
                Ui.button("finals-not-now", "Do not render", null, () -> bench.finals().leave(), "small")));
        out.setId("finals-existing");
        out.getStyleClass().add("asked");
        bench.finals().existingProperty().addListener((o, a, there) -> {
            text.setText((there.size() == 1 ? "This final is there already: " : "These finals are there already: ")
                    + String.join(", ", there.stream().map(f -> f.getFileName().toString()).toList()) + ".");
            Ui.show(out, !there.isEmpty());
        });
        Ui.show(out, false);
        return out;
    }

    private void fill() {
        table.getChildren().clear();
        var rows = bench.finals().rows();
        long chosen = rows.stream().filter(Finals.Row::chosen).count();
        title.setText(rows.isEmpty() ? "The finals of the project's views are made here" : chosen + (chosen == 1 ? " final" : " finals"));
        due.setText(dueText());
        if (rows.isEmpty()) return;
        int c = 0;
        for (String h : new String[] {"", "View", "Pixels", "Preset", "State", ""}) table.add(head(h), c++, 0);
        for (int i = 0; i < rows.size(); i++) line(rows.get(i), i + 1);
    }

    private String dueText() {
        if (bench.project() == null || bench.project().due() == null) return "";
        try {
            LocalDateTime d = LocalDateTime.parse(bench.project().due());
            return "due " + Texts.due(bench.project().due()) + ", " + Texts.until(LocalDateTime.now(), d);
        } catch (DateTimeParseException e) {
            return "due " + bench.project().due();
        }
    }

    private static Label head(String t) {
        Label l = Ui.label(t, "table-head");
        l.setMaxWidth(Double.MAX_VALUE);
        return l;
    }

    private void line(Finals.Row r, int at) {
        CheckBox on = new CheckBox();
        on.setId("finals-" + (at - 1));
        on.setAccessibleText("Make " + r.view().name());
        on.setSelected(r.chosen());
        on.setDisable(bench.finals().runningProperty().get());
        on.setOnAction(e -> bench.finals().choose(r, on.isSelected()));
        Label state = Ui.label(stage(r), "table-cell", "state-" + r.stage().name().toLowerCase(Locale.ROOT));
        state.setId("state-" + (at - 1));
        table.addRow(at, on, cell(r.view().name(), "table-cell"), cell(Texts.size(r.width(), r.height()), "table-figure"),
                cell(r.preset().name(), "table-cell"), state);
        if (r.stage() == Finals.Stage.RENDERING && r.progress() != null) {
            ProgressBar b = new ProgressBar(r.progress().fraction());
            b.setMaxWidth(Double.MAX_VALUE);
            table.add(b, 5, at);
        } else {
            Label n = cell(r.note(), r.stage() == Finals.Stage.FAILED ? "error-text" : "table-figure");
            n.setTooltip(r.note().isEmpty() ? null : Ui.tip(r.note()));
            table.add(n, 5, at);
        }
    }

    private static Label cell(String t, String style) {
        Label l = Ui.label(t, "table-cell", style);
        l.setMaxWidth(Double.MAX_VALUE);
        return l;
    }

    private static String stage(Finals.Row r) {
        RenderJob.Progress p = r.progress();
        return switch (r.stage()) {
            case WAITING -> r.chosen() ? "waiting" : "left out";
            case RENDERING -> p == null ? "rendering" : "noise " + Texts.noise(p.noise())
                    + (Double.isNaN(p.secondsLeft()) ? "" : ", " + Texts.time(p.secondsLeft()) + " left");
            case DONE -> "done " + Texts.time(p.seconds());
            case STOPPED -> "stopped, kept";
            case FAILED -> "failed";
        };
    }
}
