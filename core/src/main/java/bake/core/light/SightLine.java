package bake.core.light;

/**
 * What air does along a line of sight that does not depend on where the sun stands: the same for every azimuth, so a row of
 * the sky's table needs it only once. Made and read by {@link Atmosphere}.
 */
final class SightLine {
    final double mu;
    final int steps;
    /** By step: distance from the eye and from the Earth's centre, km. */
    final double[] at, radius;
    /** By step: where in the tables its height lies, for {@link Atmosphere}. */
    final double[] row, rowMultiple;
    /** By step and colour: share of the light scattered there towards the eye that arrives, by air and by haze, before phase functions. */
    final double[] air, haze;
    /** Distance to the ground, km; not positive when none is met. */
    final double ground;
    /** Share of the ground's light that arrives. */
    final double[] through = {1, 1, 1};

    SightLine(double mu, int steps, double ground) {
        this.mu = mu;
        this.steps = steps;
        this.ground = ground;
        at = new double[steps];
        radius = new double[steps];
        row = new double[steps];
        rowMultiple = new double[steps];
        air = new double[3 * steps];
        haze = new double[3 * steps];
    }
}
