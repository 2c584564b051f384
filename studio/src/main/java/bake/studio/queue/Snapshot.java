package bake.studio.queue;

import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.CacheStore;
import bake.studio.cache.GuideStore;
import bake.studio.look.Looks;
import bake.studio.preset.Presets;
import bake.studio.render.EngineSettings;
import bake.studio.render.RenderJob;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** What a picture begins with, kept when it is added: its bits depend on nothing that is learnt or cached later. */
final class Snapshot {
    private Snapshot() {}

    /** Takes what fits of the project's caches and guides into a job's own folder; returns what the picture is made of as a digest. */
    static String take(QueueJob j, Project project, Path own) throws IOException {
        Path folder = Path.of(j.project());
        Project p = Presets.seen(project, j.preset());
        View v = p.view(j.view());
        if (v == null) throw new IllegalArgumentException("there is no view '" + j.view() + "' in " + j.title());
        CacheStore store = CacheStore.of(folder, j.preset());
        if (store != null) for (CacheStore.Entry e : store.list(p, folder, v, EngineSettings.bounced(j.preset()))) if (e.fits())
            link(e.file(), own.resolve("caches").resolve(e.file().getFileName()));
        GuideStore guides = new GuideStore(folder);
        if (guides.fitting(p, v) != null) link(guides.file(v), own.resolve("guides").resolve(guides.file(v).getFileName()));
        return FinalMaker.state(p, folder, v, new RenderJob.Order(v.name(), v.camera().camera(), Looks.of(folder, v), j.preset(), j.width(),
                j.height(), null,
                1, j.options().split()));
    }

    /** The same file under a second name: it stays when the first one gets another. */
    private static void link(Path from, Path to) throws IOException {
        Files.createDirectories(to.getParent());
        try {
            Files.createLink(to, from);
        } catch (UnsupportedOperationException | IOException e) {
            Files.copy(from, to, java.nio.file.StandardCopyOption.COPY_ATTRIBUTES, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        }
    }
}
