package bake.studio.estimate;

import bake.formats.Json;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.project.Digests;
import bake.studio.render.EngineSettings;
import bake.studio.render.Fingerprint;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.io.IOException;
import java.nio.file.Path;
import java.security.MessageDigest;

/**
 * A picture that this machine made, and what was predicted for it.
 *
 * @param scene what was seen and lit, as a digest: the same for pictures of other sizes and presets
 * @param solvers how light was computed, in words
 * @param caches seconds before the passes, {@code rendering} of the passes, {@code finish} of all else with saving
 * @param noise percent at the end, of what the preset's aim is of, {@code falling} the power of the passes that it fell with; 0 where
 *     that is not known
 * @param predicted seconds, and {@code predictedNoise} percent; 0 where nothing was
 * @param steady seconds of a pass once the first ones were made; 0 where that is not known
 * @param rays that records of its caches gathered with; 0 where that is not known
 * @param basis what the prediction stood on: "pictures" or "probe"; empty for none
 * @param denoised pixels that were denoised, in the end and to judge the picture; null where that is not known
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Work(String scene, String solvers, int threads, long pixels, int passes, double caches, double rendering, double finish,
        double noise, double falling, double predicted, double predictedNoise, String basis, double steady, int rays, Double denoised) {

    /** Seconds of a pass, the first ones left out where that is known. */
    double pass() {
        return steady > 0 ? steady : rendering / Math.max(1, passes);
    }

    /** Seconds that the first passes took beyond what others do. */
    double cold() {
        return Math.max(0, rendering - passes * pass());
    }

    /** Seconds for a pixel that was denoised, saving included; NaN where that is not known. */
    double finishOfPixel() {
        return denoised == null ? Double.NaN : finish / denoised;
    }

    /** Seconds in all. */
    public double seconds() {
        return caches + rendering + finish;
    }

    /** Real over predicted time; NaN where nothing was predicted. */
    public double off() {
        return predicted > 0 ? seconds() / predicted : Double.NaN;
    }

    /** Names what is seen and lit, and how it is exposed: the same for pictures of other sizes and presets. */
    public static String scene(Project p, Path folder, View v) throws IOException {
        MessageDigest d = Digests.sha();
        Digests.put(d, Fingerprint.of(p, folder, v).light() + Json.MAPPER.writeValueAsString(v.camera()) + v.around().skyStops()
                + v.around().sunStops() + v.faders() + v.muted() + (p.efforts().isEmpty() ? "" : Json.MAPPER.writeValueAsString(p.efforts())));
        return Digests.hex(d);
    }

    /** How a preset computes light, as far as its cost goes. */
    public static String solvers(Preset p) {
        var b = EngineSettings.bounced(p);
        String how = b.cached() ? b.first() + ", " + b.later() : "traced";
        if (p.adaptive() != null && p.adaptive() > 0) how += ", adaptive";
        // Noise of one kind says nothing of the other.
        if (p.aimsAtDenoised()) how += ", denoised";
        return p.edges() == null || p.edges() == 1 ? how : how + ", edges " + p.edges();
    }
}
