package bake.core.scene;

/**
 * Where an artist gives up truth or smoothness for time.
 *
 * @param reach distance that reflections in this surface see things at, metres; what is farther is taken for the surroundings,
 *     which is not true to nature; infinite for all
 * @param weight share of the paths that go on from this surface, above 0 to 1; those stand for the others too, so the mean stays
 *     and noise rises
 */
public record Thrift(double reach, double weight) {
    public static final Thrift NONE = new Thrift(Double.POSITIVE_INFINITY, 1);
}
