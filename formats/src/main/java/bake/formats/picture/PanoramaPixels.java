package bake.formats.picture;

import bake.core.scene.Panorama;
import bake.formats.picture.exr.Reader;
import java.util.Arrays;
import java.util.concurrent.atomic.LongAdder;

/** A panorama in the reading: full or 16 bit floats, and what was negative in it. */
final class PanoramaPixels implements Reader.Sink {
    private static final float MOST = 1e9f;
    /** How far around a negative pixel its light may be taken from, pixels. */
    private static final int REACH = 12;

    private final int width, height;
    private final float[] full;
    private final short[] half;
    private final float unit;
    /** Places of values below zero, and the values; in the order of their coming. */
    private int[] below = new int[64];
    private float[] by = new float[64];
    private int count;
    private final LongAdder odd = new LongAdder();

    PanoramaPixels(int width, int height) {
        this.width = width;
        this.height = height;
        full = new float[3 * width * height];
        half = null;
        unit = 1;
    }

    PanoramaPixels(int width, int height, float unit) {
        this.width = width;
        this.height = height;
        full = null;
        half = new short[3 * width * height];
        this.unit = unit;
    }

    @Override
    public void row(int x, int y, float[] rgb, int n) {
        if (y < 0 || y >= height) return;
        for (int i = Math.max(0, -x); i < n && x + i < width; i++)
            for (int c = 0; c < 3; c++) {
                float v = rgb[3 * i + c];
                if (!Float.isFinite(v)) odd.increment();
                int at = 3 * (y * width + x + i) + c;
                if (v < 0 && v >= -MOST) keep(at, v);
                set(at, v > 0 ? Math.min(v, MOST) : 0);
            }
    }

    private synchronized void keep(int at, float v) {
        if (count == below.length) {
            below = Arrays.copyOf(below, 2 * count);
            by = Arrays.copyOf(by, 2 * count);
        }
        below[count] = at;
        by[count++] = v;
    }

    private float get(int i) {
        return full != null ? full[i] : unit * Float.float16ToFloat(half[i]);
    }

    private void set(int i, float v) {
        if (full != null) full[i] = v;
        else half[i] = Float.floatToFloat16(Math.min(v / unit, 65_504f));
    }

    /**
     * Negative values, as sharpening leaves them around a bright sun, take light away; simply cut they would add it. Each becomes what its
     * neighbours are at least, and the brightest value around gives the difference, by solid angle: no dark halo, and the same light.
     */
    void mend() {
        // Threads have brought them in any order.
        Integer[] order = new Integer[count];
        Arrays.setAll(order, i -> i);
        Arrays.sort(order, (a, b) -> Integer.compare(below[a], below[b]));
        for (int k : order) {
            int at = below[k], c = at % 3, x = at / 3 % width, y = at / 3 / width, brightest = -1;
            float most = 0, least = Float.POSITIVE_INFINITY;
            for (int j = Math.max(0, y - REACH); j <= Math.min(height - 1, y + REACH); j++)
                for (int i = x - REACH; i <= x + REACH; i++) {
                    int o = 3 * (j * width + Math.floorMod(i, width)) + c;
                    float v = get(o);
                    if (v > most) {
                        most = v;
                        brightest = o;
                    }
                    if (v > 0 && Math.abs(i - x) + Math.abs(j - y) <= 4) least = Math.min(least, v);
                }
            if (brightest < 0) continue;
            float fill = Float.isInfinite(least) ? 0 : least;
            double share = Math.sin(Math.PI * (y + 0.5) / height) / Math.sin(Math.PI * (brightest / 3 / width + 0.5) / height);
            double given = (fill - by[k]) * share;
            // Where there is not so much to take, the pixel stays black and only its own lack is made up.
            if (given > 0.5 * most) {
                fill = 0;
                given = Math.min(-by[k] * share, most);
            }
            set(at, fill);
            set(brightest, (float) (most - given));
        }
    }

    /** How many values were no finite numbers. */
    long odd() {
        return odd.sum();
    }

    Panorama panorama(String name) {
        return full != null ? new Panorama(name, width, height, full) : Panorama.packed(name, width, height, half, unit);
    }
}
