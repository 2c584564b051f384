package bake.core.outlook;

import bake.core.light.LightTable;
import bake.core.light.Surround;
import bake.core.math.Vec3;

/**
 * Illuminance by colour that sun and dome would give a plane if nothing stood around it. The dome's cosine integral is tabulated over the
 * plane's normals. Each cell of the dome is kept as the integral of its luminance times direction, so that a cell above the plane's
 * horizon counts exactly; only those cut by it are taken for a single direction.
 */
final class OpenLight {
    /** Cells of the dome, and steps of the table of normals. */
    private static final int ACROSS = 128, DOWN = 64, TURNS = 96, TILTS = 49;

    private final float[] table = new float[3 * TURNS * TILTS];
    private final Vec3 sun, sunLux;

    OpenLight(Surround around) {
        sun = around.toSun();
        sunLux = around.sunLux();
        double[] cells = cells(around);
        java.util.stream.IntStream.range(0, TILTS).parallel().forEach(j -> {
            double t = Math.PI * j / (TILTS - 1);
            for (int i = 0; i < TURNS; i++)
                fill(cells, Math.sin(t) * Math.cos(2 * Math.PI * i / TURNS), Math.sin(t) * Math.sin(2 * Math.PI * i / TURNS), Math.cos(t),
                        3 * (j * TURNS + i));
        });
    }

    /** For each cell and colour the integral of luminance times direction, lux. */
    private static double[] cells(Surround around) {
        double[] out = new double[9 * ACROSS * DOWN];
        int finer = Math.clamp((around.dome().width() + ACROSS - 1) / ACROSS, 2, 128);
        java.util.stream.IntStream.range(0, DOWN).parallel().forEach(j -> {
            float[] c = new float[4];
            for (int v = j * finer; v < (j + 1) * finer; v++) {
                double t0 = Math.PI * v / (DOWN * finer), t1 = Math.PI * (v + 1) / (DOWN * finer), t = (t0 + t1) / 2,
                        solid = (Math.cos(t0) - Math.cos(t1)) * 2 * Math.PI / (ACROSS * finer);
                for (int u = 0; u < ACROSS * finer; u++) {
                    double p = 2 * Math.PI * (u + 0.5) / (ACROSS * finer), x = Math.sin(t) * Math.cos(p), y = Math.sin(t) * Math.sin(p),
                            z = Math.cos(t);
                    around.dome().read((float) x, (float) y, (float) z, c);
                    int o = 9 * (j * ACROSS + u / finer);
                    for (int k = 0; k < 3; k++) {
                        out[o + 3 * k] += c[k] * solid * x;
                        out[o + 3 * k + 1] += c[k] * solid * y;
                        out[o + 3 * k + 2] += c[k] * solid * z;
                    }
                }
            }
        });
        return out;
    }

    private void fill(double[] cells, double nx, double ny, double nz, int o) {
        double r = 0, g = 0, b = 0;
        for (int i = 0; i < cells.length; i += 9) {
            r += Math.max(0, cells[i] * nx + cells[i + 1] * ny + cells[i + 2] * nz);
            g += Math.max(0, cells[i + 3] * nx + cells[i + 4] * ny + cells[i + 5] * nz);
            b += Math.max(0, cells[i + 6] * nx + cells[i + 7] * ny + cells[i + 8] * nz);
        }
        table[o] = (float) r;
        table[o + 1] = (float) g;
        table[o + 2] = (float) b;
    }

    /** Illuminance by colour of a plane with the normal (x, y, z) of length one into {@code out[0..2]}, lux. */
    void at(float x, float y, float z, float[] out) {
        double v = Math.acos(Math.clamp(z, -1, 1)) / Math.PI * (TILTS - 1), u = (Math.atan2(y, x) / (2 * Math.PI) + 1) * TURNS;
        int j = Math.min((int) v, TILTS - 2), i = (int) u;
        float fy = (float) (v - j), fx = (float) (u - i);
        int a = 3 * (j * TURNS + i % TURNS), b = 3 * (j * TURNS + (i + 1) % TURNS), down = 3 * TURNS;
        float cos = sun == null ? 0 : (float) Math.max(0, x * sun.x() + y * sun.y() + z * sun.z());
        for (int k = 0; k < 3; k++) out[k] = (table[a + k] * (1 - fx) + table[b + k] * fx) * (1 - fy)
                + (table[a + down + k] * (1 - fx) + table[b + down + k] * fx) * fy;
        if (cos == 0) return;
        out[0] += (float) sunLux.x() * cos;
        out[1] += (float) sunLux.y() * cos;
        out[2] += (float) sunLux.z() * cos;
    }
}
