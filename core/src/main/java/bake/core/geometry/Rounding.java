package bake.core.geometry;

/**
 * How far computed hits may lie from the surfaces they stand for. A hit is c + u a + v b with corners and edges in 24 bit floats: a few
 * roundings of the largest number in it (the bounds of Higham 2002, section 3.1, gamma_n with n about 8), and as many again where it is
 * brought to world space or a new ray is brought back from there.
 */
public final class Rounding {
    /** Unit roundoff of a float times the number of roundings, doubled for the plane test of the next ray. */
    private static final float SHARE = 24 * 0x1p-24f;

    private Rounding() {}

    /**
     * How far to step off a surface along its normal so that the next ray does not meet it again, metres.
     *
     * @param coordinate largest absolute coordinate of the place, that of the object's own place added where it has one, metres
     * @param edge largest absolute component of the triangle's edges, metres
     */
    public static float offset(float coordinate, float edge) {
        return Math.max(Float.MIN_NORMAL, SHARE * (coordinate + edge));
    }
}
