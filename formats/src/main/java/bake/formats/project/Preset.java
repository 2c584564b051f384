package bake.formats.project;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import java.util.Objects;

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
 * @param diffuse most diffuse bounces, {@code mirrored} most in gloss, {@code refracted} most through clear solids; absent for no limit of
 *     their own
 * @param filter pixel filter: box, triangle, blackman-harris, mitchell-netravali or catmull-rom; absent means triangle
 * @param filterRadius pixels, 0.5 to 8; absent means the filter's usual one
 * @param firstBounce "path tracing" or "irradiance cache"; absent means path tracing
 * @param laterBounces "path tracing", "radiance cache" or "none"; absent means path tracing
 * @param cachedSurroundings whether records hold what comes straight from the surroundings too (never the sun); absent means no
 * @param gatherRays rays that each record of irradiance gathers light with, 32 to 16384; absent for as many as the noise aim wants
 * @param clamp most that one indirect path may add, in multiples of the camera's saturation; 0 for no limit
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Preset(
        String name, int version, String purpose, String setting, int width, double noiseAim, double timeLimit, int samples, int bounces, double clamp,
        Boolean denoise, Integer diffuse, Integer mirrored, Integer refracted, String filter, Double filterRadius,
        String firstBounce, String laterBounces, Boolean cachedSurroundings, Integer gatherRays, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {

    public Preset {
        other = other == null ? Map.of() : other;
        denoise = denoise == null || denoise;
    }

    /** What ships with Bake. Widths and aims are common practice, no source. */
    public static final List<Preset> SHIPPED = List.of(
            shipped("Interior test", "test", "interior", 640, 6, 45, 4096, 10, 20, true, true),
            shipped("Interior test, exact", "test", "interior", 640, 6, 45, 4096, 10, 20, false, false),
            shipped("Exterior test", "test", "exterior", 640, 5, 30, 4096, 8, 20, false, false),
            shipped("Interior final", "final", "interior", 0, 2, 0, 65536, 24, 50, true, true),
            shipped("Interior final, exact", "final", "interior", 0, 2, 0, 65536, 24, 50, false, false),
            shipped("Exterior final", "final", "exterior", 0, 1.5, 0, 65536, 16, 50, false, false));

    private static Preset shipped(String name, String purpose, String setting, int width, double aim, double seconds, int samples, int bounces, double clamp, boolean cached, boolean sky) {
        return new Preset(name, cached ? 2 : 1, purpose, setting, width, aim, seconds, samples, bounces, clamp, true, null, null, null, null, null,
                cached ? "irradiance cache" : null, cached ? "radiance cache" : null, cached && sky ? true : null, null, Map.of());
    }

    @JsonIgnore
    public boolean isFinal() {
        return purpose.equals("final");
    }

    public Preset withLimits(double noise, double seconds, int most) {
        return new Preset(name, version, purpose, setting, width, noise, seconds, most, bounces, clamp, denoise, diffuse, mirrored, refracted, filter, filterRadius, firstBounce, laterBounces, cachedSurroundings, gatherRays, other);
    }

    public Preset withDenoise(boolean d) {
        return new Preset(name, version, purpose, setting, width, noiseAim, timeLimit, samples, bounces, clamp, d, diffuse, mirrored, refracted, filter, filterRadius, firstBounce, laterBounces, cachedSurroundings, gatherRays, other);
    }

    public Preset withWidth(int w) {
        return new Preset(name, version, purpose, setting, w, noiseAim, timeLimit, samples, bounces, clamp, denoise, diffuse, mirrored, refracted, filter, filterRadius, firstBounce, laterBounces, cachedSurroundings, gatherRays, other);
    }

    public Preset withBounces(int b) {
        return new Preset(name, version, purpose, setting, width, noiseAim, timeLimit, samples, b, clamp, denoise, diffuse, mirrored, refracted, filter, filterRadius, firstBounce, laterBounces, cachedSurroundings, gatherRays, other);
    }

    /** Limits for each kind of bounce; null for no limit of its own. */
    public Preset withKinds(Integer d, Integer m, Integer r) {
        return new Preset(name, version, purpose, setting, width, noiseAim, timeLimit, samples, bounces, clamp, denoise, d, m, r, filter, filterRadius, firstBounce, laterBounces, cachedSurroundings, gatherRays, other);
    }

    public Preset withClamp(double c) {
        return new Preset(name, version, purpose, setting, width, noiseAim, timeLimit, samples, bounces, c, denoise, diffuse, mirrored, refracted, filter, filterRadius, firstBounce, laterBounces, cachedSurroundings, gatherRays, other);
    }

    /** @param radius pixels, or null for the filter's usual one */
    public Preset withFilter(String f, Double radius) {
        return new Preset(name, version, purpose, setting, width, noiseAim, timeLimit, samples, bounces, clamp, denoise, diffuse, mirrored, refracted, f, radius, firstBounce, laterBounces, cachedSurroundings, gatherRays, other);
    }

    /** How bounced light is computed; null for path tracing. */
    public Preset withBounces(String first, String later, Boolean surroundings) {
        return new Preset(name, version, purpose, setting, width, noiseAim, timeLimit, samples, bounces, clamp, denoise, diffuse, mirrored, refracted, filter, filterRadius, first, later, surroundings, gatherRays, other);
    }

    /** @param rays of each record, or null for as many as the noise aim wants */
    public Preset withGatherRays(Integer rays) {
        return new Preset(name, version, purpose, setting, width, noiseAim, timeLimit, samples, bounces, clamp, denoise, diffuse, mirrored, refracted, filter, filterRadius, firstBounce, laterBounces, cachedSurroundings, rays, other);
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
        if (!Objects.equals(diffuse, p.diffuse)) n++;
        if (!Objects.equals(mirrored, p.mirrored)) n++;
        if (!Objects.equals(refracted, p.refracted)) n++;
        if (!Objects.equals(firstBounce, p.firstBounce)) n++;
        if (!Objects.equals(laterBounces, p.laterBounces)) n++;
        if (!Objects.equals(cachedSurroundings, p.cachedSurroundings)) n++;
        if (!Objects.equals(gatherRays, p.gatherRays)) n++;
        if (!Objects.equals(filter, p.filter) || !Objects.equals(filterRadius, p.filterRadius)) n++;
        return n;
    }
}
