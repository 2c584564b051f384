package bake.studio.first;

import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import bake.core.scene.Scene;
import bake.studio.scene.Bounds;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * How far a model reaches.
 *
 * @param outermost points of it: in each of many directions the farthest of each mesh
 * @param box around it
 */
record Extent(List<Vec3> outermost, Bounds box) {
    private static final int DIRECTIONS = 40;
    private static final double GOLDEN = Math.PI * (3 - Math.sqrt(5));

    static Extent of(Scene scene) {
        Map<Mesh, List<Vec3>> known = new IdentityHashMap<>();
        List<Vec3> out = new ArrayList<>();
        Bounds box = new Bounds();
        // Of very many small things their boxes are exact enough.
        boolean many = scene.instances().size() > 2000;
        for (Instance i : scene.instances())
            for (Vec3 p : known.computeIfAbsent(scene.meshes().get(i.mesh()), many ? m -> List.of(Bounds.of(m.positions()).corners())
                    : Extent::outermost)) {
                Vec3 q = i.toWorld().point(p);
                out.add(q);
                box.add(q);
            }
        return new Extent(thinned(out), box);
    }

    private static Vec3 direction(int k, int n) {
        double z = 1 - 2 * (k + 0.5) / n, s = Math.sqrt(1 - z * z), a = k * GOLDEN;
        return new Vec3(s * Math.cos(a), s * Math.sin(a), z);
    }

    /** Farthest vertices of a mesh: along the axes, for an exact box, and in directions between. */
    private static List<Vec3> outermost(Mesh m) {
        float[] p = m.positions();
        List<Vec3> out = new ArrayList<>();
        for (int k = 0; k < 6 + DIRECTIONS; k++) {
            Vec3 d = k < 6 ? new Vec3(k == 0 ? 1 : k == 1 ? -1 : 0, k == 2 ? 1 : k == 3 ? -1 : 0, k == 4 ? 1 : k == 5 ? -1 : 0)
                    : direction(k - 6, DIRECTIONS);
            float x = (float) d.x(), y = (float) d.y(), z = (float) d.z(), most = Float.NEGATIVE_INFINITY;
            int at = 0;
            for (int i = 0; i < p.length; i += 3) {
                float far = p[i] * x + p[i + 1] * y + p[i + 2] * z;
                if (far > most) {
                    most = far;
                    at = i;
                }
            }
            out.add(new Vec3(p[at], p[at + 1], p[at + 2]));
        }
        return out;
    }

    /** The outermost of many points. */
    private static List<Vec3> thinned(List<Vec3> all) {
        int n = 200;
        if (all.size() <= n) return all;
        List<Vec3> out = new ArrayList<>();
        for (int k = 0; k < n; k++) {
            Vec3 d = direction(k, n), best = all.getFirst();
            for (Vec3 p : all) if (p.dot(d) > best.dot(d)) best = p;
            out.add(best);
        }
        return out;
    }

    Vec3 middle() {
        return box.middle();
    }

    double low() {
        return box.underside().z();
    }

    /** Height, metres. */
    double height() {
        return box.size()[2];
    }

    /** The longer side of its plan, metres. */
    double across() {
        return Math.max(box.size()[0], box.size()[1]);
    }

    /** Height over the side of a square as large as its plan. */
    double flatness() {
        double[] s = box.size();
        return s[2] / Math.max(1e-9, Math.sqrt(s[0] * s[1]));
    }

    double diagonal() {
        double[] s = box.size();
        return Math.max(1e-3, Math.sqrt(s[0] * s[0] + s[1] * s[1] + s[2] * s[2]));
    }
}
