package bake.core.transport;

import bake.core.film.PixelFilter;

/**
 * How paths are followed.
 *
 * @param bounces most surfaces a path may touch after the first, 0 to 1000
 * @param clamp greatest luminance, as a multiple of the camera's saturation, that one path may add after a diffuse
 *     bounce; 0 for no limit
 * @param seed chooses the random numbers
 * @param guided whether paths learn, pass by pass, where the surroundings are seen; takes noise away and leaves the mean
 * @param filter how samples are gathered into pixels
 */
public record PathSettings(int bounces, double clamp, long seed, boolean guided, PixelFilter filter) {
    public static final PathSettings REFERENCE = new PathSettings(64, 0, 1);

    public PathSettings(int bounces, double clamp, long seed) {
        this(bounces, clamp, seed, true, PixelFilter.TENT);
    }

    public PathSettings withSeed(long s) {
        return new PathSettings(bounces, clamp, s, guided, filter);
    }
}
