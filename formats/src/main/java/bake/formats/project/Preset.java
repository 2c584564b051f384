package bake.formats.project;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;

/**
 * Named, versioned settings for making a proof.
 *
 * @param purpose "test" or "final"
 * @param setting "interior", "exterior", "dusk" for what lamps light under a dark sky, or "any"
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
 * @param laterBounces "path tracing", "radiance cache", "photon map" or "none"; absent means path tracing
 * @param cachedSurroundings whether records hold what comes straight from the surroundings too (never the sun); absent means no
 * @param gatherRays rays that a record of irradiance of the widest reach gathers light with, 32 to 16384; absent for as many as the
 *     noise aim wants
 * @param gatherRadius farthest that a record reaches, metres, 0 to 100; absent or 0 for a tenth of the room's diagonal
 * @param nearField metres from the first surface within which bounces are traced and not cached, 0 to 100; absent or 0 for narrow places
 *     only
 * @param photons how many photons a photon map holds, 1000 to 50 million; absent means 200,000
 * @param caustics "path tracing", "photon map" or "left out": light that mirrors and clear solids throw on matt surfaces; absent means path
 *     tracing
 * @param exact whether everything is path traced whatever the solvers say, so that nothing is biased; absent means no
 * @param darkCorners by how much bounced light is dimmed where things are near, 0 to 1; absent means not at all
 * @param darkWithin up to where things count as near for that, metres; absent means 0.3
 * @param edges paths that each pass gives a pixel in which something ends, 1 to 16; absent means 1
 * @param clay whether all is matt grey but for what is clear or glows; absent means no
 * @param adaptive how much paths go where noise is left, 0 to 1; absent means not at all
 * @param aimDenoised whether {@code noiseAim} is of the denoised picture, as the halves of its samples tell it; absent means of the noise
 *     before, and so it is where nothing is denoised
 * @param channels what EXR files of its proofs and finals hold beside the picture; absent for nothing
 * @param clamp most that one indirect path may add, in multiples of the camera's saturation; 0 for no limit
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@RecordBuilder
public record Preset(
        String name, int version, String purpose, String setting, int width, double noiseAim, double timeLimit, int samples, int bounces,
        double clamp,
        Boolean denoise, Integer diffuse, Integer mirrored, Integer refracted, String filter, Double filterRadius,
        String firstBounce, String laterBounces, Boolean cachedSurroundings, Integer gatherRays, Double gatherRadius, Double nearField,
        Integer photons, String caustics, Boolean exact, Double darkCorners, Double darkWithin, Integer edges, Boolean clay,
                Double adaptive, Boolean aimDenoised, List<String> channels,
        @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) implements PresetBuilder.With {

    /** Noise before denoising over what is left after it, about: 2.1 to 3.9 were seen (docs/decisions/0023). */
    public static final double RAW = 2;

    public Preset {
        other = other == null ? Map.of() : other;
        denoise = denoise == null || denoise;
        channels = channels == null || channels.isEmpty() ? null : List.copyOf(channels);
    }

    /** One that leaves out all that may be absent. */
    public static Preset of(String name, int version, String purpose, String setting, int width, double noiseAim, double timeLimit,
            int samples, int bounces, double clamp, boolean denoise) {
        return new Preset(name, version, purpose, setting, width, noiseAim, timeLimit, samples, bounces, clamp, denoise, null, null, null,
                null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, Map.of());
    }

    @JsonIgnore
    public boolean isFinal() {
        return purpose.equals("final");
    }

    /** The same settings as another version, or under another name. */
    public Preset named(String n, int v) {
        return withName(n).withVersion(v);
    }

    public Preset withLimits(double noise, double seconds, int most) {
        return withNoiseAim(noise).withTimeLimit(seconds).withSamples(most);
    }

    /** Limits for each kind of bounce; null for no limit of its own. */
    public Preset withKinds(Integer d, Integer m, Integer r) {
        return withDiffuse(d).withMirrored(m).withRefracted(r);
    }

    /** @param radius pixels, or null for the filter's usual one */
    public Preset withFilter(String f, Double radius) {
        return withFilter(f).withFilterRadius(radius);
    }

    /** How bounced light is computed; null for path tracing. */
    public Preset withBounces(String first, String later, Boolean surroundings) {
        return withFirstBounce(first).withLaterBounces(later).withCachedSurroundings(surroundings);
    }

    /** Darkens corners for the look of it; null for not at all, and for the usual distance. */
    public Preset withDarkCorners(Double strength, Double metres) {
        return withDarkCorners(strength).withDarkWithin(metres);
    }

    /** Whether the picture is done when what is left of its noise after denoising is at the aim. */
    @JsonIgnore
    public boolean aimsAtDenoised() {
        return denoise && Boolean.TRUE.equals(aimDenoised);
    }

    /** Noise before denoising that a picture at the aim has, about; percent, 0 for none. */
    @JsonIgnore
    public double rawAim() {
        return aimsAtDenoised() ? noiseAim * RAW : noiseAim;
    }

}
