package bake.core.path;

/**
 * How light that has bounced is computed.
 *
 * @param first what the first matt surface does that the camera sees
 * @param later what carries on from there
 * @param cachedSurroundings whether an irradiance cache holds light straight from the surroundings too, the sun never
 * @param gatherRays rays that each record of an irradiance cache gathers light with, 32 to 16384
 * @param nearField distance from the first surface up to which bounces are traced rather than taken from an irradiance cache, metres, 0 to 100; 0 for
 *     in narrow places only
 */
public record BounceSettings(First first, Later later, boolean cachedSurroundings, int gatherRays, double nearField) {
    /** How near the near field of a narrow place ends, metres: about what stands on shelves and tables. */
    private static final double NARROW = 0.25;

    public BounceSettings {
        if (!(nearField >= 0 && nearField <= 100)) throw new IllegalArgumentException("a near field is 0 to 100 metres, not " + nearField);
        if (gatherRays < 32 || gatherRays > 16384) throw new IllegalArgumentException("a record gathers 32 to 16384 rays, not " + gatherRays);
    }

    /** With as many rays as a test needs. */
    public BounceSettings(First first, Later later) {
        this(first, later, false, 288, 0);
    }

    /** Where the near field ends wherever there is one, metres. */
    public float near() {
        return (float) (nearField > 0 ? nearField : NARROW);
    }

    /** Rays of a record for a noise aim, percent: their error falls with the root of their number, and neighbours share theirs. */
    public static int gatherRays(double noiseAim) {
        return (int) Math.clamp(1600 / Math.max(0.5, noiseAim), 256, 1600);
    }

    /** Everything is traced: no bias. */
    public static final BounceSettings TRACED = new BounceSettings(First.PATH_TRACING, Later.PATH_TRACING);

    /** Ways to gather light at the first matt surface. */
    public enum First {
        PATH_TRACING("path tracing"), IRRADIANCE_CACHE("irradiance cache");

        private final String word;

        First(String word) {
            this.word = word;
        }

        /** The name in files and on the command line. */
        public String word() {
            return word;
        }

        /** @throws IllegalArgumentException naming those there are; null is path tracing */
        public static First of(String word) {
            for (First f : values()) if (word == null || f.word.equals(word)) return f;
            throw new IllegalArgumentException("firstBounce is path tracing or irradiance cache, not '" + word + "'");
        }
    }

    /** Ways to find the light that comes to it from other surfaces. */
    public enum Later {
        PATH_TRACING("path tracing"), RADIANCE_CACHE("radiance cache"), NONE("none");

        private final String word;

        Later(String word) {
            this.word = word;
        }

        /** The name in files and on the command line. */
        public String word() {
            return word;
        }

        /** @throws IllegalArgumentException naming those there are; null is path tracing */
        public static Later of(String word) {
            for (Later f : values()) if (word == null || f.word.equals(word)) return f;
            throw new IllegalArgumentException("laterBounces is path tracing, radiance cache or none, not '" + word + "'");
        }
    }

    /** Whether anything is cached. */
    public boolean cached() {
        return first == First.IRRADIANCE_CACHE || later == Later.RADIANCE_CACHE;
    }
}
