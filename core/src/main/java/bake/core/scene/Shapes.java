package bake.core.scene;

/** Meshes of simple shapes, outside facing out, with texture coordinates in metres where they are flat. */
public final class Shapes {
    private Shapes() {}

    /** A rectangle in the xy plane about the origin, facing +z. */
    public static Mesh quad(String name, double w, double h, int material) {
        float x = (float) w / 2, y = (float) h / 2;
        return new Mesh(name, new float[] {-x, -y, 0, x, -y, 0, x, y, 0, -x, y, 0}, null,
                new float[] {0, (float) h, (float) w, (float) h, (float) w, 0, 0, 0}, new int[] {0, 1, 2, 0, 2, 3}, material);
    }

    /** A disc in the xy plane about the origin, facing +z, of {@code n} triangles. */
    public static Mesh disc(String name, double radius, int n, int material) {
        float[] p = new float[3 * (n + 1)], uv = new float[2 * (n + 1)];
        int[] idx = new int[3 * n];
        for (int i = 0; i < n; i++) {
            double a = 2 * Math.PI * i / n;
            p[3 * i + 3] = (float) (radius * Math.cos(a));
            p[3 * i + 4] = (float) (radius * Math.sin(a));
            uv[2 * i + 2] = p[3 * i + 3];
            uv[2 * i + 3] = -p[3 * i + 4];
            idx[3 * i + 1] = i + 1;
            idx[3 * i + 2] = (i + 1) % n + 1;
        }
        return new Mesh(name, p, null, uv, idx, material);
    }

    /** A box between two corners; each face has its own vertices and coordinates in metres. */
    public static Mesh box(String name, double x0, double y0, double z0, double x1, double y1, double z1, int material) {
        double[][] c = {{x0, y0, z0}, {x1, y0, z0}, {x1, y1, z0}, {x0, y1, z0}, {x0, y0, z1}, {x1, y0, z1}, {x1, y1, z1}, {x0, y1, z1}};
        int[][] faces = {{0, 3, 2, 1}, {4, 5, 6, 7}, {0, 1, 5, 4}, {1, 2, 6, 5}, {2, 3, 7, 6}, {3, 0, 4, 7}};
        double dx = x1 - x0, dy = y1 - y0, dz = z1 - z0;
        double[][] size = {{dy, dx}, {dx, dy}, {dx, dz}, {dy, dz}, {dx, dz}, {dy, dz}};
        float[] p = new float[72], uv = new float[48];
        int[] idx = new int[36];
        for (int f = 0; f < 6; f++) {
            double[][] t = {{0, size[f][1]}, {size[f][0], size[f][1]}, {size[f][0], 0}, {0, 0}};
            for (int k = 0; k < 4; k++) {
                for (int a = 0; a < 3; a++) p[12 * f + 3 * k + a] = (float) c[faces[f][k]][a];
                uv[8 * f + 2 * k] = (float) t[k][0];
                uv[8 * f + 2 * k + 1] = (float) t[k][1];
            }
            int[] q = {0, 1, 2, 0, 2, 3};
            for (int k = 0; k < 6; k++) idx[6 * f + k] = 4 * f + q[k];
        }
        return new Mesh(name, p, null, uv, idx, material);
    }

    /** A sphere about the origin of {@code n} rings and 2n segments, smooth. */
    public static Mesh sphere(String name, double radius, int n, int material) {
        int m = 2 * n, row = m + 1;
        float[] p = new float[3 * (n + 1) * row], nrm = new float[p.length], uv = new float[2 * (n + 1) * row];
        int[] idx = new int[6 * m * (n - 1)];
        for (int j = 0; j <= n; j++)
            for (int i = 0; i < row; i++) {
                double t = Math.PI * j / n, f = 2 * Math.PI * i / m;
                double[] d = {Math.sin(t) * Math.cos(f), Math.sin(t) * Math.sin(f), Math.cos(t)};
                int v = j * row + i;
                for (int k = 0; k < 3; k++) {
                    nrm[3 * v + k] = (float) d[k];
                    p[3 * v + k] = (float) (radius * d[k]);
                }
                uv[2 * v] = (float) i / m;
                uv[2 * v + 1] = (float) j / n;
            }
        int at = 0;
        for (int j = 0; j < n; j++)
            for (int i = 0; i < m; i++) {
                int a = j * row + i, b = a + 1, c = a + row, d = c + 1;
                if (j > 0) {
                    idx[at++] = a;
                    idx[at++] = d;
                    idx[at++] = b;
                }
                if (j < n - 1) {
                    idx[at++] = a;
                    idx[at++] = c;
                    idx[at++] = d;
                }
            }
        return new Mesh(name, p, nrm, uv, idx, material);
    }
}
