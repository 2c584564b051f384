package bake.core.render;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.Lens;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.CameraForm;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Rays of all kinds of cameras, against where points are seen, and against geometry. */
class LensKindsTest {
    private static final int W = 400, H = 200;

    private static Camera camera(CameraForm f) {
        return Camera.of(new Vec3(1, 2, 1.5), new Vec3(4, 6, 1.8), 24).withForm(f);
    }

    private static CameraForm form(CameraForm.Kind k) {
        return new CameraForm(k, 36, 0, 0, 0, 0, 12.7, 0.064);
    }

    /** A point on a ray is seen where the ray begins on the picture. */
    @ParameterizedTest
    @EnumSource(CameraForm.Kind.class)
    void raysAndPointsAgree(CameraForm.Kind k) {
        Random r = new Random(3);
        // In stereo the eyes lie beside the place from which points are projected.
        Lens l = new Lens(camera(k == CameraForm.Kind.STEREO ? new CameraForm(k, 36, 0, 0, 0, 0, 10, 0) : new CameraForm(k, 24, 7, 0, 0,
                0, 12, 0)), W, H);
        float[] o = new float[6];
        for (int i = 0; i < 500; i++) {
            float x = r.nextFloat(), y = r.nextFloat() * (k == CameraForm.Kind.STEREO ? 0.5f : 1), t = 1 + 9 * r.nextFloat();
            l.ray(x, y, 0.3f, 0.6f, o);
            assertEquals(1, Math.sqrt(o[3] * o[3] + o[4] * o[4] + o[5] * o[5]), 1e-5);
            double[] p = l.project(o[0] + t * o[3], o[1] + t * o[4], o[2] + t * o[5]);
            assertEquals(x, p[0], 2e-4);
            assertEquals(y, p[1], 2e-4);
        }
    }

    /** A plan 12.7 m wide on 3000 pixels at 300 to the inch is 1:50: a metre is 2 cm of paper, 236.2 pixels. */
    @Test
    void planToScale() {
        int w = 3000, h = 2000;
        Lens l = new Lens(Camera.of(new Vec3(0, 0, 10), new Vec3(0, 0, 0), 24).withForm(form(CameraForm.Kind.PARALLEL)), w, h);
        double[] a = l.project(0.3, -0.2, 0.7), b = l.project(1.3, -0.2, 2.9), c = l.project(0.3, 0.8, -1);
        assertEquals(0.02 / 0.0254 * 300, (b[0] - a[0]) * w, 1e-3);
        assertEquals(0, (b[1] - a[1]) * h, 1e-3);
        assertEquals(0.02 / 0.0254 * 300, (a[1] - c[1]) * h, 1e-3);
    }

    /** Both edges of a panorama look the same way, top and bottom straight up and down. */
    @Test
    void panoramaIsSeamless() {
        Lens l = new Lens(camera(form(CameraForm.Kind.PANORAMA)), W, H);
        float[] a = new float[6], b = new float[6];
        for (float y = 0; y <= 1; y += 0.1f) {
            l.ray(0, y, 0, 0, a);
            l.ray(1, y, 0, 0, b);
            for (int k = 0; k < 6; k++) assertEquals(a[k], b[k], 1e-5);
        }
        l.ray(0.7f, 0, 0, 0, a);
        assertEquals(1, a[5], 1e-5);
        l.ray(0.2f, 1, 0, 0, a);
        assertEquals(-1, a[5], 1e-5);
        l.ray(0.5f, 0.5f, 0, 0, a);
        assertEquals(0.6, a[3], 1e-5, "the middle looks to the target, on the level");
        assertEquals(0.8, a[4], 1e-5);
    }

    /** Eyes lie apart by their distance, at right angles to the look, left above. */
    @Test
    void stereo() {
        Lens l = new Lens(camera(form(CameraForm.Kind.STEREO)), W, W);
        float[] a = new float[6], b = new float[6];
        for (float x = 0; x < 1; x += 0.13f) {
            l.ray(x, 0.25f, 0, 0, a);
            l.ray(x, 0.75f, 0, 0, b);
            double dx = b[0] - a[0], dy = b[1] - a[1], dz = b[2] - a[2];
            assertEquals(0.064, Math.sqrt(dx * dx + dy * dy + dz * dz), 1e-6);
            assertEquals(0, dx * a[3] + dy * a[4] + dz * a[5], 1e-6);
            assertTrue(a[3] * dy - a[4] * dx < 0, "the right eye is to the right");
            for (int k = 3; k < 6; k++) assertEquals(a[k], b[k], 1e-6);
        }
    }

    /** What lies before the plane is passed; the direction stays. */
    @Test
    void clipped() {
        Lens all = new Lens(camera(form(CameraForm.Kind.PERSPECTIVE)), W, H), cut = new Lens(camera(new CameraForm(
                CameraForm.Kind.PERSPECTIVE, 36, 0,
                2.5, 0, 0, 10, 0)), W, H);
        float[] a = new float[6], b = new float[6];
        for (float x = 0; x <= 1; x += 0.25f) {
            all.ray(x, 0.3f, 0, 0, a);
            cut.ray(x, 0.3f, 0, 0, b);
            for (int k = 3; k < 6; k++) assertEquals(a[k], b[k]);
            double ahead = (b[0] - a[0]) * 0.6 + (b[1] - a[1]) * 0.8;
            assertEquals(2.5, ahead, 1e-4);
        }
    }

    /** Places on the lens fill a polygon: none outside of it, and its share of the circle. */
    @Test
    void blades() {
        Camera c = new Camera(Vec3.ZERO, new Vec3(0, 1, 0), 50, 2, 0.01, 100, 4, true, true, 0, 0, new CameraForm(
                CameraForm.Kind.PERSPECTIVE, 36, 0, 0,
                6, 0, 10, 0));
        Lens l = new Lens(c, W, H);
        Random r = new Random(5);
        float[] o = new float[6];
        double most = 0, square = 0;
        int n = 20_000;
        for (int i = 0; i < n; i++) {
            l.ray(0.5f, 0.5f, r.nextFloat(), r.nextFloat(), o);
            double a = Math.hypot(o[0], o[2]);
            most = Math.max(most, a);
            square += a * a / n;
            // Through the middle of the sharp plane, whatever its place on the lens.
            double t = 4 / o[4];
            assertEquals(0, o[0] + t * o[3], 1e-4);
        }
        double radius = 50e-3 / 2 / 2;
        assertEquals(radius, most, 0.02 * radius);
        // A hexagon's polar moment over its area: 5/12 of the squared radius.
        assertEquals(5.0 / 12 * radius * radius, square, 0.02 * radius * radius);
        assertThrows(IllegalArgumentException.class, () -> new CameraForm(CameraForm.Kind.PERSPECTIVE, 36, 0, 0, 2, 0, 10, 0));
    }
}
