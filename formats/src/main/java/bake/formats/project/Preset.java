package bake.formats.project;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;

/**
 * Named, versioned settings for making a proof.
 *
 * @param purpose "test" or "final"
 * @param setting "interior" or "exterior"
 * @param width width of a test, pixels; 0 takes the view's own size
 * @param noiseAim noise at which the picture counts as done, percent; 0 for none
 * @param timeLimit seconds; 0 for none
 * @param samples most passes; 0 for none
 * @param bounces most surfaces a path touches after the first
 * @param denoise whether display pictures are denoised; absent means yes. EXR and HDR never are
 * @param clamp most that one indirect path may add, in multiples of the camera's saturation; 0 for no limit
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Preset(
        String name, int version, String purpose, String setting, int width, double noiseAim, double timeLimit, int samples, int bounces, double clamp,
        Boolean denoise, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {

    public Preset {
        other = other == null ? Map.of() : other;
        denoise = denoise == null || denoise;
    }

    /** What ships with Bake. Widths and aims are common practice, no source. */
    public static final List<Preset> SHIPPED = List.of(
            new Preset("Interior test", 1, "test", "interior", 640, 6, 45, 4096, 10, 20, true, Map.of()),
            new Preset("Exterior test", 1, "test", "exterior", 640, 5, 30, 4096, 8, 20, true, Map.of()),
            new Preset("Interior final", 1, "final", "interior", 0, 2, 0, 65536, 24, 50, true, Map.of()),
            new Preset("Exterior final", 1, "final", "exterior", 0, 1.5, 0, 65536, 16, 50, true, Map.of()));

    @JsonIgnore
    public boolean isFinal() {
        return purpose.equals("final");
    }

    public Preset withLimits(double noise, double seconds, int most) {
        return new Preset(name, version, purpose, setting, width, noise, seconds, most, bounces, clamp, denoise, other);
    }

    public Preset withDenoise(boolean d) {
        return new Preset(name, version, purpose, setting, width, noiseAim, timeLimit, samples, bounces, clamp, d, other);
    }

    public Preset withWidth(int w) {
        return new Preset(name, version, purpose, setting, w, noiseAim, timeLimit, samples, bounces, clamp, denoise, other);
    }

    /** Number of settings that differ from another preset's. */
    public int changesFrom(Preset p) {
        int n = 0;
        if (width != p.width) n++;
        if (noiseAim != p.noiseAim) n++;
        if (timeLimit != p.timeLimit) n++;
        if (samples != p.samples) n++;
        if (bounces != p.bounces) n++;
        if (clamp != p.clamp) n++;
        if (!denoise.equals(p.denoise)) n++;
        return n;
    }
}
