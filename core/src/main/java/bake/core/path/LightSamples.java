package bake.core.path;

/**
 * How often a point looks for the surroundings and for emitters. Every look counts for its share, so the mean does not depend on
 * it. A number below one is the chance of looking at all.
 *
 * @param skyIndoors from the first point of a path, where panes are what daylight comes through
 * @param lamps from the first point
 * @param laterSky from all other points
 * @param laterLamps from all other points
 */
public record LightSamples(float skyIndoors, float lamps, float laterSky, float laterLamps) {
    /** While nothing is known. A path costs some twenty rays, a look a little more than one. */
    public static final LightSamples UNLEARNT = new LightSamples(3, 1, 1, 1);
    /** Share of all light from which on a second and third look pay, and below which it is seldom worth one. */
    private static final double MUCH = 0.15, LITTLE = 0.002;
    private static final float SELDOM = 0.25f;

    /**
     * @param sky share of all light that is the surroundings'
     * @param lamps share that is the emitters'
     */
    public static LightSamples of(double sky, double lamps) {
        return new LightSamples(sky >= MUCH ? 3 : 1, lamps >= MUCH ? 3 : 1, sky > LITTLE ? 1 : SELDOM, lamps > LITTLE ? 1 : SELDOM);
    }
}
