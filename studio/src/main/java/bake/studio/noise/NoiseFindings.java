package bake.studio.noise;

import bake.core.path.LightPart;
import java.util.List;

/**
 * Where the noise of a view comes from, by quick pictures of it. Shares are of the squared error of what is displayed, and add up to one
 * among the causes, among the sources, and among the ways.
 *
 * @param noise percent of white that such a picture is off by as it would be delivered: after denoising where that is on
 * @param falls with which power of time it does
 * @param causes greatest share first
 * @param sources share of each source group, {@code ways} of each way that light came
 * @param fireflies pixels that are off by more than a quarter of white and eight times what is usual around them, were there eight
     *        passes
 * @param clamped share of the light that the clamp took
 * @param remedies what was tried against the worst causes
 * @param width size of {@code map} across, pixels, {@code height} down
 * @param map error of each pixel over the mean error, row by row
 */
public record NoiseFindings(double noise, double falls, List<Cause> causes, List<Share> sources, List<Share> ways, int fireflies,
        double clamped, List<Remedy> remedies, int width, int height, float[] map) {
    /**
     * One cause.
     *
     * @param material whose pixels are meant; null for those in which something ends
     * @param way by which most of the noisy light came there; null for edges
     * @param share of the noise, 0 to 1; may be a little below 0 where light is left that is no noise
     * @param area share of the picture
     */
    public record Cause(String material, LightPart way, double share, double area) {
        public boolean edges() {
            return material == null;
        }
    }

    /** A part of the noise. */
    public record Share(String name, double share) {}

    /**
     * What was tried.
     *
     * @param against the cause
     * @param paths that its pixels get in each pass then
     * @param noise percent with it, after as many passes
     * @param time of a pass over what it took before
     */
    public record Remedy(Cause against, int paths, double noise, double time) {
        /** How much longer the same noise takes as without; below 1 it pays. */
        public double worth(NoiseFindings of) {
            return time * Math.pow(noise / of.noise, 1 / of.falls);
        }
    }
}
