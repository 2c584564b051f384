package bake.studio.project;

import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.formats.FormatException;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.scene.Bounds;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;

/** Starts a project from a model file, with a first view and light that show it. */
public final class ProjectImport {
    private ProjectImport() {}

    /**
     * Copies the model with its files into a new project folder.
     *
     * @return the project's file
     * @throws FormatException when the model cannot be read or the folder holds a project already
     */
    public static Path create(Path model, Path folder) throws IOException {
        return create(model, folder, null, null);
    }

    /**
     * The same for a file that does not say its unit or up axis, or says them wrongly.
     *
     * @param unit metres per unit, or null
     * @param up "y" or "z", or null
     */
    public static Path create(Path model, Path folder, Double unit, String up) throws IOException {
        return create(model, folder, unit, up, () -> false);
    }

    /** The same; when {@code stop} says true nothing is made and reading ends with an error. */
    public static Path create(Path model, Path folder, Double unit, String up, BooleanSupplier stop) throws IOException {
        ImportedModel m = ModelReader.read(model, unit, up, null, stop);
        if (stop.getAsBoolean()) throw new FormatException(m.name(), null, "reading was stopped");
        if (m.placedTriangles() == 0) throw new FormatException(m.name(), null, "holds nothing that can be rendered; export it again");
        if (Files.exists(folder.resolve(ProjectFile.NAME)))
            throw new FormatException(folder.toString(), null, "holds a project already; choose another folder");
        Files.createDirectories(folder);
        String brought = new ModelStore(folder).bring(model);
        String name = model.getFileName().toString();
        String title = name.replaceFirst("\\.[^.]+$", "");
        Project p = new Project(Project.VERSION, title, null, Project.Place.DEFAULT,
                List.of(Project.ModelRef.of(brought).withUnit(unit).withUp(up)), List.of(), List.of(), List.of(), List.of(),
                List.of(), views(m), List.of(), null, Map.of());
        Path file = folder.resolve(ProjectFile.NAME);
        ProjectFile.write(file, p);
        return file;
    }

    /**
     * Puts a newer file in place of a model of a project. What the artist gave to materials, layers and lamps holds on, since it
     * goes by name; the newer file may have another name and kind.
     *
     * @param old file of the model in the project, or null where it has just one
     * @return what no longer has anything to hold on to, a line each
     */
    public static List<String> replace(Path model, Path folder, String old) throws IOException {
        Path file = folder.resolve(ProjectFile.NAME);
        if (!Files.isRegularFile(file))
            throw new FormatException(folder.toString(), null, "holds no project; import the model without --again first");
        try (ProjectLock lock = ProjectLock.take(folder)) {
            Replaced r = replaced(ProjectFile.read(file), model, folder, old);
            ProjectFile.write(file, r.project);
            return r.lost;
        }
    }

    /** Brings a further model into a project's folder; the project's own file is left to be saved. */
    public static Project.ModelRef further(Path model, Path folder) throws IOException {
        ImportedModel m = ModelReader.read(model, null, null, null);
        if (m.placedTriangles() == 0) throw new FormatException(m.name(), null, "holds nothing that can be rendered; export it again");
        return Project.ModelRef.of(new ModelStore(folder).bring(model));
    }

    /**
     * A project whose model was replaced.
     *
     * @param lost what no longer has anything to hold on to, a line each
     */
    public record Replaced(Project project, List<String> lost) {}

    /** The same for a project that is open: the file is copied, the project's own file is left to be saved. */
    public static Replaced replaced(Project p, Path model, Path folder, String old) throws IOException {
        List<String> files = p.models().stream().map(Project.ModelRef::file).toList();
        if (old == null && files.size() != 1)
            throw new FormatException(ProjectFile.NAME, null, "has " + files.size() + " models; say which to replace: "
                    + String.join(", ", files));
        int at = old == null ? 0 : files.indexOf(old);
        // A name alone will do where it is the only one.
        List<String> named = files.stream().filter(f -> f.endsWith("/" + old)).toList();
        if (at < 0 && named.size() == 1) at = files.indexOf(named.getFirst());
        if (at < 0) throw new FormatException(ProjectFile.NAME, null, "has no model '" + old + "'; it has: " + String.join(", ", files));
        Project.ModelRef before = p.models().get(at);
        ImportedModel m = ModelReader.read(model, before.unit(), before.up(), before.variant());
        if (m.placedTriangles() == 0) throw new FormatException(m.name(), null, "holds nothing that can be rendered; export it again");
        String brought = new ModelStore(folder).bring(model);
        List<Project.ModelRef> models = new ArrayList<>(p.models());
        models.set(at, before.withFile(brought));
        // A file without parts is a layer of its own name.
        String was = Path.of(before.file()).getFileName().toString(), is = model.getFileName().toString();
        p = p.withLayers(p.layers().stream().map(l -> l.name().equals(was) ? new Project.Layer(is, l.on(), l.other()) : l).toList());
        Project now = p.withModels(List.copyOf(models));
        List<String> lost = new ArrayList<>();
        if (models.size() > 1) return new Replaced(now, lost); // names may belong to the other models
        for (Project.Surface s : p.materials())
            if (m.materials().stream().noneMatch(x -> x.name().equals(s.name()))
                    && now.shapes().stream().noneMatch(x -> s.name().equals(x.material()))) lost.add("material '" + s.name()
                    + "' is not in the new file");
        for (Project.Layer l : p.layers())
            if (!m.layers().contains(l.name()) && now.shapes().stream().noneMatch(x -> l.name().equals(x.layer())))
                lost.add("layer '" + l.name() + "' is not in the new file");
        return new Replaced(now, lost);
    }

    private static List<View> views(ImportedModel m) {
        List<View> out = new ArrayList<>();
        for (ImportedModel.NamedCamera c : m.cameras()) {
            View v = view(c.name(), c.camera().withEv(13.5));
            // The picture has the shape that the file gives it, at the usual width.
            out.add(c.aspect() > 0 ? v.withSize(v.size()[0], Math.max(1, (int) Math.round(v.size()[0] / c.aspect()))) : v);
        }
        if (out.isEmpty()) out.add(view("First view", outside(m)));
        return out;
    }

    private static View view(String name, Camera c) {
        return new View(name, "exterior", View.CameraSpec.of(c), View.Around.sunAndSky("2027-06-21", "10:30", 2.5), null, "film", null,
                Map.of(), List.of(), Map.of(), List.of(), Map.of());
    }

    /** Looks at the whole model from the south-east, a little above eye level. */
    private static Camera outside(ImportedModel m) {
        Bounds all = new Bounds();
        for (var i : m.instances()) for (Vec3 c : Bounds.of(m.meshes().get(i.mesh()).positions()).corners()) all.add(i.toWorld().point(c));
        double[] s = all.size();
        Vec3 middle = all.middle();
        double size = Math.max(1e-3, Math.sqrt(s[0] * s[0] + s[1] * s[1] + s[2] * s[2]));
        Vec3 eye = middle.plus(new Vec3(0.75, -1, 0.35).normalized().times(size * 0.95));
        return Camera.of(eye, middle, 28).withEv(13.5);
    }
}
