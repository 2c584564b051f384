package bake.core.light;

/**
 * A triangle as seen from a place: its solid angle (Van Oosterom and Strackee 1983, equation 8) and directions evenly spread over it (Arvo
 * 1995, "Stratified Sampling of Spherical Triangles", section 3). Near by, points spread evenly over the surface would be far too rare
 * where it looks largest. Made once and used again.
 */
final class SphericalTriangle {
    /** Solid angle from which on it is worth it, steradian: smaller triangles look the same all over, and lose digits here. */
    private static final double LEAST = 0.02;

    private double ax, ay, az, bx, by, bz, cx, cy, cz;
    /** Solid angle, steradian. */
    double angle;
    /** What {@link #sample} has found: a unit vector. */
    float x, y, z;

    /** Looks at three corners, each three numbers from {@code o} on; returns whether it is large enough from there. */
    boolean from(float[] corners, int o, float px, float py, float pz) {
        ax = corners[o] - px;
        ay = corners[o + 1] - py;
        az = corners[o + 2] - pz;
        bx = corners[o + 3] - px;
        by = corners[o + 4] - py;
        bz = corners[o + 5] - pz;
        cx = corners[o + 6] - px;
        cy = corners[o + 7] - py;
        cz = corners[o + 8] - pz;
        double a = Math.sqrt(ax * ax + ay * ay + az * az), b = Math.sqrt(bx * bx + by * by + bz * bz),
                c = Math.sqrt(cx * cx + cy * cy + cz * cz);
        if (!(a > 0 && b > 0 && c > 0)) return false;
        ax /= a;
        ay /= a;
        az /= a;
        bx /= b;
        by /= b;
        bz /= b;
        cx /= c;
        cy /= c;
        cz /= c;
        double volume = Math.abs(ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx));
        double ab = ax * bx + ay * by + az * bz, bc = bx * cx + by * cy + bz * cz, ca = cx * ax + cy * ay + cz * az;
        angle = 2 * Math.atan2(volume, 1 + ab + bc + ca);
        return angle > LEAST && angle < 2 * Math.PI - LEAST;
    }

    /** A direction, evenly spread over the triangle for even {@code u} and {@code v} in [0, 1). */
    void sample(float u, float v) {
        double ab = ax * bx + ay * by + az * bz, cosC = Math.min(1, ab), sinC = Math.sqrt(Math.max(0, 1 - cosC * cosC));
        // Angles at the corners a and b: between the planes of the sides.
        double alpha = corner(ax, ay, az, bx, by, bz, cx, cy, cz), cosA = Math.cos(alpha), sinA = Math.sin(alpha), part = u * angle;
        double s = Math.sin(part - alpha), t = Math.cos(part - alpha), k = t - cosA, w = s + sinA * cosC;
        double q = ((w * t - k * s) * cosA - w) / ((w * s + k * t) * sinA);
        q = Math.clamp(q, -1.0, 1.0);
        // The corner of the smaller triangle that holds the part, on the way from a to c.
        double ca = cx * ax + cy * ay + cz * az, ox = cx - ca * ax, oy = cy - ca * ay, oz = cz - ca * az,
                l = Math.sqrt(ox * ox + oy * oy + oz * oz), r = Math.sqrt(Math.max(0, 1 - q * q));
        double dx = q * ax + r * ox / l, dy = q * ay + r * oy / l, dz = q * az + r * oz / l;
        double db = dx * bx + dy * by + dz * bz, h = 1 - v * (1 - db), g = Math.sqrt(Math.max(0, 1 - h * h));
        double ex = dx - db * bx, ey = dy - db * by, ez = dz - db * bz, m = Math.max(1e-12, Math.sqrt(ex * ex + ey * ey + ez * ez));
        x = (float) (h * bx + g * ex / m);
        y = (float) (h * by + g * ey / m);
        z = (float) (h * bz + g * ez / m);
    }

    /** Angle between the planes through (0, p, q) and (0, p, r). */
    private static double corner(double px, double py, double pz, double qx, double qy, double qz, double rx, double ry, double rz) {
        double mx = py * qz - pz * qy, my = pz * qx - px * qz, mz = px * qy - py * qx, nx = py * rz - pz * ry, ny = pz * rx - px * rz,
                nz = px * ry - py * rx;
        double kx = my * nz - mz * ny, ky = mz * nx - mx * nz, kz = mx * ny - my * nx;
        return Math.atan2(Math.sqrt(kx * kx + ky * ky + kz * kz), mx * nx + my * ny + mz * nz);
    }
}
