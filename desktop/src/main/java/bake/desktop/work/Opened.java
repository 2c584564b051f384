package bake.desktop.work;

import bake.cli.Projects;
import bake.core.compiled.RenderScene;
import bake.core.scene.Scene;
import bake.core.work.Workers;
import bake.formats.model.ModelReader;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.first.NewProject;
import bake.studio.project.ProjectSession;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CompletionException;

/**
 * A project that has been read whole, ready for the window.
 *
 * @param compiled its current view, or null where there is none that can be shown
 */
public record Opened(ProjectSession session, SceneAssembly assembly, ProofStore store, List<Proof> proofs, ModelFacts facts,
        RenderScene compiled) {

    /** Reads a project, or starts one from a model file; {@code what} may be "demo". */
    public static Opened read(String what, Reading reading) throws IOException {
        Path p = what.equals("demo") ? null : Path.of(what);
        Path file = p != null && ModelReader.isModel(p) ? importModel(p, reading) : Projects.file(what);
        ProjectSession s = ProjectSession.open(file);
        try {
            SceneAssembly a = new SceneAssembly(s.folder());
            View v = s.project().currentView();
            reading.step("Reading the models and building their hierarchies");
            // Reading the models here shows a broken one before anything is replaced.
            RenderScene c = v == null ? null : compiled(a, s, v);
            if (reading.stopped()) throw new IOException("reading was stopped");
            ProofStore st = new ProofStore(s.folder());
            if (!s.readOnly()) st.empty();
            return new Opened(s, a, st, st.list(), ModelFacts.of(a), c);
        } catch (IOException | RuntimeException | OutOfMemoryError e) {
            s.close();
            throw e;
        }
    }

    /**
     * Null when the models can be used but something else of the view cannot: in the window another sky, backdrop or lamp can be chosen.
     */
    private static RenderScene compiled(SceneAssembly a, ProjectSession s, View v) throws IOException {
        Scene scene;
        try {
            scene = a.scene(s.project(), v);
        } catch (IOException e) {
            if (!a.hasModels()) throw e;
            return null; // the easel tries again, and says what is wrong
        }
        return RenderScene.compile(scene, null, Workers.COMPILING, HierarchyCache.shared());
    }

    /** What went wrong, without the wrapping of futures. */
    static Throwable cause(Throwable e) {
        return e instanceof CompletionException && e.getCause() != null ? e.getCause() : e;
    }

    private static Path importModel(Path model, Reading reading) throws IOException {
        String stem = model.getFileName().toString().replaceFirst("\\.[^.]+$", "");
        Path parent = model.toAbsolutePath().getParent(), folder = parent.resolve(stem + " project");
        for (int i = 2; Files.exists(folder); i++) folder = parent.resolve(stem + " project " + i);
        reading.step("Reading " + model.getFileName());
        return NewProject.create(model, folder, null, null, reading::stopped).file();
    }
}
