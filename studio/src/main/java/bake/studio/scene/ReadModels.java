package bake.studio.scene;

import bake.formats.SafePath;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import bake.formats.project.Project;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;

/** The model files of a project, each read once as long as it is the same file. */
final class ReadModels {
    private final Path folder;
    private final Map<Project.ModelRef, ImportedModel> models = new ConcurrentHashMap<>();
    private final Map<Project.ModelRef, String> stamps = new ConcurrentHashMap<>();

    /** @param folder of the project */
    ReadModels(Path folder) {
        this.folder = folder;
    }

    /** A model as it was read. */
    ImportedModel model(Project.ModelRef placed) throws IOException {
        Project.ModelRef ref = asRead(placed);
        Path p = SafePath.inside(folder, ref.file(), "project.json");
        // A newer file may have taken the place of one of the same name.
        String stamp = stamp(p);
        ImportedModel m = stamp.equals(stamps.put(ref, stamp)) ? models.get(ref) : null;
        if (m != null) return m;
        models.remove(ref);
        // What the models before it leave, but never next to nothing.
        long others = models.values().stream().mapToLong(TextureBudget::size).sum();
        m = ModelReader.read(p, ref.unit(), ref.up(), ref.variant(), () -> false,
                Math.max(TextureBudget.bytes() - others, TextureBudget.bytes() / 8));
        models.put(ref, m);
        return m;
    }

    /** A model that was read already, so that it need not be read again. */
    void know(Project.ModelRef placed, ImportedModel m) throws IOException {
        Project.ModelRef ref = asRead(placed);
        stamps.put(ref, stamp(SafePath.inside(folder, ref.file(), "project.json")));
        models.put(ref, m);
    }

    /** Forgets all but these. */
    void keep(List<Project.ModelRef> placed) {
        Set<Project.ModelRef> wanted = placed.stream().map(ReadModels::asRead).collect(Collectors.toSet());
        models.keySet().retainAll(wanted);
        stamps.keySet().retainAll(wanted);
    }

    private static String stamp(Path p) throws IOException {
        return Files.exists(p) ? Files.getLastModifiedTime(p) + " " + Files.size(p) : "";
    }

    /** Where a model stands has nothing to do with how it is read. */
    private static Project.ModelRef asRead(Project.ModelRef m) {
        return m.placed(null, null, null).inPlaceOf(null).withLayersBy(null);
    }
}
