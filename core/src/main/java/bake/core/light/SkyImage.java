package bake.core.light;

import bake.core.math.Vec3;
import bake.core.scene.Panorama;
import java.util.stream.IntStream;

/** Tabulates the clear sky as a panorama. */
public final class SkyImage {
    private SkyImage() {}

    /**
     * The sky without the sun's disc, {@code width} by half of it. Rows crowd nothing: the panorama is plain
     * equirectangular, as every {@link Panorama}.
     *
     * @param toSun unit vector to the sun
     */
    public static Panorama clear(Atmosphere air, Vec3 toSun, int width) {
        int h = width / 2;
        float[] rgb = new float[3 * width * h];
        // The sky is symmetric about the sun's azimuth: half is computed, relative to it.
        double azimuth = Math.atan2(toSun.x(), toSun.y()), flat = Math.hypot(toSun.x(), toSun.y());
        Vec3 sun = new Vec3(0, flat, toSun.z());
        // Closer together towards the sun, where the sky changes most. Between them it is taken for straight.
        int half = Math.max(8, width * 3 / 20);
        float[] table = new float[3 * (half + 1) * h];
        IntStream.range(0, h).parallel().forEach(y -> {
            double theta = Math.PI * (y + 0.5) / h, s = Math.sin(theta), z = Math.cos(theta);
            // Far below the horizon there is only evenly lit ground: every other row will do.
            if (y > h * 5 / 8 && y % 2 == 1 && y < h - 1) return;
            SightLine line = air.sight(z);
            for (int x = 0; x <= half; x++) {
                Vec3 c = air.sky(line, s * Math.cos(Math.PI * x * x / (half * half)) * flat + z * sun.z(), sun.z());
                int o = 3 * (y * (half + 1) + x);
                table[o] = (float) c.x();
                table[o + 1] = (float) c.y();
                table[o + 2] = (float) c.z();
            }
        });
        int row = 3 * (half + 1);
        for (int y = h * 5 / 8 + 1; y < h - 1; y++)
            if (y % 2 == 1) for (int i = 0; i < row; i++) table[y * row + i] = 0.5f * (table[(y - 1) * row + i] + table[(y + 1) * row + i]);
        for (int y = 0; y < h; y++)
            for (int x = 0; x < width; x++) {
                double phi = 2 * Math.PI * ((x + 0.5) / width - 0.5) - azimuth;
                double a = Math.abs(Math.IEEEremainder(phi, 2 * Math.PI)) / Math.PI * half * half;
                int i = Math.min((int) Math.sqrt(a), half - 1), o = 3 * (y * (half + 1) + i);
                float f = (float) ((a - i * i) / (2 * i + 1));
                for (int c = 0; c < 3; c++) rgb[3 * (y * width + x) + c] = table[o + c] * (1 - f) + table[o + 3 + c] * f;
            }
        return new Panorama("clear sky", width, h, rgb);
    }
}
