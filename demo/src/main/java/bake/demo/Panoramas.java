package bake.demo;

import bake.core.light.Atmosphere;
import bake.core.light.SkyImage;
import bake.core.math.Vec3;
import bake.core.scene.Panorama;
import bake.formats.picture.ExrFile;
import bake.formats.picture.HdrFile;
import bake.formats.picture.Raster;
import java.io.IOException;
import java.nio.file.Path;
import java.util.TreeMap;
import java.util.stream.IntStream;

/** Two sky panoramas of our own: fair weather with clouds and the sun in it, and an overcast sky. */
final class Panoramas {
    static final int WIDTH = 2048;

    private Panoramas() {}

    static void write(Path folder) throws IOException {
        float[] fair = fair(), grey = overcast();
        exr(folder.resolve("fair-sky.exr"), fair);
        HdrFile.write(folder.resolve("fair-sky.hdr"), new Raster(WIDTH, WIDTH / 2, fair));
        exr(folder.resolve("overcast-sky.exr"), grey);
    }

    private static void exr(Path file, float[] rgb) throws IOException {
        int n = rgb.length / 3;
        TreeMap<String, float[]> c = new TreeMap<>();
        for (int k = 0; k < 3; k++) {
            float[] plane = new float[n];
            for (int i = 0; i < n; i++) plane[i] = rgb[3 * i + k];
            c.put("RGB".substring(k, k + 1), plane);
        }
        ExrFile.write(file, WIDTH, WIDTH / 2, c, false, bake.formats.picture.ExrNotes.PLAIN);
    }

    private interface Sky {
        Vec3 at(Vec3 d, int x, int y);
    }

    private static float[] image(Sky s) {
        int w = WIDTH, h = w / 2;
        float[] rgb = new float[3 * w * h];
        IntStream.range(0, h).parallel().forEach(y -> {
            double t = Math.PI * (y + 0.5) / h;
            for (int x = 0; x < w; x++) {
                double f = 2 * Math.PI * ((x + 0.5) / w - 0.5);
                Vec3 c = s.at(new Vec3(Math.sin(t) * Math.sin(f), Math.sin(t) * Math.cos(f), Math.cos(t)), x, y);
                int o = 3 * (y * w + x);
                rgb[o] = (float) c.x();
                rgb[o + 1] = (float) c.y();
                rgb[o + 2] = (float) c.z();
            }
        });
        return rgb;
    }

    /** Cover of a cloud layer seen in a direction: fractal noise on a plane high above, fading to the horizon. */
    private static double cloud(Vec3 d, double scale, int seed) {
        double k = scale / (d.z() + 0.12);
        double u = d.x() * k * 0.08 + 0.5, v = d.y() * k * 0.08 + 0.5;
        return Noise.fractal(u - Math.floor(u), v - Math.floor(v), 5, 7, seed);
    }

    private static float[] fair() {
        double height = Math.toRadians(42), azimuth = Math.toRadians(140);
        Vec3 sun = new Vec3(Math.cos(height) * Math.sin(azimuth), Math.cos(height) * Math.cos(azimuth), Math.sin(height));
        Atmosphere air = new Atmosphere(2.6, 0.2);
        Panorama clear = SkyImage.clear(air, sun, 512);
        Vec3 lux = air.sunIlluminance(height);
        float[] rgb = image((d, x, y) -> {
            Vec3 sky = sample(clear, x, y);
            if (d.z() <= 0) return sky;
            double n = cloud(d, 1.1, 401), cover = smooth(0.53, 0.66, n) * smooth(0.0, 0.08, d.z());
            double toward = Math.max(0, d.dot(sun)), thick = smooth(0.6, 0.8, n);
            Vec3 lit = lux.times(0.11 + 0.35 * Math.pow(toward, 12)).times(1 - 0.55 * thick).plus(sky.times(0.6));
            return sky.times(1 - cover).plus(lit.times(cover));
        });
        // The sun itself: its pixels share its illuminance by their solid angle.
        double sin = Math.sin(Math.toRadians(0.2665)), area = Math.PI * sin * sin;
        double sum = 0;
        int w = WIDTH, h = w / 2;
        for (int pass = 0; pass < 2; pass++)
            for (int y = 0; y < h; y++)
                for (int x = 0; x < w; x++) {
                    double t = Math.PI * (y + 0.5) / h, f = 2 * Math.PI * ((x + 0.5) / w - 0.5);
                    Vec3 d = new Vec3(Math.sin(t) * Math.sin(f), Math.sin(t) * Math.cos(f), Math.cos(t));
                    if (d.minus(sun).length() > 0.0052) continue;
                    if (pass == 0) sum += Math.sin(t) * 2 * Math.PI * Math.PI / ((double) w * h);
                    else {
                        int o = 3 * (y * w + x);
                        rgb[o] += (float) (lux.x() / sum);
                        rgb[o + 1] += (float) (lux.y() / sum);
                        rgb[o + 2] += (float) (lux.z() / sum);
                    }
                }
        if (!(sum > area * 0.3)) throw new IllegalStateException("the sun missed every pixel");
        return rgb;
    }

    private static Vec3 sample(Panorama p, int x, int y) {
        double u = (x + 0.5) * p.width() / WIDTH - 0.5, v = (y + 0.5) * p.height() / (WIDTH / 2.0) - 0.5;
        int i = (int) Math.floor(u), j = Math.clamp((int) Math.floor(v), 0, p.height() - 2);
        double fx = u - i, fy = Math.clamp(v - j, 0, 1);
        double[] c = new double[3];
        for (int k = 0; k < 3; k++) {
            int a = Math.floorMod(i, p.width()), b = (a + 1) % p.width();
            double top = p.at(3 * (j * p.width() + a) + k) * (1 - fx) + p.at(3 * (j * p.width() + b) + k) * fx;
            double low = p.at(3 * ((j + 1) * p.width() + a) + k) * (1 - fx) + p.at(3 * ((j + 1) * p.width() + b) + k) * fx;
            c[k] = top * (1 - fy) + low * fy;
        }
        return new Vec3(c[0], c[1], c[2]);
    }

    /** About 12,000 lx; brighter to the zenith as the standard overcast sky (1 + 2 sin h) / 3. */
    private static float[] overcast() {
        return image((d, x, y) -> {
            if (d.z() <= 0) return new Vec3(0.95, 1, 0.9).times(760);
            double base = 4900 * (1 + 2 * d.z()) / 3, n = cloud(d, 0.8, 77), m = cloud(d, 2.2, 78);
            return new Vec3(0.95, 1.0, 1.09).times(base * (0.72 + 0.45 * n + 0.15 * m));
        });
    }

    private static double smooth(double a, double b, double x) {
        double t = Math.clamp((x - a) / (b - a), 0, 1);
        return t * t * (3 - 2 * t);
    }
}
