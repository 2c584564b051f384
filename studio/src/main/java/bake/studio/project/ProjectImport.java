package bake.studio.project;

import bake.formats.FormatException;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Puts newer and further model files into a project. */
public final class ProjectImport {
    private ProjectImport() {}

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
