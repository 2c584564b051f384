package bake.core.math;

/**
 * Three directions at right angles, of which one is given (Duff et al. 2017, "Building an Orthonormal Basis, Revisited", listing 3). Made
 * once and used again.
 */
public final class Frame {
    public float tx, ty, tz, bx, by, bz, nx, ny, nz;
    /** What {@link #turn} found. */
    public float x, y, z;

    /** @param x with {@code y} and {@code z}, a unit vector */
    public void around(float x, float y, float z) {
        nx = x;
        ny = y;
        nz = z;
        float sign = Math.copySign(1, nz), a = -1 / (sign + nz), b = nx * ny * a;
        tx = 1 + sign * nx * nx * a;
        ty = sign * b;
        tz = -sign * nx;
        bx = b;
        by = sign + ny * ny * a;
        bz = -ny;
    }

    /** Turns a vector from the frame, whose third axis is the given one, into the world. */
    public void turn(float a, float b, float c) {
        x = a * tx + b * bx + c * nx;
        y = a * ty + b * by + c * ny;
        z = a * tz + b * bz + c * nz;
    }
}
