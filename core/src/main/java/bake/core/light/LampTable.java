package bake.core.light;

import bake.core.math.Angles;
import bake.core.math.PathSampler;
import bake.core.scene.Lamp;
import bake.core.scene.PhotometricWeb;
import java.util.List;

/** The lamps of a scene as flat arrays: what each could give at a place, points on it, and the density of them. Immutable. */
final class LampTable {
    private static final int STRIDE = 26;
    private static final int CX = 0, SIZE2 = 3, POWER = 4, FRAME = 5, HALF_W = 17, HALF_H = 18, LUM = 19, COS_OUT = 22, COS_IN = 23,
            WEIGHT = 24;
    private static final float PI = (float) Math.PI;

    private final float[] data;
    private final Lamp.Kind[] kind;
    private final boolean[] hidden, twoSided, visible;
    private final PhotometricWeb[] webs;

    LampTable(List<Lamp> list) {
        int n = list.size();
        data = new float[STRIDE * n];
        kind = new Lamp.Kind[n];
        hidden = new boolean[n];
        visible = new boolean[n];
        twoSided = new boolean[n];
        webs = new PhotometricWeb[n];
        for (int i = 0; i < n; i++) store(i, list.get(i));
    }

    private void store(int i, Lamp l) {
        int o = STRIDE * i;
        kind[i] = l.kind();
        hidden[i] = !l.mirrored();
        visible[i] = l.visible();
        twoSided[i] = l.twoSided();
        webs[i] = l.web();
        data[o + CX] = (float) l.position().x();
        data[o + CX + 1] = (float) l.position().y();
        data[o + CX + 2] = (float) l.position().z();
        l.frame().store(data, o + FRAME);
        boolean two = l.kind() == Lamp.Kind.RECTANGLE || l.kind() == Lamp.Kind.TUBE || l.kind() == Lamp.Kind.WEB && l.height() > 0;
        data[o + HALF_W] = (float) l.width() / 2;
        data[o + HALF_H] = (float) (two ? l.height() : l.width()) / 2;
        double r2 = (l.width() * l.width() + (two ? l.height() * l.height() : 0)) / 4;
        data[o + SIZE2] = (float) Math.max(1e-4, r2);
        double cosIn = Math.cos(Math.toRadians(l.beamDegrees() / 2)), cosOut = Math.cos(Math.toRadians(l.fieldDegrees() / 2));
        data[o + COS_IN] = (float) Math.max(cosIn, cosOut + 1e-4);
        data[o + COS_OUT] = (float) cosOut;
        double scale = switch (l.kind()) {
            case POINT, SPOT -> l.candela();
            case WEB -> l.web().lumens() > 0 ? l.lumens() / l.web().lumens() : 0;
            default -> l.luminance();
        };
        data[o + LUM] = (float) (scale * l.colour().x());
        data[o + LUM + 1] = (float) (scale * l.colour().y());
        data[o + LUM + 2] = (float) (scale * l.colour().z());
        data[o + POWER] = (float) Math.max(l.candela() * l.weight(), 0);
        data[o + WEIGHT] = (float) (l.weight() * scale);
    }

    /** Whether camera rays (straight) or scattered ones meet the lamp's body. */
    boolean seen(int i, boolean straight) {
        return straight ? visible[i] : !hidden[i];
    }

    float power(int i) {
        return data[STRIDE * i + POWER];
    }

    /**
     * Middle and squared half size into {@code out[0..3]}; axis and the cosine beyond which there is no light into {@code [4..7]}, -1 for
     * every way.
     */
    void bound(int i, float[] out) {
        int o = STRIDE * i;
        System.arraycopy(data, o, out, 0, 4);
        out[4] = data[o + FRAME + 2];
        out[5] = data[o + FRAME + 6];
        out[6] = data[o + FRAME + 10];
        out[7] = switch (kind[i]) {
            case SPOT -> data[o + COS_OUT];
            case DISC, RECTANGLE -> twoSided[i] ? -1 : 0;
            default -> -1;
        };
    }

    /** About what the lamp could give at a place, times its weight. */
    float weight(int i, float px, float py, float pz) {
        int o = STRIDE * i;
        float x = px - data[o], y = py - data[o + 1], z = pz - data[o + 2], d2 = x * x + y * y + z * z;
        float w = data[o + POWER] / Math.max(d2, data[o + SIZE2]);
        Lamp.Kind k = kind[i];
        if (k == Lamp.Kind.POINT || k == Lamp.Kind.SPHERE) return w;
        if (k == Lamp.Kind.TUBE) return tubeWeight(o, x, y, z);
        if (k == Lamp.Kind.WEB) {
            // A floor: with an opening, light leaves from places of other directions too.
            float at = intensity(i, x, y, z, (float) Math.sqrt(Math.max(d2, 1e-12f)));
            return Math.max(at * data[o + WEIGHT], data[o + HALF_W] > 0 ? 0.02f * data[o + POWER] : 0) / Math.max(d2, data[o + SIZE2]);
        }
        // Light leaves along the frame's z axis: the third column.
        float c = (x * data[o + FRAME + 2] + y * data[o + FRAME + 6] + z * data[o + FRAME + 10]) / (float) Math.sqrt(Math.max(d2, 1e-12f));
        if (k == Lamp.Kind.SPOT) return w * (data[o + HALF_W] > 0 ? Math.max(0.02f, spotFalloff(o, c)) : spotFalloff(o, c));
        if (d2 < 4 * data[o + SIZE2]) return w;
        float margin = 0.05f + (float) Math.sqrt(data[o + SIZE2] / d2);
        return w * Math.max(0.02f, Math.min(1, (twoSided[i] ? Math.abs(c) : c) + margin));
    }

    /** At most the cosine under which the lamp lights a surface. */
    float facing(int i, float px, float py, float pz, LightSample at) {
        int o = STRIDE * i;
        float x = data[o] - px, y = data[o + 1] - py, z = data[o + 2] - pz, d2 = x * x + y * y + z * z, r2 = data[o + SIZE2];
        return d2 > r2 ? at.facing(x, y, z, d2, r2) : 1;
    }

    /** A line source: its intensity per length over the distance from the line, times the angle that it fills. */
    private float tubeWeight(int o, float x, float y, float z) {
        float along = x * data[o + FRAME] + y * data[o + FRAME + 4] + z * data[o + FRAME + 8], h = data[o + HALF_H];
        float d = (float) Math.sqrt(Math.max(x * x + y * y + z * z - along * along, data[o + HALF_W] * data[o + HALF_W]));
        return data[o + POWER] / (2 * h * d) * (float) (atan((h - along) / d) + atan((h + along) / d));
    }

    private float intensity(int i, float x, float y, float z, float length) {
        int f = STRIDE * i + FRAME;
        return webs[i].candela((x * data[f] + y * data[f + 4] + z * data[f + 8]) / length,
                (x * data[f + 1] + y * data[f + 5] + z * data[f + 9]) / length,
                (x * data[f + 2] + y * data[f + 6] + z * data[f + 10]) / length);
    }

    private float spotFalloff(int o, float cos) {
        float t = Math.clamp((cos - data[o + COS_OUT]) / (data[o + COS_IN] - data[o + COS_OUT]), 0f, 1f);
        return t * t * (3 - 2 * t);
    }

    /** Chooses a point on lamp {@code i}, which was chosen with chance {@code p}; false when nothing there can give light. */
    boolean sample(int i, float px, float py, float pz, float p, float u1, float u2, LightSample s) {
        int o = STRIDE * i;
        float cx = data[o] - px, cy = data[o + 1] - py, cz = data[o + 2] - pz;
        s.hidden = hidden[i];
        s.r = data[o + LUM];
        s.g = data[o + LUM + 1];
        s.b = data[o + LUM + 2];
        return switch (kind[i]) {
            case POINT, SPOT, WEB -> samplePoint(i, cx, cy, cz, p, u1, u2, s);
            case SPHERE -> sampleSphere(data[o + HALF_W], cx, cy, cz, p, u1, u2, s);
            case TUBE -> sampleTube(o, cx, cy, cz, p, u1, u2, s);
            default -> sampleFlat(i, cx, cy, cz, p, u1, u2, s);
        };
    }

    /** Lights without a body. One with an opening shines from any point of it in the same way. */
    private boolean samplePoint(int i, float cx, float cy, float cz, float p, float u1, float u2, LightSample s) {
        int o = STRIDE * i;
        if (data[o + HALF_W] > 0) {
            int f = o + FRAME;
            float lx, ly;
            if (kind[i] == Lamp.Kind.WEB && data[o + HALF_H] != data[o + HALF_W]) {
                lx = (2 * u1 - 1) * data[o + HALF_W];
                ly = (2 * u2 - 1) * data[o + HALF_H];
            } else {
                float r = data[o + HALF_W] * (float) Math.sqrt(u1);
                lx = r * (float) Math.cos(2 * PI * u2);
                ly = r * (float) Math.sin(2 * PI * u2);
            }
            cx += data[f] * lx + data[f + 1] * ly;
            cy += data[f + 4] * lx + data[f + 5] * ly;
            cz += data[f + 8] * lx + data[f + 9] * ly;
        }
        float d2 = cx * cx + cy * cy + cz * cz;
        aim(s, cx, cy, cz, d2);
        float k = 1 / d2;
        if (kind[i] == Lamp.Kind.SPOT) k *= spotFalloff(o,
                -(s.x * data[o + FRAME + 2] + s.y * data[o + FRAME + 6] + s.z * data[o + FRAME + 10]));
        if (kind[i] == Lamp.Kind.WEB) k *= intensity(i, -s.x, -s.y, -s.z, 1);
        s.r *= k;
        s.g *= k;
        s.b *= k;
        s.pdf = p;
        s.point = true;
        return k > 0 && k < Float.POSITIVE_INFINITY;
    }

    /** Chooses a ray on which light leaves lamp {@code i}, which was chosen with chance {@code p}. */
    boolean emit(int i, float p, PathSampler random, Emission e) {
        int o = STRIDE * i, f = o + FRAME;
        random.next2();
        float u = random.u, v = random.v, phi = 2 * PI * v, ax = data[f + 2], ay = data[f + 6], az = data[f + 10];
        switch (kind[i]) {
            case POINT, SPOT, WEB -> emitPoint(i, p, u, v, random, e);
            case SPHERE -> {
                float c = 1 - 2 * u, s = (float) Math.sqrt(Math.max(0, 1 - c * c)), rad = data[o + HALF_W] * 1.0001f,
                        nx = s * (float) Math.cos(phi), ny = s * (float) Math.sin(phi);
                e.from(data[o] + rad * nx, data[o + 1] + rad * ny, data[o + 2] + rad * c, nx, ny, c,
                        4 * PI * PI * data[o + HALF_W] * data[o + HALF_W] / p, random);
            }
            case TUBE -> {
                // Its axis is the frame's first one.
                float h = (2 * u - 1) * data[o + HALF_H], c = (float) Math.cos(phi), s = (float) Math.sin(phi), rad = data[o + HALF_W],
                        nx = c * data[f + 1] + s * ax, ny = c * data[f + 5] + s * ay, nz = c * data[f + 9] + s * az;
                e.from(data[o] + h * data[f] + 1.0001f * rad * nx, data[o + 1] + h * data[f + 4] + 1.0001f * rad * ny,
                        data[o + 2] + h * data[f + 8] + 1.0001f * rad * nz, nx, ny, nz, 4 * PI * PI * rad * data[o + HALF_H] / p, random);
            }
            default -> {
                float lx, ly;
                if (kind[i] == Lamp.Kind.DISC) {
                    float rad = data[o + HALF_W] * (float) Math.sqrt(u);
                    lx = rad * (float) Math.cos(phi);
                    ly = rad * (float) Math.sin(phi);
                } else {
                    lx = (2 * u - 1) * data[o + HALF_W];
                    ly = (2 * v - 1) * data[o + HALF_H];
                }
                float side = twoSided[i] && random.next1() < 0.5f ? -1 : 1, off = 1e-4f * side;
                e.from(data[o] + data[f] * lx + data[f + 1] * ly + off * ax, data[o + 1] + data[f + 4] * lx + data[f + 5] * ly + off * ay,
                        data[o + 2] + data[f + 8] * lx + data[f + 9] * ly + off * az,
                        side * ax, side * ay, side * az, (twoSided[i] ? 2 : 1) * PI * flatArea(i) / p, random);
            }
        }
        e.r *= data[o + LUM];
        e.g *= data[o + LUM + 1];
        e.b *= data[o + LUM + 2];
        return e.r + e.g + e.b > 0;
    }

    private void emitPoint(int i, float p, float u, float v, PathSampler random, Emission e) {
        int o = STRIDE * i, f = o + FRAME;
        float least = kind[i] == Lamp.Kind.SPOT ? data[o + COS_OUT] : -1, cos = 1 - u * (1 - least),
                sin = (float) Math.sqrt(Math.max(0, 1 - cos * cos));
        e.towards(data[o], data[o + 1], data[o + 2], data[f + 2], data[f + 6], data[f + 10], sin, cos, 2 * PI * v,
                2 * PI * (1 - least) / p);
        float k = kind[i] == Lamp.Kind.SPOT ? spotFalloff(o, cos) : kind[i] == Lamp.Kind.WEB ? intensity(i, e.dx, e.dy, e.dz, 1) : 1;
        e.r *= k;
        e.g *= k;
        e.b *= k;
        if (!(data[o + HALF_W] > 0)) return;
        random.next2();
        float lx, ly;
        if (kind[i] == Lamp.Kind.WEB && data[o + HALF_H] != data[o + HALF_W]) {
            lx = (2 * random.u - 1) * data[o + HALF_W];
            ly = (2 * random.v - 1) * data[o + HALF_H];
        } else {
            float r = data[o + HALF_W] * (float) Math.sqrt(random.u);
            lx = r * (float) Math.cos(2 * PI * random.v);
            ly = r * (float) Math.sin(2 * PI * random.v);
        }
        e.x += data[f] * lx + data[f + 1] * ly;
        e.y += data[f + 4] * lx + data[f + 5] * ly;
        e.z += data[f + 8] * lx + data[f + 9] * ly;
    }

    private boolean sampleFlat(int i, float cx, float cy, float cz, float p, float u1, float u2, LightSample s) {
        int o = STRIDE * i, f = o + FRAME;
        float lx, ly;
        if (kind[i] == Lamp.Kind.DISC) {
            float rad = data[o + HALF_W] * (float) Math.sqrt(u1), phi = 2 * PI * u2;
            lx = rad * (float) Math.cos(phi);
            ly = rad * (float) Math.sin(phi);
        } else {
            lx = (2 * u1 - 1) * data[o + HALF_W];
            ly = (2 * u2 - 1) * data[o + HALF_H];
        }
        float qx = cx + data[f] * lx + data[f + 1] * ly, qy = cy + data[f + 4] * lx + data[f + 5] * ly,
                qz = cz + data[f + 8] * lx + data[f + 9] * ly;
        float d2 = qx * qx + qy * qy + qz * qz;
        aim(s, qx, qy, qz, d2);
        float cos = -(s.x * data[f + 2] + s.y * data[f + 6] + s.z * data[f + 10]);
        if (twoSided[i]) cos = Math.abs(cos);
        if (cos <= 1e-6f) return false;
        s.pdf = p * d2 / (cos * flatArea(i));
        return true;
    }

    private float flatArea(int i) {
        int o = STRIDE * i;
        return kind[i] == Lamp.Kind.DISC ? PI * data[o + HALF_W] * data[o + HALF_W] : 4 * data[o + HALF_W] * data[o + HALF_H];
    }

    static void aim(LightSample s, float x, float y, float z, float d2) {
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
        float oneMinus = u1 * cap, cos = 1 - oneMinus, sin = (float) Math.sqrt(oneMinus * (2 - oneMinus)), phi = 2 * PI * u2;
        aim(s, cx, cy, cz, d2);
        float d = s.distance;
        Emitters.turn(s, cos, sin * (float) Math.cos(phi), sin * (float) Math.sin(phi));
        float h2 = r2 - d2 * sin * sin;
        s.distance = d * cos - (float) Math.sqrt(Math.max(0, h2));
        s.pdf = p / (2 * PI * cap);
        return true;
    }

    /**
     * A point of a tube's mantle: evenly in the angle that its axis fills (Kulla and Fajardo 2012, "Importance Sampling Techniques
     * for Path Tracing in Participating Media", equiangular), and evenly around over the half that faces the place.
     */
    private boolean sampleTube(int o, float cx, float cy, float cz, float p, float u1, float u2, LightSample s) {
        int f = o + FRAME;
        float r = data[o + HALF_W], h = data[o + HALF_H];
        float ax = data[f], ay = data[f + 4], az = data[f + 8];
        // From the tube's middle to the place: along the axis, and across.
        float along = -(cx * ax + cy * ay + cz * az), wx = -cx - along * ax, wy = -cy - along * ay, wz = -cz - along * az;
        float d = (float) Math.sqrt(wx * wx + wy * wy + wz * wz);
        if (!(d > r * 1.0001f)) return false;
        double lo = atan((-h - along) / d), hi = atan((h - along) / d);
        float t = d * (float) Math.tan(lo + (hi - lo) * u1), most = (float) Math.acos(r / d), phi = most * (2 * u2 - 1);
        float perLength = d / ((float) (hi - lo) * (d * d + t * t));
        wx /= d;
        wy /= d;
        wz /= d;
        float vx = ay * wz - az * wy, vy = az * wx - ax * wz, vz = ax * wy - ay * wx, c = (float) Math.cos(phi), q = (float) Math.sin(phi);
        float nx = c * wx + q * vx, ny = c * wy + q * vy, nz = c * wz + q * vz, a = Math.clamp(along + t, -h, h);
        float x = cx + a * ax + r * nx, y = cy + a * ay + r * ny, z = cz + a * az + r * nz, d2 = x * x + y * y + z * z;
        aim(s, x, y, z, d2);
        float cos = -(s.x * nx + s.y * ny + s.z * nz);
        if (!(cos > 1e-6f)) return false;
        s.pdf = p * perLength / (2 * most * r) * d2 / cos;
        return true;
    }

    private float pdfTube(int o, float px, float py, float pz, float dx, float dy, float dz, float distance) {
        int f = o + FRAME;
        float r = data[o + HALF_W], h = data[o + HALF_H], ax = data[f], ay = data[f + 4], az = data[f + 8];
        float cx = px - data[o], cy = py - data[o + 1], cz = pz - data[o + 2], along = cx * ax + cy * ay + cz * az;
        float wx = cx - along * ax, wy = cy - along * ay, wz = cz - along * az, d = (float) Math.sqrt(wx * wx + wy * wy + wz * wz);
        if (!(d > r * 1.0001f)) return 0;
        float t = distance * (dx * ax + dy * ay + dz * az);
        double lo = atan((-h - along) / d), hi = atan((h - along) / d);
        float perLength = d / ((float) (hi - lo) * (d * d + t * t)), most = (float) Math.acos(r / d);
        // The normal where it was met: from the axis to there.
        float hx = wx + distance * dx - t * ax, hy = wy + distance * dy - t * ay, hz = wz + distance * dz - t * az;
        float cos = -(dx * hx + dy * hy + dz * hz) / r;
        return cos > 1e-6f ? perLength / (2 * most * r) * distance * distance / cos : 0;
    }

    /** Luminance of a lamp's body met by a ray along (dx, dy, dz) into out; false from an unlit side. */
    boolean luminance(int i, float dx, float dy, float dz, float[] out) {
        int o = STRIDE * i;
        boolean flat = kind[i] == Lamp.Kind.DISC || kind[i] == Lamp.Kind.RECTANGLE;
        if (flat && !twoSided[i] && dx * data[o + FRAME + 2] + dy * data[o + FRAME + 6] + dz * data[o + FRAME + 10] >= 0) return false;
        out[0] = data[o + LUM];
        out[1] = data[o + LUM + 1];
        out[2] = data[o + LUM + 2];
        return true;
    }

    /** Density per steradian with which {@link #sample} would have chosen the direction that met the body, once the lamp was chosen. */
    float pdf(int i, float px, float py, float pz, float dx, float dy, float dz, float distance) {
        int o = STRIDE * i;
        if (kind[i] == Lamp.Kind.TUBE) return pdfTube(o, px, py, pz, dx, dy, dz, distance);
        if (kind[i] == Lamp.Kind.SPHERE) {
            float x = data[o] - px, y = data[o + 1] - py, z = data[o + 2] - pz;
            float sin2 = data[o + HALF_W] * data[o + HALF_W] / (x * x + y * y + z * z);
            if (sin2 >= 0.9999f) return 0;
            return 1 / (2 * PI * sin2 / (1 + (float) Math.sqrt(1 - sin2)));
        }
        float cos = Math.abs(dx * data[o + FRAME + 2] + dy * data[o + FRAME + 6] + dz * data[o + FRAME + 10]);
        return cos > 1e-6f ? distance * distance / (cos * flatArea(i)) : 0;
    }

    private static double atan(double x) {
        return Angles.atan2(x, 1);
    }
}
