package bake.core.film;

import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.function.Consumer;

/**
 * What the paths of a picture add up to: linear luminance by colour for each plane (a plane holds one or more source
 * groups), the number of samples of each pixel, and what is needed for its variance.
 *
 * <p>Different pixels may be written by different threads at the same time; one pixel only by one.
 */
public final class Film {
    /** Larger pictures do without features, and so without denoising, to spare memory. */
    private static final long MOST_FEATURES = 40_000_000;
    private static final double[] RATES = new double[128];

    static {
        for (int i = 0; i < RATES.length; i++) RATES[i] = Math.pow(2, (i - 64) / 8.0);
    }

    private final int width, height, planes, backdrop;
    /** The part that is kept. */
    private final Region kept;
    private final int[] planeOf;
    private final float[] sums;
    private final float[] squares;
    /** The same for what lies before the backdrop; null where that is not kept apart. */
    private final float[] frontSquares;
    private final int[] counts;
    /** Seven a pixel: sums of base colour, normal and distance of what was met first; null where not kept. */
    private final float[] features;
    /** How many of these were looks that brought no light; null where none are kept. */
    private final byte[] looks;
    /** Two a pixel: sums of how much of the backdrop is covered, and of its square. */
    private final float[] cover;
    /** How many paths a pass pixels are to get, as {@link #rate} says it; 0 where that is not decided. */
    private final byte[] rates;
    /** Rays that its paths took. */
    private final float[] rays;
    /** Three a pixel: light of all planes that every second sample found; null where no features are kept. */
    private final float[] odd;

    /** What glows and is seen straight where its edges are; null as long as that was not looked for. */
    private SeenGlow glow;

    /**
     * @param planeOf plane of each source group, 0 to planes - 1
     * @throws IllegalArgumentException when the size is not between 1x1 and what memory can index
     */
    public Film(int width, int height, int[] planeOf) {
        this(width, height, planeOf, Region.all(width, height));
    }

    /** The same, keeping only a part of the picture in memory; nothing else may be asked for or added. */
    public Film(int width, int height, int[] planeOf, Region kept) {
        this(width, height, planeOf, kept, -1);
    }

    /** @param backdrop plane of what lies behind the model, which is to be left out of picture files; -1 for none */
    private Film(int width, int height, int[] planeOf, Region kept, int backdrop) {
        this.kept = kept;
        this.backdrop = backdrop;
        if (width < 1 || height < 1) throw new IllegalArgumentException("a picture needs at least one pixel, not " + width + "x" + height);
        this.width = width;
        this.height = height;
        this.planeOf = planeOf.clone();
        int most = 0;
        for (int p : planeOf) most = Math.max(most, p);
        planes = most + 1;
        long pixels = (long) kept.width() * kept.height(), floats = 3L * planes * pixels;
        if (floats > Integer.MAX_VALUE - 16)
            throw new IllegalArgumentException("a picture of " + kept.width() + "x" + kept.height() + " pixels is too large to hold");
        sums = new float[(int) floats];
        squares = new float[(int) pixels];
        frontSquares = backdrop >= 0 ? new float[(int) pixels] : null;
        counts = new int[(int) pixels];
        rates = new byte[(int) pixels];
        rays = new float[(int) pixels];
        cover = new float[(int) (2 * pixels)];
        features = pixels <= MOST_FEATURES ? new float[(int) (7 * pixels)] : null;
        looks = features == null ? null : new byte[(int) pixels];
        odd = features == null ? null : new float[(int) (3 * pixels)];
    }

    /** Bytes that a film takes for each pixel that it keeps, features included. */
    public static int bytesPerPixel(int planes) {
        return 4 * (3 * planes + 6 + 7 + 3) + 2;
    }

    private int at(int x, int y) {
        return (y - kept.y()) * kept.width() + x - kept.x();
    }

    /** The part of the picture that is kept. */
    public Region kept() {
        return kept;
    }

    /** Hands out all that was added so far, piece by piece, to be put back by {@link #load} of a film alike. */
    public void save(Consumer<ByteBuffer> out) {
        Floats.write(out, sums);
        Floats.write(out, squares);
        if (frontSquares != null) Floats.write(out, frontSquares);
        Floats.write(out, counts);
        out.accept(ByteBuffer.wrap(rates));
        Floats.write(out, rays);
        Floats.write(out, cover);
        Floats.write(out, new int[] {glow == null ? -1 : glow.kept()});
        if (glow != null) glow.save(out);
        if (features == null) return;
        Floats.write(out, features);
        out.accept(ByteBuffer.wrap(looks));
        Floats.write(out, odd);
    }

    /**
     * Takes what {@link #save} handed out, in place of all that was added so far.
     *
     * @param in fills each buffer up to its limit
     */
    public void load(Consumer<ByteBuffer> in) {
        Floats.read(in, sums);
        Floats.read(in, squares);
        if (frontSquares != null) Floats.read(in, frontSquares);
        Floats.read(in, counts);
        in.accept(ByteBuffer.wrap(rates));
        Floats.read(in, rays);
        Floats.read(in, cover);
        int[] n = new int[1];
        Floats.read(in, n);
        if (n[0] < -1 || n[0] > counts.length) throw new IllegalArgumentException(n[0] + " pixels of " + counts.length);
        glow = n[0] < 0 ? null : SeenGlow.load(in, counts.length, planes, n[0]);
        if (features == null) return;
        Floats.read(in, features);
        in.accept(ByteBuffer.wrap(looks));
        Floats.read(in, odd);
    }

    /** A film whose groups all share one plane. */
    public static Film merged(int width, int height, int groups) {
        return new Film(width, height, new int[groups]);
    }

    /**
     * A film with one plane for all groups, or two when one of them is a backdrop that is to be left out of picture files.
     *
     * @param backdrop the group that lies behind the model, or -1
     */
    public static Film apart(int width, int height, int groups, int backdrop, Region kept) {
        int[] p = new int[groups];
        if (backdrop >= 0) p[backdrop] = 1;
        return new Film(width, height, p, kept, backdrop >= 0 ? 1 : -1);
    }

    /** Factors for planes that leave the backdrop out; null where it is not kept apart. */
    public float[] front() {
        if (backdrop < 0) return null;
        float[] out = new float[3 * planes];
        for (int i = 0; i < out.length; i++) out[i] = i / 3 == backdrop ? 0 : 1;
        return out;
    }

    /** A film that keeps each group apart. */
    public static Film byGroup(int width, int height, int groups) {
        return split(width, height, groups, 1, Split.SOURCES);
    }

    /** What of a picture's light a film keeps apart: by source, by its way to the camera, both, or nothing. */
    public enum Split {
        NONE, SOURCES, PARTS, BOTH;

        public static Split of(boolean sources, boolean parts) {
            return parts ? sources ? BOTH : PARTS : sources ? SOURCES : NONE;
        }

        public boolean sources() {
            return this == SOURCES || this == BOTH;
        }

        public boolean parts() {
            return this == PARTS || this == BOTH;
        }
    }

    /**
     * A film that keeps light apart: a plane for each source group, for each of some parts, or for each of both, part by part.
     *
     * @param parts how many parts the light of a sample comes in, one after the other
     */
    public static Film split(int width, int height, int groups, int parts, Split how) {
        int[] p = new int[how.parts() ? groups * parts : groups];
        for (int i = 0; i < p.length; i++) p[i] = i / groups * (how.sources() ? groups : 1) + (how.sources() ? i % groups : 0);
        return new Film(width, height, p);
    }

    /** How many colours a sample brings: source groups, or those of each part. */
    public int inputs() {
        return planeOf.length;
    }

    public int width() {
        return width;
    }

    public int height() {
        return height;
    }

    public int planes() {
        return planes;
    }

    /**
     * Keeps what glows and is seen straight apart from now on, at some pixels: x and y in turn. To be said before the first sample.
     */
    public void keepGlow(int[] pixels) {
        int[] all = new int[pixels.length / 2];
        for (int i = 0; i < all.length; i++) all[i] = at(pixels[2 * i], pixels[2 * i + 1]);
        glow = new SeenGlow(counts.length, planes, all);
    }

    /** Whether samples of a pixel bring only the rest. */
    public boolean keepsGlow(int x, int y) {
        return glow != null && glow.keeps(at(x, y));
    }

    /** Adds what a sample or a look has seen glow, cd/m2; {@code input} is its place among the colours of a sample. */
    public void addGlow(int x, int y, int input, float r, float g, float b) {
        glow.add(at(x, y), planeOf[input], r, g, b);
    }

    /** Counts looks of a pixel that brought no light but glow. */
    public void looked(int x, int y, int times) {
        glow.looked(at(x, y), times);
    }

    private float glow(int i, int plane, int colour) {
        return glow == null || !glow.keeps(i) ? 0 : glow.mean(i, plane, colour, counts[i]);
    }

    /** Adds one sample; {@code groups} holds three colours for each source group. */
    public void add(int x, int y, float[] groups) {
        int i = at(x, y), o = 3 * planes * i;
        float l = 0, behind = 0;
        boolean half = odd != null && (counts[i] & 1) == 1;
        for (int g = 0; g < planeOf.length; g++) {
            float r = groups[3 * g], gr = groups[3 * g + 1], b = groups[3 * g + 2];
            int p = o + 3 * planeOf[g];
            sums[p] += r;
            sums[p + 1] += gr;
            sums[p + 2] += b;
            float here = 0.2126f * r + 0.7152f * gr + 0.0722f * b;
            l += here;
            if (planeOf[g] == backdrop) behind += here;
            if (!half) continue;
            odd[3 * i] += r;
            odd[3 * i + 1] += gr;
            odd[3 * i + 2] += b;
        }
        squares[i] += l * l;
        if (frontSquares != null) frontSquares[i] += (l - behind) * (l - behind);
        counts[i]++;
    }

    /** Adds the rays that a path took. */
    public void addRays(int x, int y, long n) {
        rays[at(x, y)] += n;
    }

    /** Rays that a path of a pixel takes on average; 1 where none is known. */
    public double raysAPath(int x, int y) {
        int i = at(x, y);
        return counts[i] == 0 || rays[i] <= 0 ? 1 : rays[i] / counts[i];
    }

    /** Paths a pass that a pixel is to get from now on, in eighths of a power of two from 1 on, -63 to 63. */
    public void setRate(int x, int y, int eighths) {
        rates[at(x, y)] = (byte) (Math.clamp(eighths, -63, 63) + 64);
    }

    /** Paths a pass that a pixel is to get; 1 where nothing was decided. */
    public double rate(int x, int y) {
        int r = rates[at(x, y)] & 127;
        return r == 0 ? 1 : RATES[r];
    }

    /** Adds how much of the backdrop one sample's path found covered. */
    public void addCover(int x, int y, float covered) {
        int i = 2 * at(x, y);
        cover[i] += covered;
        cover[i + 1] += covered * covered;
    }

    /** Adds what one sample's path met first: base colour, unit normal, distance in metres. */
    public void addFeatures(int x, int y, float[] f) {
        if (features == null) return;
        int o = 7 * at(x, y);
        for (int k = 0; k < 7; k++) features[o + k] += f[k];
    }

    /** Adds what a look met first that brings no light, at most 255 of them: what a pixel shows is then known better than its light. */
    public void addLook(int x, int y, float[] f) {
        if (features == null || looks[at(x, y)] == (byte) 255) return;
        addFeatures(x, y, f);
        looks[at(x, y)]++;
    }

    /** Forgets all looks, of a film that has no samples. */
    public void forgetLooks() {
        glow = null;
        if (features == null) return;
        Arrays.fill(features, 0);
        Arrays.fill(looks, (byte) 0);
    }

    /** Looks of a pixel so far. */
    public int looks(int x, int y) {
        return looks == null ? 0 : looks[at(x, y)] & 255;
    }

    /**
     * Mean light of every second sample of a pixel, all planes together, into {@code out}, cd/m2; with fewer than two
     * samples the mean of all.
     * The other half is what is left of {@link #mean(int, int, float[], float[])}: both are noisy independently of each other.
     */
    public void half(int x, int y, float[] out) {
        int i = at(x, y), n = counts[i] / 2;
        if (n == 0) {
            mean(x, y, null, out);
            return;
        }
        for (int c = 0; c < 3; c++) out[c] = odd[3 * i + c] / n;
        if (glow == null || !glow.keeps(i)) return;
        for (int p = 0; p < planes; p++) for (int c = 0; c < 3; c++) out[c] += glow.mean(i, p, c, counts[i]);
    }

    /** How much of the backdrop is covered at a pixel, 0 to 1: by surfaces, and by the shadow on shadow catchers. */
    public float cover(int x, int y) {
        int i = at(x, y);
        return counts[i] > 0 ? Math.clamp(cover[2 * i] / counts[i], 0f, 1f) : 0;
    }

    /** Estimated variance of that; 0 below two samples. */
    public float coverVariance(int x, int y) {
        int i = at(x, y), n = counts[i];
        return n < 2 ? 0 : Math.max(0, cover[2 * i + 1] - cover[2 * i] * cover[2 * i] / n) / (n - 1f) / n;
    }

    public boolean hasFeatures() {
        return features != null;
    }

    /** Mean features of a pixel into {@code out[0..6]}. */
    public void features(int x, int y, float[] out) {
        int i = at(x, y), n = counts[i] + (looks[i] & 255);
        float k = n > 0 ? 1f / n : 0;
        for (int c = 0; c < 7; c++) out[c] = features[7 * i + c] * k;
    }

    public int samples(int x, int y) {
        return counts[at(x, y)];
    }

    /** Mean of one plane at a pixel into {@code out}, cd/m2 by colour; zero where nothing was rendered. */
    public void mean(int x, int y, int plane, float[] out) {
        int i = at(x, y), o = 3 * (planes * i + plane);
        float k = counts[i] > 0 ? 1f / counts[i] : 0;
        out[0] = sums[o] * k + glow(i, plane, 0);
        out[1] = sums[o + 1] * k + glow(i, plane, 1);
        out[2] = sums[o + 2] * k + glow(i, plane, 2);
    }

    /**
     * Mean of all planes at a pixel, each with its gain.
     *
     * @param gains three factors for each plane, or null for one
     */
    public void mean(int x, int y, float[] gains, float[] out) {
        int i = at(x, y), o = 3 * planes * i;
        float k = counts[i] > 0 ? 1f / counts[i] : 0, r = 0, g = 0, b = 0;
        for (int p = 0; p < planes; p++) {
            r += sums[o + 3 * p] * (gains == null ? 1 : gains[3 * p]);
            g += sums[o + 3 * p + 1] * (gains == null ? 1 : gains[3 * p + 1]);
            b += sums[o + 3 * p + 2] * (gains == null ? 1 : gains[3 * p + 2]);
        }
        out[0] = r * k;
        out[1] = g * k;
        out[2] = b * k;
        if (glow == null || !glow.keeps(i)) return;
        for (int p = 0; p < planes; p++)
            for (int c = 0; c < 3; c++) out[c] += glow.mean(i, p, c, counts[i]) * (gains == null ? 1 : gains[3 * p + c]);
    }

    /** Estimated variance of the pixel's mean luminance, (cd/m2)^2; infinite below two samples. */
    public double variance(int x, int y) {
        return variance(x, y, squares, -1);
    }

    /** The same for what lies before the backdrop, where that is kept apart. */
    public double frontVariance(int x, int y) {
        return variance(x, y, frontSquares, backdrop);
    }

    private double variance(int x, int y, float[] squares, int without) {
        int i = at(x, y), n = counts[i];
        if (n < 2) return Double.POSITIVE_INFINITY;
        double l = 0;
        for (int p = 0; p < planes; p++) {
            if (p == without) continue;
            int o = 3 * (planes * i + p);
            l += 0.2126 * sums[o] + 0.7152 * sums[o + 1] + 0.0722 * sums[o + 2];
        }
        double seen = glow != null && glow.keeps(i) ? glow.variance(i, n) : 0;
        return Math.max(0, squares[i] - l * l / n) / (n - 1.0) / n + seen;
    }

    /** Total samples taken. */
    public long samples() {
        long n = 0;
        for (int c : counts) n += c;
        return n;
    }

    /** Mean luminance of each plane over the rendered pixels, cd/m2. */
    public double[] planeLuminance() {
        double[] out = new double[planes];
        float[] c = new float[3];
        int n = 0;
        for (int y = kept.y(); y < kept.y() + kept.height(); y++)
            for (int x = kept.x(); x < kept.x() + kept.width(); x++) {
                if (counts[at(x, y)] == 0) continue;
                n++;
                for (int p = 0; p < planes; p++) {
                    mean(x, y, p, c);
                    out[p] += 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
                }
            }
        for (int p = 0; p < planes; p++) out[p] /= Math.max(1, n);
        return out;
    }
}
