package bake.core.compiled;

import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.CameraForm;

/** A camera made ready for one picture size: turns picture coordinates into rays. */
public final class Lens {
    /** Parallel views see as finely as from this far, metres, where an angle is asked for. */
    private static final float PARALLEL_FAR = 10;

    private final float px, py, pz;
    private final float rx, ry, rz, ux, uy, uz, fx, fy, fz;
    private final float halfW, halfH, shiftX, shiftY;
    private final float radius, focus, clip, catEye, eyes;
    private final int blades;
    private final CameraForm.Kind kind;

    /**
     * @throws IllegalArgumentException when position and target coincide or a value is not usable
     */
    public Lens(Camera c, int width, int height) {
        Vec3 view = c.target().minus(c.position());
        if (!(view.length() > 1e-9) || !c.position().isFinite() || !view.isFinite())
            throw new IllegalArgumentException("camera: position and target must be two different places");
        if (!(c.focal() > 0) || !(c.fNumber() > 0) || !(c.shutter() > 0) || !(c.iso() > 0))
            throw new IllegalArgumentException("camera: focal length, f-number, shutter and ISO must be above zero");
        CameraForm form = c.form();
        kind = form.kind();
        Vec3 forward = view.normalized();
        double rise = c.shift() / c.focal();
        boolean level = Math.hypot(forward.x(), forward.y()) > 0.05;
        if (kind == CameraForm.Kind.PERSPECTIVE && c.straightVerticals() && level) {
            // The sensor stays upright; looking up or down becomes a shift of the lens.
            rise += forward.z() / Math.hypot(forward.x(), forward.y());
            forward = new Vec3(forward.x(), forward.y(), 0).normalized();
        }
        // A panorama stands upright, and looks to its target in the middle.
        if (kind.round() && level) forward = new Vec3(forward.x(), forward.y(), 0).normalized();
        Vec3 up = Math.abs(forward.z()) > 0.9999 ? new Vec3(0, 1, 0) : Vec3.UP;
        Vec3 right = forward.cross(up).normalized();
        up = right.cross(forward);
        if (form.roll() != 0 && !kind.round()) {
            double a = Math.toRadians(form.roll()), cos = Math.cos(a), sin = Math.sin(a);
            Vec3 r = right.times(cos).minus(up.times(sin));
            up = up.times(cos).plus(right.times(sin));
            right = r;
        }
        px = (float) c.position().x();
        py = (float) c.position().y();
        pz = (float) c.position().z();
        rx = (float) right.x();
        ry = (float) right.y();
        rz = (float) right.z();
        ux = (float) up.x();
        uy = (float) up.y();
        uz = (float) up.z();
        fx = (float) forward.x();
        fy = (float) forward.y();
        fz = (float) forward.z();
        boolean parallel = kind == CameraForm.Kind.PARALLEL;
        halfW = parallel ? (float) (form.across() / 2) : (float) (form.sensor() / 2 / c.focal());
        halfH = halfW * height / width;
        shiftX = parallel ? 0 : (float) (c.shiftAcross() / c.focal());
        shiftY = parallel ? 0 : (float) rise;
        radius = c.depthOfField() && kind == CameraForm.Kind.PERSPECTIVE ? (float) (c.focal() * 1e-3 / c.fNumber() / 2) : 0;
        focus = (float) Math.max(1e-3, c.focus());
        clip = (float) form.clip();
        catEye = (float) form.catEye();
        blades = form.blades();
        eyes = (float) form.eyes();
    }

    /** About the angle that a pixel fills in a picture this wide, radians. */
    public float pixel(int width) {
        return kind.round() ? 2 * (float) Math.PI / width : 2 * halfW / width / (kind == CameraForm.Kind.PARALLEL ? PARALLEL_FAR : 1);
    }

    /**
     * The ray for a place on the picture.
     *
     * @param x 0 left to 1 right
     * @param y 0 top to 1 bottom
     * @param u1 chooses with {@code u2} the place on the lens
     * @param out origin in 0 to 2, unit direction in 3 to 5
     */
    public void ray(float x, float y, float u1, float u2, float[] out) {
        switch (kind) {
            case PARALLEL -> parallel((2 * x - 1) * halfW, (1 - 2 * y) * halfH, out);
            case PANORAMA -> round(x, y, 0, out);
            case STEREO -> round(x, y < 0.5f ? 2 * y : 2 * y - 1, y < 0.5f ? -eyes / 2 : eyes / 2, out);
            default -> through((2 * x - 1) * halfW + shiftX, (1 - 2 * y) * halfH + shiftY, u1, u2, out);
        }
        if (clip > 0) {
            // From the plane on, or from the ball around a panorama.
            float along = kind.round() ? 1 : out[3] * fx + out[4] * fy + out[5] * fz, t = clip / Math.max(1e-3f, along);
            for (int k = 0; k < 3; k++) out[k] += t * out[3 + k];
        }
    }

    private void parallel(float a, float b, float[] out) {
        out[0] = px + a * rx + b * ux;
        out[1] = py + a * ry + b * uy;
        out[2] = pz + a * rz + b * uz;
        out[3] = fx;
        out[4] = fy;
        out[5] = fz;
    }

    /**
     * Equirectangular: even steps of azimuth across and of height down. The eyes of a stereo panorama lie on a circle, each look at a right
     * angle to its radius (Ishiguro, Yamamoto and Tsuji 1992; Peleg, Ben-Ezra and Pritch 2001).
     */
    private void round(float x, float y, float eye, float[] out) {
        double azimuth = (x - 0.5) * 2 * Math.PI, height = (0.5 - y) * Math.PI;
        float s = (float) Math.sin(azimuth), c = (float) Math.cos(azimuth), flat = (float) Math.cos(height), z = (float) Math.sin(height);
        float dx = c * fx + s * rx, dy = c * fy + s * ry, dz = c * fz + s * rz;
        // To the right of the look, on the level.
        float ex = c * rx - s * fx, ey = c * ry - s * fy, ez = c * rz - s * fz;
        out[0] = px + eye * ex;
        out[1] = py + eye * ey;
        out[2] = pz + eye * ez;
        out[3] = flat * dx + z * ux;
        out[4] = flat * dy + z * uy;
        out[5] = flat * dz + z * uz;
    }

    private void through(float a, float b, float u1, float u2, float[] out) {
        float dx = fx + a * rx + b * ux, dy = fy + a * ry + b * uy, dz = fz + a * rz + b * uz;
        float ox = px, oy = py, oz = pz;
        if (radius > 0) {
            float r = radius * (float) Math.sqrt(u1), phi = 2 * (float) Math.PI * u2;
            float lx = r * (float) Math.cos(phi), ly = r * (float) Math.sin(phi);
            if (blades > 0) {
                // A triangle of the polygon, then a place in it, by area.
                int k = Math.min(blades - 1, (int) (u2 * blades));
                float v = u2 * blades - k, root = (float) Math.sqrt(u1), one = 2 * (float) Math.PI / blades;
                float ax = radius * (float) Math.cos(k * one), ay = radius * (float) Math.sin(k * one), bx = radius * (float) Math.cos((k
                        + 1) * one),
                        by = radius * (float) Math.sin((k + 1) * one);
                lx = root * ((1 - v) * ax + v * bx);
                ly = root * ((1 - v) * ay + v * by);
            }
            if (catEye > 0) {
                // The barrel narrows the opening towards the corners along their direction.
                float ca = a / halfW, cb = b / halfH, far = (float) Math.sqrt(ca * ca + cb * cb);
                if (far > 1e-4f) {
                    float narrow = 1 - 0.7f * catEye * Math.min(1, far), nx = ca / far, ny = cb / far, t = (lx * nx + ly * ny) * (
                            narrow - 1);
                    lx += t * nx;
                    ly += t * ny;
                }
            }
            float sx = lx * rx + ly * ux, sy = lx * ry + ly * uy, sz = lx * rz + ly * uz;
            ox += sx;
            oy += sy;
            oz += sz;
            dx = dx * focus - sx;
            dy = dy * focus - sy;
            dz = dz * focus - sz;
        }
        float l = 1 / (float) Math.sqrt(dx * dx + dy * dy + dz * dz);
        out[0] = ox;
        out[1] = oy;
        out[2] = oz;
        out[3] = dx * l;
        out[4] = dy * l;
        out[5] = dz * l;
    }

    /**
     * Parts of a direction to the camera's right, along its up, and back towards it, into {@code out}; of panoramas those of their middle.
     */
    public void facing(float x, float y, float z, float[] out) {
        out[0] = x * rx + y * ry + z * rz;
        out[1] = x * ux + y * uy + z * uz;
        out[2] = -(x * fx + y * fy + z * fz);
    }

    /**
     * Where a point is seen on the picture: 0 left to 1 right and 0 top to 1 bottom, which may lie beside it, and its distance along the
     * view, metres; null behind the camera. Of a stereo panorama the upper picture is meant.
     */
    public double[] project(double x, double y, double z) {
        double vx = x - px, vy = y - py, vz = z - pz, ahead = vx * fx + vy * fy + vz * fz;
        double a = vx * rx + vy * ry + vz * rz, b = vx * ux + vy * uy + vz * uz;
        if (kind.round()) {
            double far = Math.sqrt(ahead * ahead + a * a + b * b);
            if (!(far > 1e-4)) return null;
            double down = 0.5 - Math.asin(b / far) / Math.PI;
            return new double[] {Math.atan2(a, ahead) / (2 * Math.PI) + 0.5, kind == CameraForm.Kind.STEREO ? down / 2 : down, far};
        }
        if (kind == CameraForm.Kind.PARALLEL) return new double[] {(a / halfW + 1) / 2, (1 - b / halfH) / 2, ahead};
        if (!(ahead > 1e-4)) return null;
        return new double[] {((a / ahead - shiftX) / halfW + 1) / 2, (1 - (b / ahead - shiftY) / halfH) / 2, ahead};
    }
}
