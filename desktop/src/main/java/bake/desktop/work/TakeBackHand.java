package bake.desktop.work;

import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.proof.Differences;
import bake.studio.proof.Part;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Executor;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Takes settings back from a proof, part by part; what it would change is said before. Holds no control. */
public final class TakeBackHand {
    /**
     * What is about to be taken back.
     *
     * @param then the proof's project, or null for an older proof
     * @param wanted the parts that are chosen
     * @param changes all that differs from how things stand now: first as it is, then as it was
     */
    public record Offer(Proof proof, Project then, Set<Part> wanted, List<Differences.Difference> changes) {
        /** Parts in which anything differs. */
        public List<Part> differing() {
            return changes.stream().map(Differences.Difference::part).distinct().sorted().toList();
        }
    }

    private final Workbench bench;
    private final Executor background;
    private final ObjectProperty<Offer> offer = new SimpleObjectProperty<>();

    TakeBackHand(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        // What is offered is against how things stood: when they change it no longer holds.
        bench.projectProperty().addListener((o, a, b) -> offer.set(null));
    }

    public ObjectProperty<Offer> offerProperty() {
        return offer;
    }

    /** Looks what a proof has that is otherwise now. */
    public void ask(Proof p) {
        ProofStore store = bench.prints().store();
        Project now = bench.project();
        var preset = bench.prover().presetProperty().get();
        if (store == null || now == null || preset == null) return;
        View is = now.view(p.view().name()), shown = is == null ? bench.view() : is;
        background.execute(() -> {
            try {
                Project then = store.project(p);
                List<Differences.Difference> changes = Differences.between(new Differences.State(then == null ? null : now, shown, preset),
                        Differences.State.of(p, then));
                EnumSet<Part> all = EnumSet.noneOf(Part.class);
                changes.forEach(c -> all.add(c.part()));
                bench.later(() -> {
                    if (bench.project() != now) return;
                    if (changes.isEmpty()) bench.notices().say("Nothing differs from proof " + p.number() + ".");
                    else offer.set(new Offer(p, then, all, changes));
                });
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Chooses or leaves out a part. */
    public void want(Part part, boolean wanted) {
        Offer f = offer.get();
        if (f == null) return;
        Set<Part> now = EnumSet.noneOf(Part.class);
        now.addAll(f.wanted);
        if (wanted) now.add(part);
        else now.remove(part);
        offer.set(new Offer(f.proof, f.then, now, f.changes));
    }

    /** Does it, as one step that can be undone. */
    public void take() {
        Offer f = offer.get();
        if (f == null) return;
        List<Part> parts = new ArrayList<>(f.wanted);
        offer.set(null);
        String step = "take back #" + System.nanoTime();
        bench.edit(step, x -> Part.back(x, f.proof, f.then, parts));
        if (parts.contains(Part.PRESET)) bench.prover().takeBack(step, f.proof.preset());
    }

    public void leave() {
        offer.set(null);
    }
}
