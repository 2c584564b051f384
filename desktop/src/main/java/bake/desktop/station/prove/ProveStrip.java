package bake.desktop.station.prove;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.Workbench;
import bake.studio.proof.Proof;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;

/** Under the easel on the Prove station: what two hung prints have in common and what not. */
public final class ProveStrip extends VBox {
    private final Workbench bench;
    private final GridPane table = new GridPane();

    public ProveStrip(Workbench bench) {
        this.bench = bench;
        getStyleClass().add("strip");
        table.setHgap(18);
        table.setVgap(4);
        table.getColumnConstraints().addAll(new ColumnConstraints(190), new ColumnConstraints(220), new ColumnConstraints(220));
        getChildren().add(table);
        bench.prints().aProperty().addListener((o, a, b) -> fill());
        bench.prints().bProperty().addListener((o, a, b) -> fill());
        bench.prints().all().addListener((javafx.collections.ListChangeListener<Object>) c -> fill());
        fill();
    }

    private void fill() {
        table.getChildren().clear();
        Proof a = bench.prints().aProperty().get(), b = bench.prints().bProperty().get();
        if (a == null && b == null) {
            table.add(Ui.label(bench.prints().all().isEmpty()
                    ? "Make a proof with F5. Two of them can be hung as A and B and wiped across each other."
                    : "Click a print to hang it as A, Shift+click another to hang it as B.", "strip-title"), 0, 0, 3, 1);
            return;
        }
        table.add(Ui.label("", "strip-title"), 0, 0);
        table.add(Ui.label(a == null ? "" : "A", "column-a"), 1, 0);
        table.add(Ui.label(b == null ? "" : "B", "column-b"), 2, 0);
        int r = 1;
        r = row(r, "View", a == null ? "" : a.view().name(), b == null ? "" : b.view().name(), false);
        r = row(r, "Preset", a == null ? "" : a.preset().name(), b == null ? "" : b.preset().name(), false);
        r = row(r, "Light", light(a), light(b), true);
        r = row(r, "Time, passes", a == null ? "" : Texts.time(a.seconds()) + ", " + a.passes(),
                b == null ? "" : Texts.time(b.seconds()) + ", " + b.passes(), true);
        r = row(r, "Noise", a == null ? "" : Texts.noise(a.noise()), b == null ? "" : Texts.noise(b.noise()), true);
        row(r, "Light clamped away", clamped(a), clamped(b), true);
    }

    private int row(int r, String name, String a, String b, boolean figures) {
        Label n = Ui.label(name, "strip-title"), x = Ui.label(a, figures ? "strip-figure" : "strip-text"),
                y = Ui.label(b, figures ? "strip-figure" : "strip-text");
        if (!a.isEmpty() && !b.isEmpty() && !a.equals(b)) {
            x.getStyleClass().add("differs");
            y.getStyleClass().add("differs");
        }
        table.addRow(r, n, x, y);
        return r + 1;
    }

    private static String light(Proof p) {
        if (p == null) return "";
        var a = p.view().around();
        return a.kind().equals("sun and sky") ? a.date() + " " + a.time() + String.format(Locale.ROOT, ", haze %.1f", a.or(a.haze(), 2.5))
                : a.kind().equals("standard sky") ? a.kind() + " " + a.standardSky() + ", " + a.date() + " " + a.time() : a.kind();
    }

    private static String clamped(Proof p) {
        return p == null ? "" : String.format(Locale.ROOT, "%.2f %%", 100 * p.clamped());
    }
}
