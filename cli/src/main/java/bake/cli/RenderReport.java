package bake.cli;

import bake.core.film.Region;
import bake.core.finish.DeliveredError;
import bake.core.solve.Caches;
import bake.formats.Json;
import bake.studio.render.RenderJob;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;

/** What is told about a picture that was rendered. */
final class RenderReport {
    private RenderReport() {}

    /** @param cells that were loaded, and {@code records} */
    static String json(RenderJob job, long seed, Path out, Caches before, long cells, long records) throws IOException {
        RenderJob.Progress g = job.progress();
        Region r = job.order().region();
        ObjectNode n = Json.MAPPER.createObjectNode();
        n.put("seconds", g.seconds()).put("passes", g.passes()).put("samples", job.film().samples()).put("rays", g.rays());
        if (Double.isFinite(job.rawNoise())) n.put("noise", job.rawNoise());
        else n.putNull("noise");
        DeliveredError off = job.delivered();
        if (off != null) n.put("error", off.percent()).put("worst", off.worst());
        n.put("seed", seed).putArray("size").add(r.width()).add(r.height());
        n.put("file", out.toString()).put("view", job.order().view()).put("preset", job.order().preset().name())
                .put("resumedAt", job.resumedAt()).put("clamped", job.clampedShare());
        RenderJob.Phases t = job.phases();
        n.putObject("phases").put("caches", t.caches()).put("passes", t.passes()).put("finish", t.finish());
        // Photons are never added to; a map is begun with or made.
        long photons = before.photons() == null ? 0 : before.photons().photons(),
                caustics = before.caustics() == null ? 0 : before.caustics().photons();
        n.put("leftOut", job.leftOutShare());
        ArrayNode all = n.putArray("caches");
        Caches c = job.caches();
        if (c.cells() != null) cache(all, "radiance", c.cells().cells(), c.cells().bytes(), t.caches(), cells);
        if (c.records() != null) cache(all, "irradiance", c.records().records(), c.records().bytes(), t.caches(), records);
        if (c.photons() != null) cache(all, "photons", c.photons().photons(), c.photons().bytes(), t.caches(), photons);
        if (c.caustics() != null) cache(all, "caustics", c.caustics().photons(), c.caustics().bytes(), t.caches(), caustics);
        return Json.MAPPER.writeValueAsString(n);
    }

    /** Seconds are those of all caches and guides together. */
    private static void cache(ArrayNode all, String kind, long records, long bytes, double seconds, long before) {
        all.addObject().put("kind", kind).put("records", records).put("bytes", bytes).put("seconds", seconds).put("loaded", before)
                .put("extended", records - before);
    }
}
