package bake.desktop.work;

import bake.formats.project.Project;
import bake.studio.project.ModelStore;
import bake.studio.project.ProjectImport;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executor;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;

/** The model files of the open project: what is known of them, and newer ones in their place. */
public final class ModelFiles {
    /** How far what lies in another's plane is lifted, metres. */
    private static final double LIFT = 0.001;
    private final Workbench bench;
    private final Executor background;
    private final ReadOnlyObjectWrapper<ModelFacts> facts = new ReadOnlyObjectWrapper<>(ModelFacts.NONE);
    private final ObjectProperty<List<ModelStore.Unused>> unused = new SimpleObjectProperty<>(List.of());
    private final ModelPicks picks;
    private final EffortHand efforts;
    private SceneAssembly assembly;
    /** Facts for which faces in one plane were looked for. */
    private ModelFacts lookedAt = ModelFacts.NONE;

    ModelFiles(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        picks = new ModelPicks(bench);
        efforts = new EffortHand(bench);
        facts.addListener((o, a, b) -> lookForCoplanar());
        bench.stationProperty().addListener((o, a, b) -> lookForCoplanar());
    }

    /** Faces in one plane take a large model some seconds to find: only while somebody looks at the station that says them. */
    private void lookForCoplanar() {
        ModelFacts f = facts.get();
        SceneAssembly a = assembly;
        if (a == null || f == lookedAt || bench.stationProperty().get() != Station.MODEL) return;
        lookedAt = f;
        bench.inBackground(() -> {
            List<SceneAssembly.Coplanar> found = a.coplanar();
            bench.later(() -> {
                if (facts.get() != f || found.isEmpty()) return;
                lookedAt = f.with(found);
                facts.set(lookedAt);
            });
        });
    }

    /** What is known of the model. */
    public ReadOnlyObjectProperty<ModelFacts> factsProperty() {
        return facts.getReadOnlyProperty();
    }

    void take(Opened o) {
        assembly = o.assembly();
        facts.set(o.facts());
        picks.begin();
        lookForUnused();
    }

    void leave() {
        assembly = null;
        facts.set(ModelFacts.NONE);
        unused.set(List.of());
    }

    /** Models in the project's folder that nothing refers to: not undo, not unsaved work of before. */
    public ObjectProperty<List<ModelStore.Unused>> unusedProperty() {
        return unused;
    }

    private void lookForUnused() {
        List<Project> states = bench.document().session().states();
        work(s -> s.unused(states));
    }

    /** Deletes them. */
    public void clearUnused() {
        List<ModelStore.Unused> all = unused.get();
        List<Project> states = bench.document().session().states();
        work(s -> {
            // What was taken back meanwhile stays.
            List<ModelStore.Unused> now = s.unused(states);
            for (ModelStore.Unused u : all) if (now.contains(u)) s.clear(u);
            return s.unused(states);
        });
    }

    private interface Work {
        List<ModelStore.Unused> in(ModelStore s) throws IOException;
    }

    private void work(Work w) {
        Path folder = bench.folder();
        background.execute(() -> {
            try {
                List<ModelStore.Unused> found = w.in(new ModelStore(folder));
                bench.later(() -> {
                    if (folder.equals(bench.folder())) unused.set(found);
                });
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** The files have changed: what is known of them is found out anew. */
    void learn(Project p) {
        SceneAssembly a = assembly;
        lookForUnused();
        if (p.currentView() == null) return;
        background.execute(() -> {
            try {
                a.scene(p, p.currentView());
                ModelFacts f = ModelFacts.of(a);
                bench.later(() -> {
                    if (a == assembly) facts.set(f);
                });
            } catch (IOException | RuntimeException | OutOfMemoryError e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Reads a newer file and puts it in place of one of the models. */
    public void replace(String old, Path model) {
        Path folder = bench.folder();
        Project p = bench.project();
        if (p == null) return;
        bench.notices().say("Reading " + model.getFileName() + "\u2026");
        background.execute(() -> {
            try {
                ProjectImport.Replaced r = ProjectImport.replaced(p, model, folder, old);
                bench.later(() -> {
                    if (!folder.equals(bench.folder())) return;
                    bench.edit(null, x -> x.withModels(r.project().models()).withLayers(r.project().layers()));
                    bench.notices().say(r.lost().isEmpty() ? "Replaced; everything that was set has kept its place."
                            : "Replaced. Without a place now: " + String.join("; ", r.lost()) + ".");
                });
            } catch (IOException | RuntimeException | OutOfMemoryError e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Adds a further file, which stands where its own coordinates say until it is placed. */
    public void add(Path model) {
        bring(model, r -> r, "Added " + model.getFileName() + "; place it with the values under its name, or by a click.");
    }

    /** Puts a file in the places of an object and of all its copies. */
    public void swap(String object, Path model) {
        if (bench.project() != null && bench.project().shapes().stream().anyMatch(s -> object.equals(s.name()))) {
            bench.notices().complain(object + " is a shape of the project and of no model; add a file and take the shape out of project.json.");
            return;
        }
        bring(model, r -> r.inPlaceOf(object), model.getFileName() + " stands in the places of " + object + " now. Undo brings it back.");
    }

    private void bring(Path model, UnaryOperator<Project.ModelRef> how, String done) {
        Path folder = bench.folder();
        if (bench.project() == null) return;
        bench.notices().say("Reading " + model.getFileName() + "\u2026");
        background.execute(() -> {
            try {
                Project.ModelRef ref = how.apply(ProjectImport.further(model, folder));
                bench.later(() -> {
                    if (!folder.equals(bench.folder())) return;
                    bench.edit(null, p -> p.withModels(Stream.concat(p.models().stream(), Stream.of(ref)).toList()));
                    bench.notices().say(done);
                });
            } catch (IOException | RuntimeException | OutOfMemoryError e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Changes how one of the files is read or where it stands; null takes it out of the project. */
    public void change(String key, int at, UnaryOperator<Project.ModelRef> how) {
        bench.edit(key, p -> {
            List<Project.ModelRef> out = new ArrayList<>(p.models());
            Project.ModelRef now = how.apply(out.get(at));
            if (now == null) out.remove(at);
            else out.set(at, now);
            return p.withModels(List.copyOf(out));
        });
    }

    /** Lifts an object off the plane in which another one has a face. */
    public void lift(SceneAssembly.Coplanar c) {
        var by = c.normal().times(LIFT);
        bench.edit(null, p -> p.withNudges(Stream.concat(p.nudges().stream(), Stream.of(new Project.Nudge(c.smaller(), new double[] {by.x(),
                by.y(), by.z()}, Map.of()))).toList()));
    }

    /** What is picked and measured on the picture. */
    public EffortHand efforts() {
        return efforts;
    }

    public ModelPicks picks() {
        return picks;
    }

    /** Changes a material of the models or the project. */
    public void surface(String material, String key, UnaryOperator<Project.Surface> how) {
        bench.edit(key + " " + material, p -> {
            List<Project.Surface> out = new ArrayList<>(p.materials());
            int at = 0;
            while (at < out.size() && !out.get(at).name().equals(material)) at++;
            if (at == out.size()) out.add(Project.Surface.of(material, null));
            out.set(at, how.apply(out.get(at)));
            return p.withMaterials(List.copyOf(out));
        });
    }

    /** Starts a material from one of the library, keeping what the project says of it besides; null goes back to the model's. */
    public void startFrom(String material, String from) {
        bench.edit(null, p -> {
            List<Project.Surface> out = new ArrayList<>(p.materials());
            out.removeIf(s -> s.name().equals(material));
            // What a shape is made of must stay there, be it plain.
            if (from != null || p.shapes().stream().anyMatch(s -> material.equals(s.material())))
                out.add(Project.Surface.of(material, from));
            return p.withMaterials(List.copyOf(out));
        });
    }

    public void switchLayer(String name, boolean on) {
        bench.edit(null, p -> {
            List<Project.Layer> l = new ArrayList<>(p.layers());
            l.removeIf(x -> x.name().equals(name));
            if (!on) l.add(new Project.Layer(name, false, Map.of()));
            return p.withLayers(l);
        });
    }
}
