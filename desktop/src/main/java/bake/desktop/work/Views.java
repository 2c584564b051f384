package bake.desktop.work;

import bake.core.scene.Camera;
import bake.formats.FormatException;
import bake.formats.project.View;
import bake.studio.scene.Moods;
import java.util.ArrayList;
import java.util.List;

/** The views of the open project. */
public final class Views {
    private final Workbench bench;

    Views(Workbench bench) {
        this.bench = bench;
    }

    /** Makes a view from inside the building. */
    public void inside() {
        GoInside.from(bench);
    }

    /** Looks at a view; nothing to undo. */
    public void choose(String name) {
        if (bench.document().session() != null) bench.document().session().look(name);
    }

    /** Looks at the view that comes so many after this one, around the list. */
    public void step(int by) {
        if (bench.view() == null) return;
        List<View> all = bench.project().views();
        choose(all.get(Math.floorMod(all.indexOf(bench.view()) + by, all.size())).name());
    }

    /** What of a view can be given to others. */
    public enum Part {
        LIGHT("its light: sun, sky, levels and lamps"), EXPOSURE("its exposure"), LOOK("its finish and white balance"), SIZE("its size");

        private final String words;

        Part(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        private View put(View from, View to) {
            Camera c = from.camera().camera(), d = to.camera().camera();
            return switch (this) {
                case LIGHT -> to.withLightOf(from);
                case EXPOSURE -> to.withCamera(d.withExposure(c.fNumber(), c.shutter(), c.iso()));
                case LOOK -> to.withCurve(from.curve()).withWhiteBalance(from.look().whiteBalance()).withFinish(from.finish());
                case SIZE -> to.withSize(from.size()[0], from.size()[1]);
            };
        }
    }

    /** Gives a part of this view to all others, in one step. */
    public void giveToAll(Part part) {
        View v = bench.view();
        if (v == null) return;
        bench.edit(null, p -> p.withViews(p.views().stream().map(x -> x == v ? x : part.put(v, x)).toList()));
        bench.notices().say("All views have " + part.words() + " now.");
    }

    /** Adds a view in another light, and looks at it. */
    public void add(View v, Moods mood) {
        try {
            View made = mood.of(v, bench.project());
            bench.edit(null, p -> {
                List<View> views = new ArrayList<>(p.views());
                views.add(views.indexOf(v) + 1, made);
                return p.withViews(views).withCurrent(made.name());
            });
        } catch (FormatException e) {
            bench.notices().fail(e);
        }
    }

    /** Moves a view to a place in the list. */
    public void move(String name, int to) {
        bench.edit(null, p -> {
            List<View> all = new ArrayList<>(p.views());
            int from = all.indexOf(p.view(name));
            if (from < 0 || to < 0 || to >= all.size() || to == from) return p;
            all.add(to, all.remove(from));
            return p.withViews(all);
        });
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
}
