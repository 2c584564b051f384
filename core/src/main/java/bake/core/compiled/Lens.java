package bake.core.compiled;

import bake.core.math.Vec3;
import bake.core.scene.Camera;

/** A camera made ready for one picture size: turns picture coordinates into rays. */
public final class Lens {
    private final float px, py, pz;
    private final float rx, ry, rz, ux, uy, uz, fx, fy, fz;
    private final float halfW, halfH, shiftX, shiftY;
    private final float radius, focus;

    /**
     * @throws IllegalArgumentException when position and target coincide or a value is not usable
     */
    public Lens(Camera c, int width, int height) {
        Vec3 view = c.target().minus(c.position());
        if (!(view.length() > 1e-9) || !c.position().isFinite() || !view.isFinite())
            throw new IllegalArgumentException("camera: position and target must be two different places");
        if (!(c.focal() > 0) || !(c.fNumber() > 0) || !(c.shutter() > 0) || !(c.iso() > 0))
            throw new IllegalArgumentException("camera: focal length, f-number, shutter and ISO must be above zero");
        Vec3 forward = view.normalized();
        double rise = c.shift() / c.focal();
        if (c.straightVerticals() && Math.hypot(forward.x(), forward.y()) > 0.05) {
            // The sensor stays upright; looking up or down becomes a shift of the lens.
            rise += forward.z() / Math.hypot(forward.x(), forward.y());
            forward = new Vec3(forward.x(), forward.y(), 0).normalized();
        }
        Vec3 up = Math.abs(forward.z()) > 0.9999 ? new Vec3(0, 1, 0) : Vec3.UP;
        Vec3 right = forward.cross(up).normalized();
        up = right.cross(forward);
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
        halfW = (float) (Camera.SENSOR_WIDTH / 2 / c.focal());
        halfH = halfW * height / width;
        shiftX = (float) (c.shiftAcross() / c.focal());
        shiftY = (float) rise;
        radius = c.depthOfField() ? (float) (c.focal() * 1e-3 / c.fNumber() / 2) : 0;
        focus = (float) Math.max(1e-3, c.focus());
    }

    /** About the angle that a pixel fills in a picture this wide, radians. */
    public float pixel(int width) {
        return 2 * halfW / width;
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
        float a = (2 * x - 1) * halfW + shiftX, b = (1 - 2 * y) * halfH + shiftY;
        float dx = fx + a * rx + b * ux, dy = fy + a * ry + b * uy, dz = fz + a * rz + b * uz;
        float ox = px, oy = py, oz = pz;
        if (radius > 0) {
            float r = radius * (float) Math.sqrt(u1), phi = 2 * (float) Math.PI * u2;
            float lx = r * (float) Math.cos(phi), ly = r * (float) Math.sin(phi);
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
     * Where a point is seen on the picture: 0 left to 1 right and 0 top to 1 bottom, which may lie beside it, and its distance along the
     * view, metres; null behind the camera.
     */
    public double[] project(double x, double y, double z) {
        double vx = x - px, vy = y - py, vz = z - pz, ahead = vx * fx + vy * fy + vz * fz;
        if (!(ahead > 1e-4)) return null;
        double a = (vx * rx + vy * ry + vz * rz) / ahead, b = (vx * ux + vy * uy + vz * uz) / ahead;
        return new double[] {((a - shiftX) / halfW + 1) / 2, (1 - (b - shiftY) / halfH) / 2, ahead};
    }
}
