package bake.formats.picture;

import bake.core.scene.Panorama;
import bake.formats.FormatException;
import bake.formats.picture.exr.Reader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;
import java.util.function.LongConsumer;

/** Reads an HDRI for use as light. Panoramas wider than 8192 are kept in 16 bit floats. */
public final class PanoramaReader {
    private static final int MOST_FULL = 8192;
    private static final float MOST = 1e9f;

    private PanoramaReader() {}

    public static Panorama read(Path file) throws IOException {
        return read(file, d -> {}, () -> false);
    }

    /**
     * The same, saying how far it is.
     *
     * @param done told the share that is read, 0 to 1
     * @param stop asked now and then; true gives up with a message
     */
    public static Panorama read(Path file, DoubleConsumer done, BooleanSupplier stop) throws IOException {
        return read(file, done, stop, n -> {});
    }

    /** @param odd told how many values were no finite numbers; such are black, those that are endless as bright as may be */
    public static Panorama read(Path file, DoubleConsumer done, BooleanSupplier stop, LongConsumer odd) throws IOException {
        String name = file.getFileName().toString();
        boolean exr = exr(name);
        PanoramaPixels[] out = new PanoramaPixels[1];
        float[] unit = {1};
        int[] size = new int[2];
        rows(file, exr, (w, h) -> {
            check(name, w, h);
            size[0] = w;
            size[1] = h;
            if (w > MOST_FULL) return brightest(unit);
            out[0] = new PanoramaPixels(w, h);
            return out[0];
        }, done, stop);
        if (out[0] == null) {
            // The brightest value sets the step of the small floats; then it is read again.
            out[0] = new PanoramaPixels(size[0], size[1], Math.max(1, Math.scalb(1f, Math.getExponent(unit[0] / 65_504f) + 1)));
            PanoramaPixels p = out[0];
            rows(file, exr, (w, h) -> p, done, stop);
        }
        out[0].mend();
        odd.accept(out[0].odd());
        return out[0].panorama(name);
    }

    private static boolean exr(String name) throws FormatException {
        String lower = name.toLowerCase(Locale.ROOT);
        if (lower.endsWith(".exr")) return true;
        if (lower.endsWith(".hdr") || lower.endsWith(".pic")) return false;
        throw new FormatException(name, null, "a panorama is an .hdr or .exr file");
    }

    private static void rows(Path file, boolean exr, Reader.Begin begin, DoubleConsumer done, BooleanSupplier stop) throws IOException {
        if (exr) Reader.read(file, begin, done, stop);
        else HdrFile.read(file, begin, done, stop);
    }

    private static void check(String name, int w, int h) throws FormatException {
        if (w < 2 || w != 2 * h) throw new FormatException(name, null,
                "is " + w + "x" + h + "; an equirectangular panorama is twice as wide as high");
    }

    private static Reader.Sink brightest(float[] most) {
        AtomicInteger bits = new AtomicInteger(Float.floatToIntBits(most[0]));
        return (x, y, rgb, n) -> {
            float m = 0;
            for (int i = 0; i < 3 * n; i++) if (rgb[i] > m) m = Math.min(rgb[i], MOST);
            // Positive floats are in the order of their bits.
            int now = bits.accumulateAndGet(Float.floatToIntBits(m), Math::max);
            synchronized (most) {
                most[0] = Math.max(most[0], Float.intBitsToFloat(now));
            }
        };
    }
}
