package bake.demo;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Mesh;
import java.util.Arrays;

/** Collects triangles of one material: boxes, tubes, turned shapes and surfaces, under a current transform. */
final class MeshBuilder {
    private float[] pos = new float[300], nrm = new float[300], uv = new float[200];
    private int[] idx = new int[300];
    private int vertices, indices;
    private Affine at = Affine.IDENTITY;

    /** A point of a surface over two parameters. */
    interface Surface {
        Vec3 at(double u, double v);
    }

    MeshBuilder under(Affine a) {
        at = a;
        return this;
    }

    boolean empty() {
        return indices == 0;
    }

    Mesh build(String name, int material) {
        return new Mesh(name, Arrays.copyOf(pos, 3 * vertices), Arrays.copyOf(nrm, 3 * vertices), Arrays.copyOf(uv, 2 * vertices),
                Arrays.copyOf(idx, indices), material);
    }

    int vertex(Vec3 p, Vec3 n, double u, double v) {
        if (3 * vertices + 3 > pos.length) {
            pos = Arrays.copyOf(pos, 2 * pos.length);
            nrm = Arrays.copyOf(nrm, 2 * nrm.length);
            uv = Arrays.copyOf(uv, 2 * uv.length);
        }
        Vec3 q = at.point(p), m = at.vector(n).normalized();
        pos[3 * vertices] = (float) q.x();
        pos[3 * vertices + 1] = (float) q.y();
        pos[3 * vertices + 2] = (float) q.z();
        nrm[3 * vertices] = (float) m.x();
        nrm[3 * vertices + 1] = (float) m.y();
        nrm[3 * vertices + 2] = (float) m.z();
        uv[2 * vertices] = (float) u;
        uv[2 * vertices + 1] = (float) v;
        return vertices++;
    }

    void triangle(int a, int b, int c) {
        if (indices + 3 > idx.length) idx = Arrays.copyOf(idx, 2 * idx.length);
        idx[indices++] = a;
        idx[indices++] = b;
        idx[indices++] = c;
    }

    /** A flat four-cornered face, counter-clockwise from outside; texture coordinates in metres plus an offset. */
    MeshBuilder quad(Vec3 a, Vec3 b, Vec3 c, Vec3 d, double u0, double v0) {
        Vec3 n = b.minus(a).cross(c.minus(a)).normalized();
        if (n.length() < 0.5) n = c.minus(a).cross(d.minus(a)).normalized();
        double w = b.minus(a).length(), h = d.minus(a).length(), w2 = c.minus(d).length();
        int i = vertex(a, n, u0, v0 + h), j = vertex(b, n, u0 + w, v0 + h), k = vertex(c, n, u0 + w2, v0), l = vertex(d, n, u0, v0);
        triangle(i, j, k);
        triangle(i, k, l);
        return this;
    }

    MeshBuilder quad(Vec3 a, Vec3 b, Vec3 c, Vec3 d) {
        return quad(a, b, c, d, 0, 0);
    }

    MeshBuilder box(double x0, double y0, double z0, double x1, double y1, double z1) {
        return box(x0, y0, z0, x1, y1, z1, 0, 0, 63);
    }

    /**
     * @param faces bits: 1 -z, 2 +z, 4 -y, 8 +x, 16 +y, 32 -x
     */
    MeshBuilder box(double x0, double y0, double z0, double x1, double y1, double z1, double u0, double v0, int faces) {
        Vec3[] c = new Vec3[8];
        for (int i = 0; i < 8; i++) c[i] = new Vec3((i & 1) == 0 ? x0 : x1, (i & 2) == 0 ? y0 : y1, (i & 4) == 0 ? z0 : z1);
        int[][] f = {{2, 3, 1, 0}, {4, 5, 7, 6}, {0, 1, 5, 4}, {1, 3, 7, 5}, {3, 2, 6, 7}, {2, 0, 4, 6}};
        for (int i = 0; i < 6; i++) if ((faces >> i & 1) != 0) quad(c[f[i][0]], c[f[i][1]], c[f[i][2]], c[f[i][3]], u0, v0);
        return this;
    }

    /** A tapered tube of {@code n} sides with end caps. */
    MeshBuilder tube(Vec3 a, Vec3 b, double ra, double rb, int n) {
        Affine f = Affine.pointing(a, b.minus(a));
        double h = b.minus(a).length();
        int first = vertices;
        for (int i = 0; i <= n; i++) {
            double t = 2 * Math.PI * i / n;
            Vec3 d = f.vector(new Vec3(Math.cos(t), Math.sin(t), 0));
            vertex(a.plus(d.times(ra)), d, i * 2 * Math.PI * ra / n, h);
            vertex(b.plus(d.times(rb)), d, i * 2 * Math.PI * ra / n, 0);
        }
        for (int i = 0; i < n; i++) {
            int k = first + 2 * i;
            triangle(k, k + 2, k + 3);
            triangle(k, k + 3, k + 1);
        }
        cap(a, f, ra, n, -1);
        cap(b, f, rb, n, 1);
        return this;
    }

    private void cap(Vec3 at, Affine f, double r, int n, int side) {
        if (r <= 0) return;
        Vec3 normal = f.vector(new Vec3(0, 0, side));
        int c = vertex(at, normal, 0, 0), first = vertices;
        for (int i = 0; i < n; i++) {
            double t = 2 * Math.PI * i / n;
            vertex(at.plus(f.vector(new Vec3(Math.cos(t) * r, Math.sin(t) * r, 0))), normal, Math.cos(t) * r, Math.sin(t) * r);
        }
        for (int i = 0; i < n; i++) {
            int a = first + i, b = first + (i + 1) % n;
            if (side > 0) triangle(c, a, b);
            else triangle(c, b, a);
        }
    }

    /** A shape turned about the z axis through {@code origin}: pairs of radius and height from bottom to top. */
    MeshBuilder turned(Vec3 origin, int n, double... profile) {
        int m = profile.length / 2;
        return surface(n, m - 1, (u, v) -> {
            double k = v * (m - 1);
            int i = Math.min((int) k, m - 2);
            double f = k - i, r = profile[2 * i] * (1 - f) + profile[2 * i + 2] * f,
                    z = profile[2 * i + 1] * (1 - f) + profile[2 * i + 3] * f;
            double t = 2 * Math.PI * u;
            return origin.plus(new Vec3(r * Math.cos(t), r * Math.sin(t), z));
        });
    }

    /** A smooth surface of n by m cells over u, v in 0 to 1; it faces du x dv. */
    MeshBuilder surface(int n, int m, Surface s) {
        int first = vertices;
        double e = 1e-4;
        for (int j = 0; j <= m; j++)
            for (int i = 0; i <= n; i++) {
                double u = (double) i / n, v = (double) j / m;
                Vec3 p = s.at(u, v);
                Vec3 du = s.at(Math.min(1, u + e), v).minus(s.at(Math.max(0, u - e), v)),
                        dv = s.at(u, Math.min(1, v + e)).minus(s.at(u, Math.max(0, v - e)));
                if (du.length() < 1e-9) { // a pole: look a little beside it
                    double w = v < 0.5 ? v + 1e-3 : v - 1e-3;
                    du = s.at(Math.min(1, u + e), w).minus(s.at(Math.max(0, u - e), w));
                }
                vertex(p, du.cross(dv).normalized(), u, v);
            }
        for (int j = 0; j < m; j++)
            for (int i = 0; i < n; i++) {
                int a = first + j * (n + 1) + i, b = a + 1, c = a + n + 1, d = c + 1;
                if (area(a, b, d) > 1e-12) triangle(a, b, d);
                if (area(a, d, c) > 1e-12) triangle(a, d, c);
            }
        return this;
    }

    private double area(int a, int b, int c) {
        Vec3 p = point(a);
        return point(b).minus(p).cross(point(c).minus(p)).length();
    }

    private Vec3 point(int i) {
        return new Vec3(pos[3 * i], pos[3 * i + 1], pos[3 * i + 2]);
    }

    /** A soft block, like a cushion: a rounded box with the given half sizes. */
    MeshBuilder cushion(Vec3 c, double a, double b, double h, int n) {
        return surface(2 * n, n, (u, v) -> {
            double t = 2 * Math.PI * u, f = Math.PI * (v - 0.5), e = 0.35;
            double cf = pow(Math.cos(f), e);
            return c.plus(new Vec3(a * cf * pow(Math.cos(t), e), b * cf * pow(Math.sin(t), e), h * pow(Math.sin(f), 0.6)));
        });
    }

    private static double pow(double x, double e) {
        return Math.signum(x) * Math.pow(Math.abs(x), e);
    }
}
