package bake.core.light;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.math.Distribution;
import bake.core.scene.Lamp;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;

/**
 * Lamps and glowing triangles. One is chosen at a shading point in proportion to a bound of what it could give there
 * (intensity over squared distance); the triangles of one object count as one emitter until it is chosen.
 */
public final class Emitters {
    private static final int STRIDE = 24;
    private static final int CX = 0, SIZE2 = 3, POWER = 4, FRAME = 5, HALF_W = 17, HALF_H = 18, LUM = 19, COS_OUT = 22, COS_IN = 23;

    private final int count, lamps;
    private final float[] data;
    private final Lamp.Kind[] kind;
    private final boolean[] hidden, twoSided;
    private final int[] group;
    private final GlowCluster[] clusters;
    /** For each item with glow: number of the glowing triangle behind each of its triangles, or -1. */
    private final int[][] glowNumber;
    /** Cluster of each glowing triangle, and the number of each cluster's first one. */
    private int[] clusterOf = new int[16], firstOf = new int[16];
    private int glowing;

    /** Triangles of one glowing object: world corners (9 floats each), where they came from, and their choice. */
    private record GlowCluster(float[] corners, float[] area, int[] item, int[] prim, Distribution choice) {}

    private final Geometry geometry;
    private final SurfaceTable surfaces;

    /**
     * @param groupOf source group of each lamp
     * @param glowGroup source group of glowing materials
     */
    public Emitters(List<Lamp> lampList, int[] groupOf, Geometry geometry, SurfaceTable surfaces, int glowGroup) {
        this.geometry = geometry;
        this.surfaces = surfaces;
        lamps = lampList.size();
        glowNumber = new int[geometry.items()][];
        List<GlowCluster> glow = findGlow();
        clusters = glow.toArray(GlowCluster[]::new);
        count = lamps + clusters.length;
        data = new float[STRIDE * count];
        kind = new Lamp.Kind[lamps];
        hidden = new boolean[lamps];
        twoSided = new boolean[lamps];
        group = new int[count];
        for (int i = 0; i < lamps; i++) {
            group[i] = groupOf[i];
            store(i, lampList.get(i));
        }
        for (int i = 0; i < clusters.length; i++) {
            group[lamps + i] = glowGroup;
            store(lamps + i, clusters[i]);
        }
    }

    public int count() {
        return count;
    }

    private void store(int i, Lamp l) {
        int o = STRIDE * i;
        kind[i] = l.kind();
        hidden[i] = !l.visible();
        twoSided[i] = l.twoSided();
        data[o + CX] = (float) l.position().x();
        data[o + CX + 1] = (float) l.position().y();
        data[o + CX + 2] = (float) l.position().z();
        l.frame().store(data, o + FRAME);
        data[o + HALF_W] = (float) l.width() / 2;
        data[o + HALF_H] = (float) (l.kind() == Lamp.Kind.RECTANGLE ? l.height() : l.width()) / 2;
        double r2 = (l.width() * l.width() + (l.kind() == Lamp.Kind.RECTANGLE ? l.height() * l.height() : 0)) / 4;
        data[o + SIZE2] = (float) Math.max(1e-4, r2);
        double cosIn = Math.cos(Math.toRadians(l.beamDegrees() / 2)), cosOut = Math.cos(Math.toRadians(l.fieldDegrees() / 2));
        data[o + COS_IN] = (float) Math.max(cosIn, cosOut + 1e-4);
        data[o + COS_OUT] = (float) cosOut;
        double scale = switch (l.kind()) {
            case POINT -> l.lumens() / (4 * Math.PI);
            case SPOT -> l.lumens() / spotSolidAngle(data[o + COS_IN], data[o + COS_OUT]);
            default -> l.luminance();
        };
        data[o + LUM] = (float) (scale * l.colour().x());
        data[o + LUM + 1] = (float) (scale * l.colour().y());
        data[o + LUM + 2] = (float) (scale * l.colour().z());
        double intensity = l.area() > 0 ? scale * l.area() / (l.kind() == Lamp.Kind.SPHERE ? 4 : l.twoSided() ? 2 : 1) : scale;
        data[o + POWER] = (float) Math.max(intensity, 0);
    }

    /** Integral over the sphere of a spot's fall-off: even inside, smoothstep in cosine to the rim. */
    private static double spotSolidAngle(double cosIn, double cosOut) {
        // int of smoothstep over [out, in] is half its width.
        return 2 * Math.PI * ((1 - cosIn) + 0.5 * (cosIn - cosOut));
    }

    private void store(int i, GlowCluster c) {
        int o = STRIDE * i;
        double[] lo = {1e30, 1e30, 1e30}, hi = {-1e30, -1e30, -1e30};
        for (int k = 0; k < c.corners.length; k++) {
            lo[k % 3] = Math.min(lo[k % 3], c.corners[k]);
            hi[k % 3] = Math.max(hi[k % 3], c.corners[k]);
        }
        double r2 = 0;
        for (int k = 0; k < 3; k++) {
            data[o + CX + k] = (float) ((lo[k] + hi[k]) / 2);
            r2 += (hi[k] - lo[k]) * (hi[k] - lo[k]) / 4;
        }
        data[o + SIZE2] = (float) Math.max(1e-6, r2);
        data[o + POWER] = (float) c.choice.total() / 2;
    }

    private List<GlowCluster> findGlow() {
        List<GlowCluster> out = new ArrayList<>();
        for (int item = 0; item < geometry.items(); item++) {
            Blas b = geometry.blas(item);
            TreeMap<Integer, List<Integer>> byInstance = new TreeMap<>();
            for (int p = 0; p < b.places(); p++)
                if (b.materials()[p] >= 0 && surfaces.glows(b.materials()[p])) byInstance.computeIfAbsent(geometry.instance(item, p), k -> new ArrayList<>()).add(p);
            if (byInstance.isEmpty()) continue;
            glowNumber[item] = new int[b.places()];
            Arrays.fill(glowNumber[item], -1);
            for (List<Integer> prims : byInstance.values()) {
                if (out.size() == firstOf.length) firstOf = Arrays.copyOf(firstOf, 2 * firstOf.length);
                firstOf[out.size()] = glowing;
                for (int p : prims) {
                    if (glowing == clusterOf.length) clusterOf = Arrays.copyOf(clusterOf, 2 * glowing);
                    clusterOf[glowing] = out.size();
                    glowNumber[item][p] = glowing++;
                }
                out.add(cluster(item, b, prims));
            }
        }
        return out;
    }

    private GlowCluster cluster(int item, Blas b, List<Integer> prims) {
        int n = prims.size();
        float[] corners = new float[9 * n], area = new float[n], power = new float[n], rgb = new float[4];
        int[] items = new int[n], primOf = new int[n];
        for (int k = 0; k < n; k++) {
            int p = prims.get(k);
            items[k] = item;
            primOf[k] = p;
            for (int v = 0; v < 3; v++)
                for (int r = 0; r < 3; r++) {
                    float at = geometry.toWorld(item, 4 * r + 3);
                    for (int axis = 0; axis < 3; axis++) at += geometry.toWorld(item, 4 * r + axis) * b.corner(p, v, axis);
                    corners[9 * k + 3 * v + r] = at;
                }
            area[k] = area(corners, 9 * k);
            surfaces.emission(b, p, 1 / 3f, 1 / 3f, rgb);
            // Textured glow is weighed by its middle; a floor keeps every triangle possible.
            float l = 0.2126f * rgb[0] + 0.7152f * rgb[1] + 0.0722f * rgb[2];
            power[k] = area[k] * Math.max(l, 0.05f * surfaces.peakEmission(b.materials()[p]));
        }
        return new GlowCluster(corners, area, items, primOf, new Distribution(power));
    }

    private static float area(float[] c, int o) {
        float ax = c[o + 3] - c[o], ay = c[o + 4] - c[o + 1], az = c[o + 5] - c[o + 2];
        float bx = c[o + 6] - c[o], by = c[o + 7] - c[o + 1], bz = c[o + 8] - c[o + 2];
        float nx = ay * bz - az * by, ny = az * bx - ax * bz, nz = ax * by - ay * bx;
        return 0.5f * (float) Math.sqrt(nx * nx + ny * ny + nz * nz);
    }

    private float weight(int i, float px, float py, float pz) {
        int o = STRIDE * i;
        float x = px - data[o], y = py - data[o + 1], z = pz - data[o + 2], d2 = x * x + y * y + z * z;
        float w = data[o + POWER] / Math.max(d2, data[o + SIZE2]);
        if (i >= lamps || kind[i] == Lamp.Kind.POINT || kind[i] == Lamp.Kind.SPHERE) return w;
        // Light leaves along the frame's z axis: the third column.
        float c = (x * data[o + FRAME + 2] + y * data[o + FRAME + 6] + z * data[o + FRAME + 10]) / (float) Math.sqrt(Math.max(d2, 1e-12f));
        if (kind[i] == Lamp.Kind.SPOT) return w * spotFalloff(o, c);
        if (d2 < 4 * data[o + SIZE2]) return w;
        float margin = 0.05f + (float) Math.sqrt(data[o + SIZE2] / d2);
        return w * Math.max(0.02f, Math.min(1, (twoSided[i] ? Math.abs(c) : c) + margin));
    }

    private float spotFalloff(int o, float cos) {
        float t = Math.clamp((cos - data[o + COS_OUT]) / (data[o + COS_IN] - data[o + COS_OUT]), 0f, 1f);
        return t * t * (3 - 2 * t);
    }

    /** Chance that emitter {@code i} is chosen at a point. */
    private float chance(int i, float px, float py, float pz) {
        float sum = 0;
        for (int k = 0; k < count; k++) sum += weight(k, px, py, pz);
        return sum > 0 ? weight(i, px, py, pz) / sum : 0;
    }

    /** Chooses an emitter and a point on it as seen from a point; false when nothing there can give light. */
    public boolean sample(float px, float py, float pz, float choose, float u1, float u2, LightSample out) {
        if (count == 0) return false;
        if (out.weights.length < count) out.weights = new float[count];
        float sum = 0;
        for (int k = 0; k < count; k++) sum += out.weights[k] = weight(k, px, py, pz);
        if (!(sum > 0)) return false;
        float target = choose * sum, run = 0;
        int i = -1;
        for (int k = 0; k < count; k++) {
            float w = out.weights[k];
            if (w <= 0) continue;
            i = k;
            if (target < run + w) break;
            run += w;
        }
        float p = out.weights[i] / sum, rest = Math.clamp((target - run) / out.weights[i], 0f, 0x1.fffffep-1f);
        out.group = group[i];
        out.point = false;
        out.hidden = false;
        out.lamp = i < lamps ? i : -1;
        if (i >= lamps) return sampleGlow(clusters[i - lamps], px, py, pz, p, rest, u1, u2, out);
        out.hidden = hidden[i];
        return sampleLamp(i, px, py, pz, p, u1, u2, out);
    }

    private boolean sampleLamp(int i, float px, float py, float pz, float p, float u1, float u2, LightSample s) {
        int o = STRIDE * i;
        float cx = data[o] - px, cy = data[o + 1] - py, cz = data[o + 2] - pz;
        s.r = data[o + LUM];
        s.g = data[o + LUM + 1];
        s.b = data[o + LUM + 2];
        switch (kind[i]) {
            case POINT, SPOT -> {
                float d2 = cx * cx + cy * cy + cz * cz;
                aim(s, cx, cy, cz, d2);
                float k = 1 / d2;
                if (kind[i] == Lamp.Kind.SPOT)
                    k *= spotFalloff(o, -(s.x * data[o + FRAME + 2] + s.y * data[o + FRAME + 6] + s.z * data[o + FRAME + 10]));
                s.r *= k;
                s.g *= k;
                s.b *= k;
                s.pdf = p;
                s.point = true;
                return k > 0;
            }
            case SPHERE -> {
                return sampleSphere(data[o + HALF_W], cx, cy, cz, p, u1, u2, s);
            }
            default -> {
                float lx, ly, area;
                if (kind[i] == Lamp.Kind.DISC) {
                    float rad = data[o + HALF_W] * (float) Math.sqrt(u1), phi = 2 * (float) Math.PI * u2;
                    lx = rad * (float) Math.cos(phi);
                    ly = rad * (float) Math.sin(phi);
                    area = (float) Math.PI * data[o + HALF_W] * data[o + HALF_W];
                } else {
                    lx = (2 * u1 - 1) * data[o + HALF_W];
                    ly = (2 * u2 - 1) * data[o + HALF_H];
                    area = 4 * data[o + HALF_W] * data[o + HALF_H];
                }
                int f = o + FRAME;
                float qx = cx + data[f] * lx + data[f + 1] * ly, qy = cy + data[f + 4] * lx + data[f + 5] * ly,
                        qz = cz + data[f + 8] * lx + data[f + 9] * ly;
                float d2 = qx * qx + qy * qy + qz * qz;
                aim(s, qx, qy, qz, d2);
                float cos = -(s.x * data[f + 2] + s.y * data[f + 6] + s.z * data[f + 10]);
                if (twoSided[i]) cos = Math.abs(cos);
                if (cos <= 1e-6f) return false;
                s.pdf = p * d2 / (cos * area);
                return true;
            }
        }
    }

    private static void aim(LightSample s, float x, float y, float z, float d2) {
        float d = (float) Math.sqrt(d2), k = 1 / Math.max(d, 1e-9f);
        s.x = x * k;
        s.y = y * k;
        s.z = z * k;
        s.distance = d;
    }

    /** Uniform within the cone that the sphere fills (Shirley, Wang and Zimmerman 1996). */
    private static boolean sampleSphere(float radius, float cx, float cy, float cz, float p, float u1, float u2, LightSample s) {
        float d2 = cx * cx + cy * cy + cz * cz, r2 = radius * radius;
        if (d2 <= r2 * 1.0001f) return false;
        float sin2 = r2 / d2, cosMax = (float) Math.sqrt(1 - sin2), cap = sin2 / (1 + cosMax);
        float oneMinus = u1 * cap, cos = 1 - oneMinus, sin = (float) Math.sqrt(oneMinus * (2 - oneMinus)), phi = 2 * (float) Math.PI * u2;
        aim(s, cx, cy, cz, d2);
        float d = s.distance;
        turn(s, cos, sin * (float) Math.cos(phi), sin * (float) Math.sin(phi));
        float h2 = r2 - d2 * sin * sin;
        s.distance = d * cos - (float) Math.sqrt(Math.max(0, h2));
        s.pdf = p / (2 * (float) Math.PI * cap);
        return true;
    }

    /** Turns the sample's axis by local coordinates (along, a, b) in any frame around it (Duff et al. 2017). */
    static void turn(LightSample s, float along, float a, float b) {
        float nx = s.x, ny = s.y, nz = s.z, sign = Math.copySign(1, nz), q = -1 / (sign + nz), m = nx * ny * q;
        s.x = nx * along + a * (1 + sign * nx * nx * q) + b * m;
        s.y = ny * along + a * sign * m + b * (sign + ny * ny * q);
        s.z = nz * along - a * sign * nx - b * ny;
    }

    private boolean sampleGlow(GlowCluster c, float px, float py, float pz, float p, float choose, float u1, float u2, LightSample s) {
        int k = c.choice.sample(choose), o = 9 * k;
        float su = (float) Math.sqrt(u1), b1 = su * (1 - u2), b2 = su * u2;
        float e1x = c.corners[o + 3] - c.corners[o], e1y = c.corners[o + 4] - c.corners[o + 1], e1z = c.corners[o + 5] - c.corners[o + 2];
        float e2x = c.corners[o + 6] - c.corners[o], e2y = c.corners[o + 7] - c.corners[o + 1], e2z = c.corners[o + 8] - c.corners[o + 2];
        float qx = c.corners[o] + b1 * e1x + b2 * e2x - px, qy = c.corners[o + 1] + b1 * e1y + b2 * e2y - py,
                qz = c.corners[o + 2] + b1 * e1z + b2 * e2z - pz;
        float d2 = qx * qx + qy * qy + qz * qz;
        aim(s, qx, qy, qz, d2);
        float nx = e1y * e2z - e1z * e2y, ny = e1z * e2x - e1x * e2z, nz = e1x * e2y - e1y * e2x;
        float cos = Math.abs(nx * s.x + ny * s.y + nz * s.z) / Math.max(1e-20f, 2 * c.area[k]);
        if (cos <= 1e-6f) return false;
        s.pdf = p * c.choice.probability(k) * d2 / (cos * c.area[k]);
        surfaces.emission(geometry.blas(c.item[k]), c.prim[k], b1, b2, s.rgb);
        s.r = s.rgb[0];
        s.g = s.rgb[1];
        s.b = s.rgb[2];
        return s.r + s.g + s.b > 0;
    }

    /** Density with which {@link #sample} at (px, py, pz) would have chosen a glowing triangle's point met along a ray. */
    public float pdfGlow(int item, int prim, float px, float py, float pz, float distance, float cos) {
        int number = glowNumber[item] == null ? -1 : glowNumber[item][prim];
        if (number < 0 || cos <= 0) return 0;
        int cluster = clusterOf[number], k = number - firstOf[cluster];
        GlowCluster c = clusters[cluster];
        return chance(lamps + cluster, px, py, pz) * c.choice.probability(k) * distance * distance / (cos * c.area[k]);
    }

    /** Luminance of a lamp's body met by a ray along (dx, dy, dz) into out; false from an unlit side. */
    public boolean lampLuminance(int lamp, float dx, float dy, float dz, float[] out) {
        int o = STRIDE * lamp;
        if (kind[lamp] != Lamp.Kind.SPHERE && !twoSided[lamp]
                && dx * data[o + FRAME + 2] + dy * data[o + FRAME + 6] + dz * data[o + FRAME + 10] >= 0) return false;
        out[0] = data[o + LUM];
        out[1] = data[o + LUM + 1];
        out[2] = data[o + LUM + 2];
        return true;
    }

    public int lampGroup(int lamp) {
        return group[lamp];
    }

    /** Density with which {@link #sample} at (px, py, pz) would have chosen the direction that met a lamp's body. */
    public float pdfLamp(int lamp, float px, float py, float pz, float dx, float dy, float dz, float distance) {
        int o = STRIDE * lamp;
        float p = chance(lamp, px, py, pz);
        if (kind[lamp] == Lamp.Kind.SPHERE) {
            float x = data[o] - px, y = data[o + 1] - py, z = data[o + 2] - pz;
            float sin2 = data[o + HALF_W] * data[o + HALF_W] / (x * x + y * y + z * z);
            if (sin2 >= 0.9999f) return 0;
            return p / (2 * (float) Math.PI * sin2 / (1 + (float) Math.sqrt(1 - sin2)));
        }
        float cos = Math.abs(dx * data[o + FRAME + 2] + dy * data[o + FRAME + 6] + dz * data[o + FRAME + 10]);
        float area = kind[lamp] == Lamp.Kind.DISC ? (float) Math.PI * data[o + HALF_W] * data[o + HALF_W]
                : 4 * data[o + HALF_W] * data[o + HALF_H];
        return cos > 1e-6f ? p * distance * distance / (cos * area) : 0;
    }
}
