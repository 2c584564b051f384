package bake.desktop.station.prove;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.CompareHand;
import bake.desktop.work.PrintLight;
import bake.studio.proof.Differences;
import bake.studio.proof.Proof;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Under the easel on the Prove station: how two hung prints are looked at, and only what differs between them. */
public final class ProveStrip extends VBox {
    private static final int MOST = 7;
    private final ProveWork work;
    private final GridPane table = new GridPane();
    private final ToggleGroup modes = new ToggleGroup();
    private final Label flip = Ui.label("", "strip-figure");
    private final HBox looks;
    private final Label stops = Ui.label("", "strip-figure");
    private final ToggleButton same = new ToggleButton("A's exposure for both");
    private final HBox choice, light;

    public ProveStrip(ProveWork work) {
        this.work = work;
        getStyleClass().add("strip");
        setSpacing(6);
        table.setHgap(18);
        table.setVgap(3);
        table.getColumnConstraints().addAll(new ColumnConstraints(170), new ColumnConstraints(210), new ColumnConstraints(210));
        choice = Ui.choice(modes, "compare-", "Wipe", "Flip", "Side by side", "Difference");
        choice.getStyleClass().add("on-easel");
        flip.setId("flip");
        flip.setTooltip(Ui.tip("How far the two are apart for a viewer who flips between them, 0 to 1 (FLIP). Below about 0.02 few see anything."));
        light = light();
        looks = Ui.row(choice, flip, Ui.spring(), light);
        modes.selectedToggleProperty().addListener((o, a, b) -> {
            if (b != null) work.comparing().modeProperty().set(mode((String) b.getUserData()));
        });
        HBox below = Ui.row(table, Ui.spring(), new ProofMap(work));
        below.setAlignment(Pos.TOP_LEFT);
        // Where it is narrow texts are cut: nothing pushes the sheet out of the window.
        for (Region r : new Region[] {this, looks, table, below}) r.setMinWidth(0);
        getChildren().addAll(looks, below);
        work.prints().aProperty().addListener((o, a, b) -> fill());
        work.prints().bProperty().addListener((o, a, b) -> fill());
        work.comparing().foundProperty().addListener((o, a, b) -> fill());
        work.comparing().modeProperty().addListener((o, a, b) -> fill());
        work.comparing().light().stopsProperty().addListener((o, a, b) -> fill());
        work.prints().all().addListener((javafx.collections.ListChangeListener<Object>) c -> fill());
        fill();
    }

    /** Brighter and darker, for a look into shadows and lights. */
    private HBox light() {
        PrintLight l = work.comparing().light();
        same.setId("same-exposure");
        same.getStyleClass().addAll("small", "on-easel");
        same.setTooltip(Ui.tip("B is shown by the exposure and the tones of A: what differs then is the light"));
        same.selectedProperty().bindBidirectional(l.sameProperty());
        stops.setId("print-stops");
        return Ui.row(same, Ui.button("print-darker", "Darker", "One stop; key [ on the picture", () -> l.step(-1), "small", "on-easel"),
                stops, Ui.button("print-brighter", "Brighter", "One stop; key ] on the picture", () -> l.step(1), "small", "on-easel"));
    }

    private static CompareHand.Mode mode(String word) {
        return switch (word) {
            case "Flip" -> CompareHand.Mode.FLIP;
            case "Side by side" -> CompareHand.Mode.BESIDE;
            case "Difference" -> CompareHand.Mode.DIFFERENCE;
            default -> CompareHand.Mode.WIPE;
        };
    }

    private void fill() {
        table.getChildren().clear();
        Proof a = work.prints().aProperty().get(), b = work.prints().bProperty().get();
        boolean both = a != null && b != null;
        Ui.show(looks, a != null || b != null);
        Ui.show(choice, both);
        Ui.show(flip, both);
        Ui.show(same, both);
        int n = work.comparing().light().stopsProperty().get();
        stops.setText(n == 0 ? "as they are" : (n > 0 ? "+" : "\u2212") + Math.abs(n) + (Math.abs(n) == 1 ? " stop" : " stops") + ", raw light");
        CompareHand.Mode now = work.comparing().modeProperty().get();
        for (Toggle t : modes.getToggles()) if (mode((String) t.getUserData()) == now) t.setSelected(true);
        if (a == null && b == null) {
            table.add(Ui.label(work.prints().all().isEmpty()
                    ? "Make a proof with F5. Two of them can be hung as A and B and looked at against each other."
                    : "Click a print to hang it as A, Shift+click another to hang it as B.", "strip-title"), 0, 0, 3, 1);
            return;
        }
        table.add(Ui.label("", "strip-title"), 0, 0);
        table.add(Ui.label(a == null ? "" : "A", "column-a"), 1, 0);
        table.add(Ui.label(b == null ? "" : "B", "column-b"), 2, 0);
        CompareHand.Found f = work.comparing().foundProperty().get();
        if (a != null && b != null) both(a, b, f);
        else one(a == null ? b : a, a == null);
    }

    /** Both: time and noise, and all that differs. */
    private void both(Proof a, Proof b, CompareHand.Found f) {
        flip.setText(f == null ? "looking\u2026" : Double.isNaN(f.flip()) ? "two sizes" : String.format(Locale.ROOT, "FLIP %.3f", f.flip())
                + (work.comparing().modeProperty().get() == CompareHand.Mode.FLIP ? "   hold F for B, \u2190 \u2192 other prints as A"
                : work.comparing().modeProperty().get() == CompareHand.Mode.DIFFERENCE
                        ? "   black 0, red 0.4, yellow 0.7, white 1" : ""));
        int r = row(1, "Time, passes, noise", figures(a), figures(b), true);
        if (a.error() != null || b.error() != null) r = row(r, "Error left when denoised", error(a), error(b), true);
        r = row(r, "Ended", a.endedBy(), b.endedBy(), false);
        if (f == null) return;
        List<Differences.Difference> lines = new ArrayList<>(f.lines());
        boolean more = lines.size() > MOST;
        for (Differences.Difference d : more ? lines.subList(0, MOST - 1) : lines)
            r = row(r, d.part().word() + ": " + d.what(), d.a(), d.b(), false);
        if (more) table.add(Ui.label("and " + (lines.size() - MOST + 1) + " more differences", "strip-title"), 0, r, 3, 1);
        if (lines.isEmpty()) table.add(Ui.label("Nothing else differs.", "strip-title"), 0, r, 3, 1);
    }

    private void one(Proof p, boolean second) {
        int r = 1;
        for (String[] w : new String[][] {{"View", p.view().name()}, {"Preset", p.preset().name() + " v" + p.preset().version()},
            {"Light", light(p)}, {"Time, passes, noise", figures(p)}, {"Error left when denoised", error(p)},
            {"Ended", p.endedBy()}, {"Light clamped away", String.format(Locale.ROOT, "%.2f %%", 100 * p.clamped())},
            {"Note", p.note()}}) if (!w[1].isEmpty()) r = row(r, w[0], second ? "" : w[1], second ? w[1] : "", true);
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

    private static String figures(Proof p) {
        return Texts.time(p.seconds()) + ", " + p.passes() + ", " + Texts.noise(p.noise());
    }

    private static String error(Proof p) {
        return p.error() == null ? "" : Texts.noise(p.error()) + ", in the worst places " + Texts.noise(p.worst());
    }

    private static String light(Proof p) {
        var a = p.view().around();
        return a.kind().equals("sun and sky") ? a.date() + " " + a.time() + String.format(Locale.ROOT, ", haze %.1f", a.or(a.haze(), 2.5))
                : a.kind().equals("standard sky") ? a.kind() + " " + a.standardSky() + ", " + a.date() + " " + a.time() : a.kind();
    }
}
