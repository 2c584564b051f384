package bake.studio.first;

import bake.formats.FormatException;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.project.ModelStore;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;

/** Starts a project from a model file, with first views and light that show it. */
public final class NewProject {
    private NewProject() {}

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
                List.of(), List.of(), List.of(), List.of(), null, List.of(), null, List.of(), List.of(), Map.of());
        SceneAssembly assembly = new SceneAssembly(folder);
        assembly.know(ref, m);
        Path file = folder.resolve(ProjectFile.NAME);
        ProjectFile.write(file, FirstViews.of(assembly, bare, m, stop));
        return new Begun(file, m.findings());
    }
}
