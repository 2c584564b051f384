package bake.studio.project;

import bake.formats.FormatException;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.first.FirstViews;
import bake.studio.scene.SceneAssembly;
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
     * A project that was begun.
     *
     * @param file the project's
     * @param findings what was seen in the model's file that may be wrong
     */
    public record Begun(Path file, List<Finding> findings) {}

    /**
     * Copies the model with its files into a new project folder.
     *
     * @throws FormatException when the model cannot be read or the folder holds a project already
     */
    public static Begun create(Path model, Path folder) throws IOException {
        return create(model, folder, null, null, () -> false);
    }

    /**
     * The same for a file that does not say its unit or up axis, or says them wrongly.
     *
     * @param unit metres per unit, or null
     * @param up "y" or "z", or null
     * @param stop when it says true nothing is made and reading ends with an error
     */
    public static Begun create(Path model, Path folder, Double unit, String up, BooleanSupplier stop) throws IOException {
        ImportedModel m = ModelReader.read(model, unit, up, null, stop);
        if (m.placedTriangles() == 0) throw new FormatException(m.name(), null, "holds nothing that can be rendered; export it again");
        if (Files.exists(folder.resolve(ProjectFile.NAME)))
            throw new FormatException(folder.toString(), null, "holds a project already; choose another folder");
        if (stop.getAsBoolean()) throw new FormatException(m.name(), null, "reading was stopped");
        Files.createDirectories(folder);
        Project.ModelRef ref = Project.ModelRef.of(new ModelStore(folder).bring(model)).withUnit(unit).withUp(up);
        String title = model.getFileName().toString().replaceFirst("\\.[^.]+$", "");
        Project bare = new Project(Project.VERSION, title, null, Project.Place.DEFAULT, List.of(ref), List.of(), List.of(), List.of(),
                List.of(), List.of(), List.of(), List.of(), null, Map.of());
        SceneAssembly assembly = new SceneAssembly(folder);
        assembly.know(ref, m);
        Path file = folder.resolve(ProjectFile.NAME);
        ProjectFile.write(file, FirstViews.of(assembly, bare, m, stop));
        return new Begun(file, m.findings());
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
}
