package bake.studio.render;

import bake.core.film.PixelFilter;
import bake.core.path.BounceSettings;
import bake.core.path.Occlusion;
import bake.core.path.PathSettings;
import bake.formats.project.Preset;

/** What a preset says, as the engine takes it. */
public final class EngineSettings {
    private EngineSettings() {}

    /** How a preset has paths followed. */
    public static PathSettings paths(Preset p, long seed) {
        int all = PathSettings.Kinds.ALL.diffuse();
        PathSettings.Kinds kinds = new PathSettings.Kinds(p.diffuse() == null ? all : p.diffuse(),
                p.mirrored() == null ? all : p.mirrored(), p.refracted() == null ? all : p.refracted());
        PixelFilter.Shape shape = p.filter() == null ? PixelFilter.Shape.TRIANGLE : PixelFilter.Shape.of(p.filter());
        return new PathSettings(p.bounces(), kinds, p.clamp(), seed, true,
                new PixelFilter(shape, p.filterRadius() == null ? shape.radius : p.filterRadius())).withBounced(bounced(p))
                .with(occlusion(p)).withEdges(p.edges() == null ? 1 : p.edges());
    }

    /** How a preset has corners darkened. */
    public static Occlusion occlusion(Preset p) {
        return new Occlusion(p.darkCorners() == null ? 0 : p.darkCorners(),
                p.darkWithin() == null ? Occlusion.NONE.metres() : p.darkWithin());
    }

    /**
     * A preset that ends pictures elsewhere, with records as good as before: how many rays those gather with goes by the aim where nothing
     * else is said.
     */
    public static Preset ending(Preset p, double noise, double seconds, int most) {
        Preset q = p.withLimits(noise, seconds, most);
        return bounced(p).cached() ? q.withGatherRays(bounced(p).gatherRays()) : q;
    }

    /** How a preset has bounced light computed. */
    public static BounceSettings bounced(Preset p) {
        if (Boolean.TRUE.equals(p.exact())) return BounceSettings.TRACED;
        // What records are wrong by is in both halves of a picture and never denoised: it has to be as small as what is left is to be.
        int rays = p.gatherRays() != null ? p.gatherRays() : BounceSettings.gatherRays(p.noiseAim() > 0 ? p.noiseAim() : 5);
        return new BounceSettings(BounceSettings.First.of(p.firstBounce()), BounceSettings.Later.of(p.laterBounces()),
                Boolean.TRUE.equals(p.cachedSurroundings()), rays,
                p.gatherRadius() == null ? 0 : p.gatherRadius(), p.nearField() == null ? 0 : p.nearField(),
                p.photons() == null ? BounceSettings.PHOTONS : p.photons(),
                BounceSettings.Caustics.of(p.caustics()));
    }
}
