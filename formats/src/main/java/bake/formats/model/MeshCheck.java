package bake.formats.model;

import bake.core.scene.Mesh;
import java.util.List;

/** Mends what would break a render and reports it: values that are not finite, faces without area, flipped normals. */
final class MeshCheck {
    private MeshCheck() {}

    /** A mesh safe to compile; findings are added for what was wrong. */
    static Mesh mend(Mesh m, List<Finding> findings) {
        float[] p = m.positions();
        int[] idx = m.indices(), keep = new int[idx.length];
        int n = 0, broken = 0, flat = 0, flipped = 0, judged = 0;
        for (int t = 0; t < idx.length; t += 3) {
            int a = 3 * idx[t], b = 3 * idx[t + 1], c = 3 * idx[t + 2];
            if (!finite(p, a) || !finite(p, b) || !finite(p, c)) {
                broken++;
                continue;
            }
            double ux = p[b] - p[a], uy = p[b + 1] - p[a + 1], uz = p[b + 2] - p[a + 2];
            double vx = p[c] - p[a], vy = p[c + 1] - p[a + 1], vz = p[c + 2] - p[a + 2];
            double nx = uy * vz - uz * vy, ny = uz * vx - ux * vz, nz = ux * vy - uy * vx;
            if (!(nx * nx + ny * ny + nz * nz > 1e-24)) {
                flat++;
                continue;
            }
            if (m.normals() != null) {
                judged++;
                float[] v = m.normals();
                double d = nx * (v[a] + v[b] + v[c]) + ny * (v[a + 1] + v[b + 1] + v[c + 1]) + nz * (v[a + 2] + v[b + 2] + v[c + 2]);
                if (d < 0) flipped++;
            }
            for (int k = 0; k < 3; k++) keep[n++] = idx[t + k];
        }
        if (broken > 0) findings.add(new Finding(Finding.Kind.BROKEN_VALUES, m.name(),
                count(broken, "face") + " with a corner that is no number; left out"));
        if (flat > 0) findings.add(new Finding(Finding.Kind.ZERO_AREA, m.name(), count(flat, "face") + " without area; left out"));
        if (flipped > 0) findings.add(new Finding(Finding.Kind.FLIPPED_NORMALS, m.name(), flipped + " of " + count(judged, "face")
                + " face against their normals; both sides are rendered"));
        float[] normals = m.normals() == null ? null : mendNormals(m.normals());
        float[] uvs = m.uvs();
        if (uvs != null) for (int i = 0; i < uvs.length; i++) if (!Float.isFinite(uvs[i])) uvs[i] = 0;
        if (broken > 0) for (int i = 0; i < p.length; i++) if (!Float.isFinite(p[i])) p[i] = 0;
        float[] colours = m.colours();
        if (colours != null) for (int i = 0; i < colours.length; i++) colours[i] = colours[i] > 0 ? Math.min(1, colours[i]) : 0;
        return new Mesh(m.name(), p, normals, uvs, colours, n == idx.length ? idx : java.util.Arrays.copyOf(keep, n), m.material());
    }

    private static String count(int n, String thing) {
        return n + " " + thing + (n == 1 ? "" : "s");
    }

    private static boolean finite(float[] p, int i) {
        // Beyond a million kilometres single precision has nothing left to say.
        return Math.abs(p[i]) < 1e9f && Math.abs(p[i + 1]) < 1e9f && Math.abs(p[i + 2]) < 1e9f;
    }

    private static float[] mendNormals(float[] n) {
        for (int i = 0; i < n.length; i += 3) {
            double l = Math.sqrt((double) n[i] * n[i] + (double) n[i + 1] * n[i + 1] + (double) n[i + 2] * n[i + 2]);
            boolean good = l > 1e-6 && l < 1e6;
            for (int k = 0; k < 3; k++) n[i + k] = good ? (float) (n[i + k] / l) : 0;
        }
        return n;
    }
}
