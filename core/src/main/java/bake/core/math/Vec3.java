package bake.core.math;

/** A point, direction or colour triple in double precision, for set-up work. Hot loops use plain floats instead. */
public record Vec3(double x, double y, double z) {
    public static final Vec3 ZERO = new Vec3(0, 0, 0);
    public static final Vec3 UP = new Vec3(0, 0, 1);

    public Vec3 plus(Vec3 o) {
        return new Vec3(x + o.x, y + o.y, z + o.z);
    }

    public Vec3 minus(Vec3 o) {
        return new Vec3(x - o.x, y - o.y, z - o.z);
    }

    public Vec3 times(double s) {
        return new Vec3(x * s, y * s, z * s);
    }

    public Vec3 times(Vec3 o) {
        return new Vec3(x * o.x, y * o.y, z * o.z);
    }

    public double dot(Vec3 o) {
        return x * o.x + y * o.y + z * o.z;
    }

    public Vec3 cross(Vec3 o) {
        return new Vec3(y * o.z - z * o.y, z * o.x - x * o.z, x * o.y - y * o.x);
    }

    public double length() {
        return Math.sqrt(dot(this));
    }

    /** This vector at length one; a vector of length zero is returned unchanged. */
    public Vec3 normalized() {
        double l = length();
        return l > 0 ? times(1 / l) : this;
    }

    /** True when no component is NaN or infinite. */
    public boolean isFinite() {
        return Double.isFinite(x) && Double.isFinite(y) && Double.isFinite(z);
    }

    /** Relative luminance of a linear Rec. 709 colour (ITU-R BT.709-6, item 3.2). */
    public double luminance() {
        return 0.2126 * x + 0.7152 * y + 0.0722 * z;
    }
}
