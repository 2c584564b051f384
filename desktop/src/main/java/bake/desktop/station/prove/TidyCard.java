package bake.desktop.station.prove;

import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.work.TidyHand;
import bake.studio.proof.Proof;
import bake.studio.proof.Thinning;
import java.util.List;
import java.util.Locale;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.layout.VBox;

/** What the proofs take on disk, and the rule by which old ones go; those that would are named before. */
final class TidyCard extends VBox {
    private static final int NAMED = 8;
    private final TidyHand hand;

    TidyCard(ProveWork work) {
        super(7);
        hand = work.prints().tidy();
        setId("tidy-card");
        getStyleClass().add("card");
        hand.foundProperty().addListener((o, a, b) -> Ui.refill(this, this::fill));
        // Only who looks at it waits for the disk.
        work.prints().all().addListener((ListChangeListener<Proof>) c -> look());
        visibleProperty().addListener((o, a, b) -> look());
        sceneProperty().addListener((o, a, b) -> look());
        fill();
    }

    private void look() {
        if (getScene() != null) hand.look();
    }

    private void fill() {
        TidyHand.Found f = hand.foundProperty().get();
        Thinning r = hand.ruleProperty().get();
        getChildren().setAll(Ui.row(Ui.label("Proofs on disk", "card-title"), Ui.spring(), Ui.label(f == null ? "" : f.proofs() + ", "
                + size(f.bytes()), "figure")));
        if (f == null || f.proofs() == 0) return;
        getChildren().addAll(Ui.line("Keep the newest of each view", field("tidy-newest", r.newest(), n -> new Thinning(n, r.days()))),
                Ui.line("Keep those of the last days", field("tidy-days", r.days(), n -> new Thinning(r.newest(), n))),
                Ui.note("Pinned, named and noted ones stay. " + (f.gone().isEmpty() ? "By this rule nothing goes." : f.gone().size()
                        + (f.gone().size() == 1 ? " proof goes, " : " proofs go, ") + size(f.freed()) + ": " + names(f.gone()) + ".")));
        if (f.gone().isEmpty()) return;
        Button take = Ui.button("tidy-now", "Take them off", "They can be put back until the project is opened again", hand::take, "small");
        getChildren().add(Ui.row(take));
    }

    private Field field(String id, int now, IntFunction<Thinning> rule) {
        Field f = new Field(id, 44, t -> {
            if (!t.matches("\\d{1,5}")) throw new IllegalArgumentException("A number from 0 to 10000");
            hand.ruleProperty().set(rule.apply(Integer.parseInt(t)));
        });
        f.show("" + now);
        return f;
    }

    private static String names(List<Proof> gone) {
        return gone.stream().limit(NAMED).map(p -> "" + p.number()).collect(Collectors.joining(", "))
                + (gone.size() > NAMED ? " and " + (gone.size() - NAMED) + " more" : "");
    }

    private static String size(long bytes) {
        return bytes < 1e9 ? String.format(Locale.ROOT, "%.1f MB", bytes / 1e6) : String.format(Locale.ROOT, "%.2f GB", bytes / 1e9);
    }
}
