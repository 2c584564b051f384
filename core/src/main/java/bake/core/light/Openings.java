package bake.core.light;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.geometry.Ray;
import bake.core.geometry.Tracer;
import bake.core.math.PathSampler;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.List;

/**
 * Daylight through glass: the panes of a model as places to aim at when the surroundings are sampled indoors, where
 * most of the dome is hidden. A pane is chosen by its size and distance, then a point on it; the density is exact, so
 * the mean does not change.
 *
 * <p>How far panes are preferred depends on where one stands: a coarse grid of test rays tells rooms from open air.
 */
public final class Openings {
    private static final int MOST = 96, GRID = 16, TESTS = 12;
    private static final float LEAST_AREA = 0.03f, SAME = 0.06f, MARGIN = 4;

    private final int count;
    private final float[] corners, areas, normals, centres;
    private final float[] low = new float[3], cell = new float[3];
    private final float[] share = new float[GRID * GRID * GRID];

    private Openings(List<float[]> panes) {
        count = panes.size();
        corners = new float[9 * count];
        areas = new float[count];
        normals = new float[3 * count];
        centres = new float[3 * count];
        for (int i = 0; i < count; i++) {
            float[] c = panes.get(i), n = cross(c);
            System.arraycopy(c, 0, corners, 9 * i, 9);
            float l = length(n);
            areas[i] = l / 2;
            for (int k = 0; k < 3; k++) {
                normals[3 * i + k] = n[k] / l;
                centres[3 * i + k] = (c[k] + c[3 + k] + c[6 + k]) / 3;
            }
        }
    }

    /** The openings of a model; none where there is no glass in sheets. */
    public static Openings find(Geometry geometry, SurfaceTable surfaces, Tracer tracer) {
        List<float[]> panes = new ArrayList<>();
        for (int item = 0; item < geometry.items(); item++) {
            Blas b = geometry.blas(item);
            for (int p = 0; p < b.triangles(); p++)
                if (surfaces.isPane(b.materials()[p])) add(panes, world(geometry, item, p));
        }
        panes.sort((a, b) -> Float.compare(length(cross(b)), length(cross(a))));
        Openings o = new Openings(panes.size() > MOST ? panes.subList(0, MOST) : panes);
        if (o.count > 0) o.test(tracer);
        return o;
    }

    private static void add(List<float[]> panes, float[] c) {
        float[] n = cross(c);
        float l = length(n);
        if (l / 2 < LEAST_AREA || panes.size() > 4096) return;
        for (float[] q : panes) {
            // The second sheet of a double pane lies where the first one does.
            float dx = 0;
            for (int k = 0; k < 3; k++) dx = Math.max(dx, Math.abs(c[k] + c[3 + k] + c[6 + k] - q[k] - q[3 + k] - q[6 + k]) / 3);
            if (dx < SAME) return;
        }
        panes.add(c);
    }

    private static float[] world(Geometry g, int item, int prim) {
        float[] c = g.blas(item).corners(), out = new float[9];
        for (int v = 0; v < 3; v++)
            for (int r = 0; r < 3; r++) {
                float s = g.toWorld(item, 4 * r + 3);
                for (int k = 0; k < 3; k++) s += g.toWorld(item, 4 * r + k) * (c[9 * prim + k] + (v > 0 ? c[9 * prim + 3 * v + k] : 0));
                out[3 * v + r] = s;
            }
        return out;
    }

    private static float[] cross(float[] c) {
        float ax = c[3] - c[0], ay = c[4] - c[1], az = c[5] - c[2], bx = c[6] - c[0], by = c[7] - c[1], bz = c[8] - c[2];
        return new float[] {ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx};
    }

    private static float length(float[] v) {
        return (float) Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
    }

    /** From each cell around the panes, how often a ray upwards gets out without meeting anything, glass included. */
    private void test(Tracer tracer) {
        float[] high = new float[3];
        for (int k = 0; k < 3; k++) {
            low[k] = Float.POSITIVE_INFINITY;
            high[k] = Float.NEGATIVE_INFINITY;
            for (int i = k; i < corners.length; i += 3) {
                low[k] = Math.min(low[k], corners[i]);
                high[k] = Math.max(high[k], corners[i]);
            }
            low[k] -= k == 2 ? 1.5f : MARGIN * 2.5f;
            high[k] += MARGIN;
            cell[k] = (high[k] - low[k]) / GRID;
        }
        java.util.stream.IntStream.range(0, GRID).parallel().forEach(z -> {
            Ray ray = new Ray();
            PathSampler random = new PathSampler();
            for (int y = 0; y < GRID; y++)
                for (int x = 0; x < GRID; x++) share[(z * GRID + y) * GRID + x] = testCell(tracer, ray, random, x, y, z);
        });
    }

    private float testCell(Tracer tracer, Ray ray, PathSampler random, int x, int y, int z) {
        int open = 0;
        for (int s = 0; s < TESTS; s++) {
            random.start(x + GRID * y, z, s, 17);
            random.next2();
            float px = low[0] + (x + random.u) * cell[0], py = low[1] + (y + random.v) * cell[1];
            random.next2();
            float pz = low[2] + (z + random.u) * cell[2], up = random.v;
            random.next2();
            double t = 2 * Math.PI * random.u, w = Math.sqrt(1 - up * up);
            ray.set(px, py, pz, (float) (w * Math.cos(t)), (float) (w * Math.sin(t)), up, Float.POSITIVE_INFINITY);
            if (!tracer.closest(ray)) open++;
        }
        return Math.clamp(0.9f - 4f * open / TESTS, 0.04f, 0.9f);
    }

    /** Chance with which panes, and not the whole dome, should be sampled from a place; 0 to 0.9. */
    public float share(float px, float py, float pz) {
        if (count == 0) return 0;
        int x = (int) Math.floor((px - low[0]) / cell[0]), y = (int) Math.floor((py - low[1]) / cell[1]), z = (int) Math.floor((pz - low[2]) / cell[2]);
        return x < 0 || y < 0 || z < 0 || x >= GRID || y >= GRID || z >= GRID ? 0 : share[(z * GRID + y) * GRID + x];
    }

    private float weight(int i, float px, float py, float pz) {
        float x = centres[3 * i] - px, y = centres[3 * i + 1] - py, z = centres[3 * i + 2] - pz, d2 = x * x + y * y + z * z;
        float cos = Math.abs(x * normals[3 * i] + y * normals[3 * i + 1] + z * normals[3 * i + 2]) / (float) Math.sqrt(d2 + 1e-12f);
        return areas[i] * (0.1f + cos) / Math.max(d2, areas[i]);
    }

    /** Chooses a direction through a pane. */
    public void sample(float px, float py, float pz, float choose, float u1, float u2, LightSample out) {
        if (out.weights.length < count) out.weights = new float[count];
        float sum = 0;
        for (int i = 0; i < count; i++) sum += out.weights[i] = weight(i, px, py, pz);
        float target = choose * sum;
        int i = 0;
        while (i < count - 1 && target >= out.weights[i]) target -= out.weights[i++];
        float su = (float) Math.sqrt(u1), b1 = su * (1 - u2), b2 = su * u2, b0 = 1 - su;
        int o = 9 * i;
        float x = b0 * corners[o] + b1 * corners[o + 3] + b2 * corners[o + 6] - px, y = b0 * corners[o + 1] + b1 * corners[o + 4] + b2 * corners[o + 7] - py,
                z = b0 * corners[o + 2] + b1 * corners[o + 5] + b2 * corners[o + 8] - pz;
        float l = 1 / (float) Math.sqrt(Math.max(1e-20f, x * x + y * y + z * z));
        out.x = x * l;
        out.y = y * l;
        out.z = z * l;
    }

    /** Density per steradian with which {@link #sample} gives a direction: the sum over all panes that lie in it. */
    public float pdf(float px, float py, float pz, float dx, float dy, float dz) {
        float sum = 0, hit = 0;
        for (int i = 0; i < count; i++) {
            float w = weight(i, px, py, pz);
            sum += w;
            int o = 9 * i;
            float dn = dx * normals[3 * i] + dy * normals[3 * i + 1] + dz * normals[3 * i + 2];
            float sx = corners[o] - px, sy = corners[o + 1] - py, sz = corners[o + 2] - pz;
            float t = (sx * normals[3 * i] + sy * normals[3 * i + 1] + sz * normals[3 * i + 2]) / dn;
            if (!(t > 0) || t == Float.POSITIVE_INFINITY || !inside(o, px + t * dx, py + t * dy, pz + t * dz, i)) continue;
            hit += w * t * t / (areas[i] * Math.abs(dn));
        }
        return sum > 0 ? hit / sum : 0;
    }

    private boolean inside(int o, float x, float y, float z, int i) {
        for (int v = 0; v < 9; v += 3) {
            int w = v == 6 ? 0 : v + 3;
            float ex = corners[o + w] - corners[o + v], ey = corners[o + w + 1] - corners[o + v + 1], ez = corners[o + w + 2] - corners[o + v + 2];
            float qx = x - corners[o + v], qy = y - corners[o + v + 1], qz = z - corners[o + v + 2];
            float c = (ey * qz - ez * qy) * normals[3 * i] + (ez * qx - ex * qz) * normals[3 * i + 1] + (ex * qy - ey * qx) * normals[3 * i + 2];
            if (c < 0) return false;
        }
        return true;
    }
}
