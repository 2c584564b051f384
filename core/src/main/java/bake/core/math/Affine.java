package bake.core.math;

/**
 * An affine map of space: {@code p' = M p + t}. Rows are x', y', z'.
 *
 * <p>Immutable; all entries are finite in a valid scene, which {@link #isFinite()} tells.
 */
public record Affine(
        double m00, double m01, double m02, double m03,
        double m10, double m11, double m12, double m13,
        double m20, double m21, double m22, double m23) {

    public static final Affine IDENTITY = new Affine(1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0);

    public static Affine translation(double x, double y, double z) {
        return new Affine(1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z);
    }

    public static Affine scale(double x, double y, double z) {
        return new Affine(x, 0, 0, 0, 0, y, 0, 0, 0, 0, z, 0);
    }

    /** Rotation by {@code radians} about a unit axis (Rodrigues' formula). */
    public static Affine rotation(Vec3 axis, double radians) {
        Vec3 a = axis.normalized();
        double c = Math.cos(radians), s = Math.sin(radians), k = 1 - c;
        return new Affine(
                c + a.x() * a.x() * k, a.x() * a.y() * k - a.z() * s, a.x() * a.z() * k + a.y() * s, 0,
                a.y() * a.x() * k + a.z() * s, c + a.y() * a.y() * k, a.y() * a.z() * k - a.x() * s, 0,
                a.z() * a.x() * k - a.y() * s, a.z() * a.y() * k + a.x() * s, c + a.z() * a.z() * k, 0);
    }

    /** Rotation by a unit quaternion. */
    public static Affine quaternion(double x, double y, double z, double w) {
        double n = x * x + y * y + z * z + w * w;
        double s = n > 0 ? 2 / n : 0;
        return new Affine(
                1 - s * (y * y + z * z), s * (x * y - z * w), s * (x * z + y * w), 0,
                s * (x * y + z * w), 1 - s * (x * x + z * z), s * (y * z - x * w), 0,
                s * (x * z - y * w), s * (y * z + x * w), 1 - s * (x * x + y * y), 0);
    }

    /** The frame whose columns are the images of the axes and whose origin is {@code o}. */
    public static Affine frame(Vec3 x, Vec3 y, Vec3 z, Vec3 o) {
        return new Affine(x.x(), y.x(), z.x(), o.x(), x.y(), y.y(), z.y(), o.y(), x.z(), y.z(), z.z(), o.z());
    }

    /** A frame at {@code origin} whose z axis points along {@code axis}; x and y are any fitting pair. */
    public static Affine pointing(Vec3 origin, Vec3 axis) {
        Vec3 z = axis.normalized();
        Vec3 x = (Math.abs(z.z()) < 0.99 ? Vec3.UP : new Vec3(0, 1, 0)).cross(z).normalized();
        return frame(x, z.cross(x), z, origin);
    }

    /** This map after {@code o}: {@code (this * o)(p) = this(o(p))}. */
    public Affine times(Affine o) {
        return new Affine(
                m00 * o.m00 + m01 * o.m10 + m02 * o.m20, m00 * o.m01 + m01 * o.m11 + m02 * o.m21,
                m00 * o.m02 + m01 * o.m12 + m02 * o.m22, m00 * o.m03 + m01 * o.m13 + m02 * o.m23 + m03,
                m10 * o.m00 + m11 * o.m10 + m12 * o.m20, m10 * o.m01 + m11 * o.m11 + m12 * o.m21,
                m10 * o.m02 + m11 * o.m12 + m12 * o.m22, m10 * o.m03 + m11 * o.m13 + m12 * o.m23 + m13,
                m20 * o.m00 + m21 * o.m10 + m22 * o.m20, m20 * o.m01 + m21 * o.m11 + m22 * o.m21,
                m20 * o.m02 + m21 * o.m12 + m22 * o.m22, m20 * o.m03 + m21 * o.m13 + m22 * o.m23 + m23);
    }

    public Vec3 point(Vec3 p) {
        return new Vec3(
                m00 * p.x() + m01 * p.y() + m02 * p.z() + m03,
                m10 * p.x() + m11 * p.y() + m12 * p.z() + m13,
                m20 * p.x() + m21 * p.y() + m22 * p.z() + m23);
    }

    public Vec3 vector(Vec3 v) {
        return new Vec3(
                m00 * v.x() + m01 * v.y() + m02 * v.z(),
                m10 * v.x() + m11 * v.y() + m12 * v.z(),
                m20 * v.x() + m21 * v.y() + m22 * v.z());
    }

    public Vec3 origin() {
        return new Vec3(m03, m13, m23);
    }

    public double determinant() {
        return m00 * (m11 * m22 - m12 * m21) - m01 * (m10 * m22 - m12 * m20) + m02 * (m10 * m21 - m11 * m20);
    }

    /**
     * The inverse map.
     *
     * @throws ArithmeticException when the map flattens space (determinant zero or not finite)
     */
    public Affine inverse() {
        double d = determinant();
        if (!(Math.abs(d) > 1e-30) || !Double.isFinite(d)) throw new ArithmeticException("transform cannot be inverted");
        double i = 1 / d;
        double a00 = (m11 * m22 - m12 * m21) * i, a01 = (m02 * m21 - m01 * m22) * i, a02 = (m01 * m12 - m02 * m11) * i;
        double a10 = (m12 * m20 - m10 * m22) * i, a11 = (m00 * m22 - m02 * m20) * i, a12 = (m02 * m10 - m00 * m12) * i;
        double a20 = (m10 * m21 - m11 * m20) * i, a21 = (m01 * m20 - m00 * m21) * i, a22 = (m00 * m11 - m01 * m10) * i;
        return new Affine(
                a00, a01, a02, -(a00 * m03 + a01 * m13 + a02 * m23),
                a10, a11, a12, -(a10 * m03 + a11 * m13 + a12 * m23),
                a20, a21, a22, -(a20 * m03 + a21 * m13 + a22 * m23));
    }

    public boolean isFinite() {
        return Double.isFinite(m00 + m01 + m02 + m03 + m10 + m11 + m12 + m13 + m20 + m21 + m22 + m23);
    }

    /** The twelve entries row by row, as floats for the hot arrays. */
    public void store(float[] out, int at) {
        double[] m = {m00, m01, m02, m03, m10, m11, m12, m13, m20, m21, m22, m23};
        for (int i = 0; i < 12; i++) out[at + i] = (float) m[i];
    }
}
