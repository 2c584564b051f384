package bake.studio.cache;

import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.project.Digests;
import bake.studio.render.Checkpoint;
import bake.studio.render.EngineSettings;
import bake.studio.render.RenderJob;
import java.io.IOException;
import java.nio.file.Path;
import java.security.MessageDigest;

/** What pictures begin with that was kept before: it decides on their bits as the project does. */
public final class Begun {
    private Begun() {}

    /**
     * Names everything that decides on a picture's bits, a kept guide and kept caches as well.
     *
     * @param caches folder that it begins with, or null for none
     */
    public static String identity(Project p, Path folder, View v, RenderJob.Order o, CacheStore caches) throws IOException {
        return identity(p, folder, v, o, caches, new GuideStore(folder));
    }

    /** The same with guides that are kept somewhere of their own. */
    public static String identity(Project p, Path folder, View v, RenderJob.Order o, CacheStore caches,
            GuideStore guides) throws IOException {
        MessageDigest d = Digests.sha();
        if (caches != null) Digests.put(d, caches.stamp(p, folder, v, EngineSettings.bounced(o.preset())));
        if (guides.fitting(p, v) != null) Digests.stamp(d, guides.file(v));
        return Checkpoint.identity(p, folder, v, o, Digests.hex(d));
    }
}
