package bake.core.finish;

import bake.core.film.Film;
import bake.core.film.Region;
import java.util.function.BooleanSupplier;

/**
 * Turns scene light into the picture, in a fixed order (docs/finish.md): the sky's own light, exposure and white balance, fringe, glow
 * and vignette
 * of the lens, highlights and shadows, tone curve and transfer curve; then on what is displayed curves, colours, table, wash,
 * lines, sharpening and grain. Immutable.
 */
public final class Finish {
    private final double saturation;
    private final ToneResponse curve;
    private final Look look;
    private final PixelGrade grade;
    private final Gamut gamut;
    /** Linear sRGB to the gamut; null where that is sRGB. */
    private final float[] toGamut;

    /** Into sRGB. */
    public Finish(double saturation, Look look) {
        this(saturation, look, Gamut.SRGB);
    }

    /**
     * @param saturation luminance that saturates the camera, cd/m2
     * @param gamut whose codes the pictures are
     */
    public Finish(double saturation, Look look, Gamut gamut) {
        this.saturation = saturation;
        this.look = look;
        this.gamut = gamut;
        toGamut = gamut == Gamut.SRGB ? null : gamut.fromSrgb();
        curve = look.response();
        grade = new PixelGrade(saturation, look, toGamut != null);
    }

    /** The same finish in codes of another gamut. */
    public Finish in(Gamut g) {
        return g == gamut ? this : new Finish(saturation, look, g);
    }

    /** Luminance that saturates the camera, cd/m2. */
    public double saturation() {
        return saturation;
    }

    /** Display light 0 to 1, before the transfer curve, of a luminance that is {@code l} of the saturating one. */
    double display(double l) {
        return curve.apply(l);
    }

    /** What is displayed of a luminance, cd/m2: 0 to 1, before the transfer curve. */
    public double displayed(double luminance) {
        return curve.apply(luminance / saturation);
    }

    /** How much what is displayed, 0 to 1 before the transfer curve, changes with a luminance, per cd/m2. */
    public double displayedSlope(double luminance) {
        return curve.slope(luminance / saturation) / saturation;
    }

    /** sRGB codes as 0xAARRGGBB of the whole film, row by row; pixels with no sample are transparent. */
    public int[] argb(Film film, float[] gains) {
        Region all = Region.all(film.width(), film.height());
        int[] out = argb(light(film, gains, all), Place.whole(film.width(), film.height()), seen(film, all));
        for (int i = 0; i < out.length; i++) if (film.samples(i % film.width(), i / film.width()) == 0) out[i] = 0;
        return out;
    }

    /** What lines are drawn from and the sky is known by; null where nothing needs it. */
    public Seen seen(Film film, Region r) {
        return look.drawing().outline() > 0 || !look.sky().equals(Look.Sky.NONE) ? Seen.of(film, r) : null;
    }

    private float[] withSky(float[] rgb, Place at, Seen seen) {
        boolean none = look.sky().equals(Look.Sky.NONE) || seen == null || seen.open() == null;
        return none ? rgb : SkyGrade.run(rgb, at.w(), at.h(), seen.open(), look.sky());
    }

    /** Codes of light such as a denoiser gives, cd/m2, three colours for each pixel. */
    public int[] argb(float[] light, Place at, Seen seen) {
        return argb(light, at, seen, () -> false);
    }

    /**
     * The same.
     *
     * @param stop asked between steps
     * @return null when it was stopped
     */
    public int[] argb(float[] light, Place at, Seen seen, BooleanSupplier stop) {
        float[] rgb = withSky(light, at, seen);
        int n = rgb.length / 3;
        int[] out = new int[n];
        if (look.spatial()) {
            float[] p = developed(rgb, at, seen, stop);
            if (p == null) return null;
            Rows.each(at.h(), y -> {
                for (int i = y * at.w(); i < (y + 1) * at.w(); i++) out[i] = code8(p, 3 * i);
            });
        } else if (grade.simple()) Rows.each(at.h(), y -> {
            for (int i = y * at.w(); i < (y + 1) * at.w(); i++) out[i] = grade.code(rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]);
        });
        else rows(rgb, at, (c, i, k) -> out[i] = code8(c, k));
        return out;
    }

    /** Codes 0 to 65535 of such light. */
    public short[] rgb16(float[] light, Place at, Seen seen) {
        float[] rgb = withSky(light, at, seen);
        short[] out = new short[rgb.length];
        if (look.spatial()) {
            float[] p = developed(rgb, at, seen, () -> false);
            Rows.each(at.h(), y -> {
                for (int i = 3 * y * at.w(); i < 3 * (y + 1) * at.w(); i++) out[i] = code16(p[i]);
            });
        } else rows(rgb, at, (c, i, k) -> {
            for (int j = 0; j < 3; j++) out[3 * i + j] = code16(c[k + j]);
        });
        return out;
    }

    /** Takes the display values of a pixel, three from {@code k} on. */
    private interface Pixel {
        void take(float[] c, int i, int k);
    }

    /** Row by row, each step on a whole row. */
    private void rows(float[] rgb, Place at, Pixel each) {
        Rows.each(at.h(), y -> {
            int w = at.w();
            float[] c = java.util.Arrays.copyOfRange(rgb, 3 * y * w, 3 * (y + 1) * w);
            grade.scene(c, 0, c.length);
            grade.tones(c, 0, c.length);
            grade.display(c, 0, c.length);
            if (toGamut != null) gamut.encoded(c, 0, c.length, toGamut);
            for (int x = 0; x < w; x++) each.take(c, y * w + x, 3 * x);
        });
    }

    /** All steps, to display values 0 to 1; null when stopped in between. */
    private float[] developed(float[] rgb, Place at, Seen seen, BooleanSupplier stop) {
        float[] q = rgb.clone();
        Look.Optics o = look.optics();
        Look.Drawing d = look.drawing();
        Rows.each(at.h(), y -> grade.scene(q, 3 * y * at.w(), 3 * (y + 1) * at.w()));
        float[] p = o.fringe() != 0 ? LensEffects.fringe(q, at, o.fringe()) : q;
        if (o.glow() > 0) Glow.add(p, at.w(), at.h(), o.glow(), o.glowSize() * at.height() / at.h());
        if (stop.getAsBoolean()) return null;
        if (o.vignette() > 0) LensEffects.vignette(p, at, o.vignette());
        Rows.each(at.h(), y -> {
            grade.tones(p, 3 * y * at.w(), 3 * (y + 1) * at.w());
            grade.display(p, 3 * y * at.w(), 3 * (y + 1) * at.w());
        });
        if (stop.getAsBoolean()) return null;
        float[] r = d.wash() > 0 ? Wash.run(p, at.w(), at.h(), d.wash(), d.washSize() * 1e-3 * at.height()) : p;
        if (stop.getAsBoolean()) return null;
        if (d.outline() > 0 && seen != null && seen.values() != null) Outline.draw(r, at, seen, d);
        if (stop.getAsBoolean()) return null;
        float[] s = o.sharpen() > 0 ? LensEffects.sharpen(r, at.w(), at.h(), o.sharpen()) : r;
        if (o.grain() > 0) LensEffects.grain(s, at, o.grain(), o.grainSize());
        if (toGamut != null) Rows.each(at.h(), y -> gamut.encoded(s, 3 * y * at.w(), 3 * (y + 1) * at.w(), toGamut));
        return s;
    }

    /** Light of a region, cd/m2, three colours for each pixel. */
    public static float[] light(Film film, float[] gains, Region r) {
        float[] out = new float[3 * r.width() * r.height()];
        Rows.each(r.height(), y -> {
            float[] c = new float[3];
            for (int x = 0; x < r.width(); x++) {
                film.mean(r.x() + x, r.y() + y, gains, c);
                System.arraycopy(c, 0, out, 3 * (y * r.width() + x), 3);
            }
        });
        return out;
    }

    /** Colour temperature and tint of the light that makes a colour grey; null where there is none. */
    public static double[] balanceOf(float[] rgb) {
        return WhiteBalance.of(rgb);
    }

    private static short code16(float v) {
        return (short) Math.clamp(Math.round(65535 * v), 0, 65535);
    }

    private static int code8(float[] c, int o) {
        return 0xff000000 | code8(c[o]) << 16 | code8(c[o + 1]) << 8 | code8(c[o + 2]);
    }

    private static int code8(float v) {
        return Math.clamp((int) (255 * v + 0.5f), 0, 255);
    }

    /**
     * Noise of the picture: estimated relative standard error after the tone curve, root of the mean square over the
     * region, in percent. Infinite before the second pass.
     */
    public double noise(Film film, Region r) {
        double error = 0, signal = 0;
        float[] c = new float[3];
        long n = 0;
        for (int y = r.y(); y < r.y() + r.height(); y++)
            for (int x = r.x(); x < r.x() + r.width(); x++) {
                if (film.samples(x, y) < 2) continue;
                double e = error(film, x, y, c), d = curve.apply(luminance(film, x, y, c));
                error += e * e;
                signal += d * d;
                n++;
            }
        if (n == 0) return Double.POSITIVE_INFINITY;
        return signal > 0 ? 100 * Math.sqrt(error / signal) : 0;
    }

    private double luminance(Film film, int x, int y, float[] c) {
        film.mean(x, y, null, c);
        return (0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2]) / saturation;
    }

    /**
     * Estimated standard error of a pixel as it is displayed, before the transfer curve, 0 to 1.
     *
     * @param c room for three numbers
     */
    public double error(Film film, int x, int y, float[] c) {
        double l = luminance(film, x, y, c), d = curve.apply(l);
        // The curve bends within one standard error of bright noise; the display cannot move by more than itself.
        return Math.min(curve.slope(l) * Math.sqrt(film.variance(x, y)) / saturation, Math.max(d, 1 - d));
    }
}
