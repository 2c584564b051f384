package bake.core.transport;

/**
 * How light that has bounced is computed.
 *
 * @param first what the first matt surface does that the camera sees
 * @param later what carries on from there
 */
public record BounceSettings(First first, Later later) {
    /** Rays that each record of an irradiance cache gathers light with. */
    int gatherRays() {
        return 288;
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
    }

    /** Whether anything is cached. */
    public boolean cached() {
        return first == First.IRRADIANCE_CACHE || later == Later.RADIANCE_CACHE;
    }
}
