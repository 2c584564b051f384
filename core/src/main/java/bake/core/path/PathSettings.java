package bake.core.path;

import bake.core.film.PixelFilter;

/**
 * How paths are followed.
 *
 * @param bounces most surfaces a path may touch after the first, 0 to 1000
 * @param kinds the same for each kind of bounce
 * @param clamp greatest luminance, as a multiple of the camera's saturation, that one path may add after a diffuse
 *     bounce; 0 for no limit
 * @param seed chooses the random numbers
 * @param guided whether paths learn, pass by pass, where the surroundings are seen; takes noise away and leaves the mean
 * @param exchange whether pixels of a group use what each other's bounces met; takes noise away and leaves the mean. Not done where
 *     the limits by kind end paths, since what is left of them then depends on whose they are
 * @param prompt whether passes wait for nothing: nothing is learnt, cached or looked at before them, but what was begun with is used
 * @param filter how samples are gathered into pixels
 * @param bounced how light that has bounced is computed
 * @param occlusion how corners are darkened for the look of it
 * @param edges paths that each pass gives a pixel in which something ends, 1 to 16
 */
public record PathSettings(int bounces, Kinds kinds, double clamp, long seed, boolean guided, boolean exchange, boolean prompt,
        PixelFilter filter, BounceSettings bounced, Occlusion occlusion, int edges) {
    /**
     * Most bounces of each kind. What the last one meets still shows its own light.
     *
     * @param diffuse off matt bodies, and through translucent ones
     * @param mirrored off gloss and metal
     * @param refracted through clear solids; panes do not count
     */
    public record Kinds(int diffuse, int mirrored, int refracted) {
        public static final Kinds ALL = new Kinds(1000, 1000, 1000);
    }

    public static final PathSettings REFERENCE = new PathSettings(64, 0, 1);

    public PathSettings(int bounces, double clamp, long seed) {
        this(bounces, Kinds.ALL, clamp, seed, true, true, false, PixelFilter.TENT, BounceSettings.TRACED, Occlusion.NONE, 1);
    }

    public PathSettings(int bounces, double clamp, long seed, boolean guided, PixelFilter filter) {
        this(bounces, Kinds.ALL, clamp, seed, guided, true, false, filter, BounceSettings.TRACED, Occlusion.NONE, 1);
    }

    public PathSettings(int bounces, Kinds kinds, double clamp, long seed, boolean guided, PixelFilter filter) {
        this(bounces, kinds, clamp, seed, guided, true, false, filter, BounceSettings.TRACED, Occlusion.NONE, 1);
    }

    /**
     * Whether bounces are exchanged, all settings considered.
     *
     * @param known whether any cache that is wished for has been filled
     */
    public boolean exchanges(boolean known) {
        return exchange && !(known && bounced.cached()) && Math.min(kinds.diffuse, Math.min(kinds.mirrored, kinds.refracted)) >= bounces;
    }

    public PathSettings withSeed(long s) {
        return new PathSettings(bounces, kinds, clamp, s, guided, exchange, prompt, filter, bounced, occlusion, edges);
    }

    public PathSettings withExchange(boolean e) {
        return new PathSettings(bounces, kinds, clamp, seed, guided, e, prompt, filter, bounced, occlusion, edges);
    }

    public PathSettings withBounced(BounceSettings b) {
        return new PathSettings(bounces, kinds, clamp, seed, guided, exchange, prompt, filter, b, occlusion, edges);
    }

    public PathSettings with(Occlusion o) {
        return new PathSettings(bounces, kinds, clamp, seed, guided, exchange, prompt, filter, bounced, o, edges);
    }

    /** @param n paths a pass for a pixel in which something ends */
    public PathSettings withEdges(int n) {
        return new PathSettings(bounces, kinds, clamp, seed, guided, exchange, prompt, filter, bounced, occlusion, n);
    }

    public PathSettings promptly() {
        return new PathSettings(bounces, kinds, clamp, seed, guided, exchange, true, filter, bounced, occlusion, edges);
    }
}
