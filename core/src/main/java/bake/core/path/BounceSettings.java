package bake.core.path;

/**
 * How light that has bounced is computed.
 *
 * @param first what the first matt surface does that the camera sees
 * @param later what carries on from there
 * @param cachedSurroundings whether an irradiance cache holds light straight from the surroundings too, the sun never
 * @param gatherRays rays that a record of an irradiance cache of the widest reach gathers light with, 32 to 16384
 * @param gatherRadius farthest that a record reaches, metres, 0 to 100; 0 for a tenth of the room's diagonal
 * @param nearField distance from the first surface up to which bounces are traced rather than taken from an irradiance cache, metres, 0 to
 *     100; 0 for in narrow places only
 * @param photons how many a photon map holds, 1000 to 50 million
 * @param caustics what becomes of light that mirrors and clear solids throw on matt surfaces
 */
public record BounceSettings(First first, Later later, boolean cachedSurroundings, int gatherRays, double gatherRadius, double nearField,
        int photons, Caustics caustics) {
    /** Photons of a map that nobody asked for otherwise: a tenth of what a map needs that is seen directly (common practice, no source). */
    public static final int PHOTONS = 200_000;
    /** How near the near field of a narrow place ends, metres: about what stands on shelves and tables. */
    private static final double NARROW = 0.25;

    /** @throws IllegalArgumentException when a value is out of range */
    public BounceSettings {
        if (!(gatherRadius >= 0 && gatherRadius <= 100))
            throw new IllegalArgumentException("a gather radius is 0 to 100 metres, not " + gatherRadius);
        if (!(nearField >= 0 && nearField <= 100)) throw new IllegalArgumentException("a near field is 0 to 100 metres, not " + nearField);
        if (gatherRays < 32 || gatherRays > 16384)
            throw new IllegalArgumentException("a record gathers 32 to 16384 rays, not " + gatherRays);
        if (photons < 1000 || photons > 50_000_000)
            throw new IllegalArgumentException("a photon map holds 1000 to 50000000 photons, not " + photons);
    }

    /** With as many rays as a test needs. */
    public BounceSettings(First first, Later later) {
        this(first, later, false, 288, 0, 0, PHOTONS, Caustics.PATH_TRACING);
    }

    /**
     * Rays of a record for a noise aim, percent: their error falls with the root of their number. With fewer than the least, walls of tests
     * are blotchy.
     */
    public static int gatherRays(double noiseAim) {
        return (int) Math.clamp(6400 / Math.max(0.25, noiseAim * noiseAim), 144, 3200);
    }

    /** Everything is traced: no bias. */
    public static final BounceSettings TRACED = new BounceSettings(First.PATH_TRACING, Later.PATH_TRACING);

    public BounceSettings withSurroundings(boolean cached) {
        return new BounceSettings(first, later, cached, gatherRays, gatherRadius, nearField, photons, caustics);
    }

    public BounceSettings withRays(int rays) {
        return new BounceSettings(first, later, cachedSurroundings, rays, gatherRadius, nearField, photons, caustics);
    }

    public BounceSettings withRadius(double metres) {
        return new BounceSettings(first, later, cachedSurroundings, gatherRays, metres, nearField, photons, caustics);
    }

    public BounceSettings withNearField(double metres) {
        return new BounceSettings(first, later, cachedSurroundings, gatherRays, gatherRadius, metres, photons, caustics);
    }

    public BounceSettings withPhotons(int count) {
        return new BounceSettings(first, later, cachedSurroundings, gatherRays, gatherRadius, nearField, count, caustics);
    }

    public BounceSettings with(Caustics c) {
        return new BounceSettings(first, later, cachedSurroundings, gatherRays, gatherRadius, nearField, photons, c);
    }

    /** Where the near field ends wherever there is one, metres. */
    public float near() {
        return (float) (nearField > 0 ? nearField : NARROW);
    }

    /** Ways to gather light at the first matt surface. */
    public enum First implements Word {
        PATH_TRACING("path tracing"), IRRADIANCE_CACHE("irradiance cache"),
        /** All light is that of the photons nearby: to look at a photon map, not for pictures. */
        PHOTON_MAP("photon map");

        private final String word;

        First(String word) {
            this.word = word;
        }

        @Override
        public String word() {
            return word;
        }

        /** @throws IllegalArgumentException naming those there are; null is path tracing */
        public static First of(String word) {
            return Word.of(First.class, "firstBounce", word);
        }
    }

    /** Ways to find the light that comes to it from other surfaces. */
    public enum Later implements Word {
        PATH_TRACING("path tracing"), RADIANCE_CACHE("radiance cache"), PHOTON_MAP("photon map"), NONE("none");

        private final String word;

        Later(String word) {
            this.word = word;
        }

        @Override
        public String word() {
            return word;
        }

        /** @throws IllegalArgumentException naming those there are; null is path tracing */
        public static Later of(String word) {
            return Word.of(Later.class, "laterBounces", word);
        }
    }

    /** What becomes of light that smooth surfaces throw on matt ones. */
    public enum Caustics implements Word {
        PATH_TRACING("path tracing"), PHOTON_MAP("photon map"), LEFT_OUT("left out");

        private final String word;

        Caustics(String word) {
            this.word = word;
        }

        @Override
        public String word() {
            return word;
        }

        /** @throws IllegalArgumentException naming those there are; null is path tracing */
        public static Caustics of(String word) {
            return Word.of(Caustics.class, "caustics", word);
        }
    }

    /** Whether photons are needed for all light, not for caustics alone. */
    public boolean mapped() {
        return later == Later.PHOTON_MAP || first == First.PHOTON_MAP;
    }

    /** Whether anything is cached that pictures end in. */
    public boolean cached() {
        return first != First.PATH_TRACING || later == Later.RADIANCE_CACHE || later == Later.PHOTON_MAP;
    }
}
