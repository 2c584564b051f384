package bake.core.geometry;

import bake.core.scene.Lamp;
import java.util.List;

/** The bodies of the visible lamps, met by rays exactly as sphere, rectangle or disc. */
public final class LampShapes {
    private static final int STRIDE = 16;
    private final int[] lampOf;
    private final int[] kinds;
    private final float[] data;

    /** Keeps those of {@code lamps} that are visible and have a body. */
    public LampShapes(List<Lamp> lamps) {
        lampOf = java.util.stream.IntStream.range(0, lamps.size())
                .filter(i -> (lamps.get(i).visible() || lamps.get(i).mirrored()) && lamps.get(i).hasBody()).toArray();
        kinds = new int[lampOf.length];
        data = new float[STRIDE * lampOf.length];
        for (int k = 0; k < lampOf.length; k++) {
            Lamp l = lamps.get(lampOf[k]);
            kinds[k] = l.kind().ordinal();
            l.frame().store(data, STRIDE * k);
            data[STRIDE * k + 12] = (float) l.width() / 2;
            data[STRIDE * k + 13] = (float) (l.kind() == Lamp.Kind.RECTANGLE || l.kind() == Lamp.Kind.TUBE ? l.height() : l.width()) / 2;
        }
    }

    public int count() {
        return lampOf.length;
    }

    /** Number of the scene lamp behind shape {@code k}. */
    public int lamp(int k) {
        return lampOf[k];
    }

    void bounds(int k, float[] out, int at) {
        int o = STRIDE * k;
        float a = data[o + 12], b = data[o + 13];
        for (int r = 0; r < 3; r++) {
            float c = data[o + 4 * r + 3];
            float e = kinds[k] == Lamp.Kind.SPHERE.ordinal() ? a : kinds[k] == Lamp.Kind.TUBE.ordinal() ? Math.abs(data[o + 4 * r]) * b + a
                    : Math.abs(data[o + 4 * r]) * a + Math.abs(data[o + 4 * r + 1]) * b;
            out[at + r] = c - e - 1e-5f;
            out[at + 3 + r] = c + e + 1e-5f;
        }
    }

    /** Distance at which the ray meets shape {@code k} within (0, ray.t), or -1. */
    float intersect(int k, Ray ray) {
        int o = STRIDE * k;
        float px = data[o + 3] - ray.ox, py = data[o + 7] - ray.oy, pz = data[o + 11] - ray.oz;
        if (kinds[k] == Lamp.Kind.SPHERE.ordinal()) return sphere(px, py, pz, data[o + 12], ray);
        if (kinds[k] == Lamp.Kind.TUBE.ordinal()) return tube(o, px, py, pz, ray);
        float nx = data[o + 2], ny = data[o + 6], nz = data[o + 10];
        float dn = ray.dx * nx + ray.dy * ny + ray.dz * nz;
        if (Math.abs(dn) < 1e-9f) return -1;
        float t = (px * nx + py * ny + pz * nz) / dn;
        if (!(t > 0 && t < ray.t)) return -1;
        float qx = ray.dx * t - px, qy = ray.dy * t - py, qz = ray.dz * t - pz;
        float lx = qx * data[o] + qy * data[o + 4] + qz * data[o + 8];
        float ly = qx * data[o + 1] + qy * data[o + 5] + qz * data[o + 9];
        float a = data[o + 12], b = data[o + 13];
        boolean in = kinds[k] == Lamp.Kind.DISC.ordinal() ? lx * lx + ly * ly <= a * a : Math.abs(lx) <= a && Math.abs(ly) <= b;
        return in ? t : -1;
    }

    /** The outside of a tube's mantle along the frame's x axis; open ends. */
    private float tube(int o, float px, float py, float pz, Ray ray) {
        float ax = data[o], ay = data[o + 4], az = data[o + 8], r = data[o + 12], h = data[o + 13];
        float da = ray.dx * ax + ray.dy * ay + ray.dz * az, pa = px * ax + py * ay + pz * az;
        float ex = ray.dx - da * ax, ey = ray.dy - da * ay, ez = ray.dz - da * az, qx = px - pa * ax, qy = py - pa * ay, qz = pz - pa * az;
        float a = ex * ex + ey * ey + ez * ez;
        if (a < 1e-12f) return -1;
        // Closest approach to the axis, then back to where the mantle is met.
        float b = (ex * qx + ey * qy + ez * qz) / a, cx = qx - b * ex, cy = qy - b * ey, cz = qz - b * ez,
                h2 = (r * r - (cx * cx + cy * cy + cz * cz)) / a;
        if (h2 < 0) return -1;
        float t = b - (float) Math.sqrt(h2);
        return t > 1e-5f && t < ray.t && Math.abs(t * da - pa) <= h ? t : -1;
    }

    /** Nearest root in front; the discriminant from the closest approach keeps its digits far away. */
    private static float sphere(float px, float py, float pz, float radius, Ray ray) {
        float b = px * ray.dx + py * ray.dy + pz * ray.dz;
        float qx = px - b * ray.dx, qy = py - b * ray.dy, qz = pz - b * ray.dz;
        float h2 = radius * radius - (qx * qx + qy * qy + qz * qz);
        if (h2 < 0) return -1;
        float h = (float) Math.sqrt(h2);
        float t = b - h > 1e-5f ? b - h : b + h;
        return t > 1e-5f && t < ray.t ? t : -1;
    }
}
