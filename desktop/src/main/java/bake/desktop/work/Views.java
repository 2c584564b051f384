package bake.desktop.work;

import bake.formats.project.View;
import bake.studio.proof.Proof;
import java.util.ArrayList;
import java.util.List;

/** The views of the open project. */
public final class Views {
    private final Workbench bench;

    Views(Workbench bench) {
        this.bench = bench;
    }

    /** Looks at a view; nothing to undo. */
    public void choose(String name) {
        if (bench.session() != null) bench.session().look(name);
    }

    /** Keeps the current camera as a new view. */
    public void add() {
        View v = bench.view();
        if (v == null) return;
        String name = v.name() + ", copy";
        for (int i = 2; bench.project().view(name) != null; i++) name = v.name() + ", copy " + i;
        String chosen = name;
        bench.edit(null, p -> {
            List<View> views = new ArrayList<>(p.views());
            views.add(views.indexOf(v) + 1, v.withName(chosen));
            return p.withViews(views).withCurrent(chosen);
        });
    }

    /** @throws IllegalArgumentException when another view has that name */
    public void rename(String name) {
        View v = bench.view();
        String n = name.strip();
        if (v == null || n.isEmpty() || n.equals(v.name())) return;
        if (bench.project().view(n) != null)
            throw new IllegalArgumentException("There is a view called '" + n + "' already; choose another name.");
        bench.editView(null, x -> x.withName(n));
    }

    public void delete() {
        View v = bench.view();
        if (v == null || bench.project().views().size() < 2) return;
        bench.edit(null, p -> {
            List<View> views = new ArrayList<>(p.views());
            int at = views.indexOf(v);
            views.remove(v);
            return p.withViews(views).withCurrent(views.get(Math.min(at, views.size() - 1)).name());
        });
    }

    /** Takes the settings of a proof back: its view, in place of the one of the same name or beside the others. */
    public void takeBack(Proof p) {
        bench.edit(null, x -> {
            List<View> views = new ArrayList<>(x.views());
            View same = x.view(p.view().name());
            if (same != null) views.set(views.indexOf(same), p.view());
            else views.add(p.view());
            return x.withViews(views).withCurrent(p.view().name());
        });
        bench.prover().presetProperty().set(p.preset());
    }
}
