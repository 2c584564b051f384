package bake.desktop.work;

import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import bake.studio.proof.Thinning;
import java.time.LocalDateTime;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** What proofs take on disk, and which of them a rule would take off. Holds no control. */
public final class TidyHand {
    /**
     * @param bytes of all proofs
     * @param gone those that the rule takes off, {@code freed} their bytes
     */
    public record Found(int proofs, long bytes, List<Proof> gone, long freed) {}

    private final Workbench bench;
    private final Executor background;
    private final ObjectProperty<Thinning> rule = new SimpleObjectProperty<>(Thinning.USUAL);
    private final ObjectProperty<Found> found = new SimpleObjectProperty<>();
    private int asked;

    TidyHand(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        rule.addListener((o, a, b) -> look());
    }

    public ObjectProperty<Thinning> ruleProperty() {
        return rule;
    }

    /** Null until it is known. */
    public ObjectProperty<Found> foundProperty() {
        return found;
    }

    /** Looks at the disk again. */
    public void look() {
        ProofStore store = bench.prints().store();
        List<Proof> all = List.copyOf(bench.prints().all());
        int number = ++asked;
        if (store == null) {
            found.set(null);
            return;
        }
        Thinning by = rule.get();
        background.execute(() -> {
            List<Proof> gone = by.gone(all, LocalDateTime.now());
            Found f = new Found(all.size(), store.bytes(), gone, gone.stream().mapToLong(store::bytes).sum());
            bench.later(() -> {
                if (number == asked) found.set(f);
            });
        });
    }

    /** Takes them off; they can be put back until the project is opened again. */
    public void take() {
        Found f = found.get();
        if (f != null) bench.prints().delete(f.gone);
    }
}
