package bake.studio.live;

import bake.core.compiled.RenderScene;
import bake.core.denoise.Denoiser;
import bake.core.denoise.QuickDenoiser;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Finish;
import bake.core.finish.Look;
import bake.core.finish.LuxScale;
import bake.core.finish.Place;
import bake.core.finish.Seen;
import bake.core.path.LightPart;
import bake.core.scene.Camera;
import bake.formats.project.View;
import bake.studio.look.Looks;
import bake.studio.render.PictureOutput;
import bake.studio.scene.Levels;
import bake.studio.scene.SceneAssembly;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.stream.IntStream;

/**
 * Makes pictures of a film: mixes its light as levels and faders say, denoises it, and finishes it. What was denoised last serves again as
 * long as only the finish changes; a finish that takes longer than a hand waits is shown small first.
 */
final class FrameMaker {
    /** Seconds within which a change of the finish is to be seen, and those for which a hand rests before the whole is worth beginning. */
    private static final double SOON = 0.012, REST = 0.12;

    /** By how many times more passes a picture is better to see. */
    private static final double AGAIN = 1.4;

    /** The number of passes after which it is worth denoising anew what was denoised after {@code passes}. */
    static int next(int passes) {
        return (int) Math.ceil(AGAIN * passes);
    }

    /**
     * A film that is shown, with all that is needed to mix its light anew.
     *
     * @param fine whether it is denoised as one that is delivered, and not in a moment
     */
    record Shown(Film film, RenderScene scene, Camera camera, int passes, boolean fine, double noise, double seconds, long rays) {}

    /** How it is to be shown. */
    record Way(View view, Showing showing, Set<String> solo, int aimed) {
        boolean lux() {
            return showing == Showing.LUX;
        }

        boolean lit() {
            return lux() || showing == Showing.PICTURE || showing == Showing.CLAY || part() != null;
        }

        LightPart part() {
            return showing.part();
        }

        /** Factors by colour on the planes of a film; null for none. */
        float[] gains(RenderScene scene) {
            if (!lit()) return null;
            if (part() == null) return scene.lights().gains(Levels.of(view, scene.lights().groups(), solo));
            // Levels are in its light already.
            float[] one = new float[3 * LightPart.COUNT];
            Arrays.fill(one, 3 * part().ordinal(), 3 * part().ordinal() + 3, 1);
            return one;
        }
    }

    /** A finish with the tables that it takes; the last one serves as long as nothing of it changes. */
    private record Kept(double saturation, Look look, Finish finish) {}

    /** What was denoised last, and what its pixels show where that was asked for. */
    private record Clean(Film film, int passes, float[] gains, boolean fine, float[] light, Seen seen) {}

    /** Mean luminance of each plane of a film. */
    private record Means(Film film, int passes, double[] luminance) {}

    /** The same {@code k} times smaller each way. */
    private record Small(Clean of, int k, int w, int h, float[] light, Seen seen) {}

    private final SceneAssembly assembly;
    private final Consumer<LiveRender.Frame> frames;
    private volatile Kept kept;
    private volatile Clean clean;
    private volatile Small small;
    private volatile Means means;
    /** Seconds that the last whole finish took for a pixel. */
    private volatile double pixelCost;

    FrameMaker(SceneAssembly assembly, Consumer<LiveRender.Frame> frames) {
        this.assembly = assembly;
        this.frames = frames;
    }

    /** The view's look; a colour table that cannot be read is left out of the live picture, and said by whoever makes a proof. */
    private Look look(View v) {
        try {
            return Looks.of(assembly.folder(), v);
        } catch (java.io.IOException e) {
            return v.look();
        }
    }

    Finish finish(Camera c, Look look) {
        Kept k = kept;
        if (k == null || k.saturation != c.saturation() || !k.look.equals(look))
            kept = k = new Kept(c.saturation(), look, new Finish(c.saturation(), look));
        return k.finish;
    }

    /**
     * Hands over a picture of a film, its light mixed as is wanted now.
     *
     * @param soon whether nothing but mix and finish is new, so that a slow finish is shown small first
     * @return false when it was stopped
     */
    boolean show(Shown s, Way way, boolean soon, BooleanSupplier stop) {
        float[] gains = way.gains(s.scene());
        int w = s.film().width(), h = s.film().height();
        int[] argb;
        if (way.lux()) argb = lux(s.film(), gains, stop);
        else {
            Finish finish = finish(s.camera(), way.lit() ? look(way.view()) : Look.PLAIN);
            boolean fine = way.lit() && s.fine() && s.film().hasFeatures();
            Clean c = clean(s, gains, way.lit(), fine && !soon, finish, stop);
            if (c == null) return false;
            int k = soon ? (int) Math.ceil(Math.sqrt(pixelCost * w * h / SOON)) : 1;
            if (k > 1 && w / k > 8 && h / k > 8) {
                Small m = small(c, k, w, h);
                hand(s, way, gains, m.w, m.h, finish.argb(m.light, Place.whole(m.w, m.h), m.seen, stop));
                if (rests(stop)) return false;
            }
            long begun = System.nanoTime();
            argb = finish.argb(c.light(), Place.whole(w, h), c.seen(), stop);
            if (argb != null) pixelCost = (System.nanoTime() - begun) / 1e9 / w / h;
            if (fine && !c.fine() && argb != null) {
                // Mixed anew by a hand that may still move: seen at once, and as clean as before once the hand rests.
                hand(s, way, gains, w, h, argb);
                if (rests(stop)) return false;
                c = clean(s, gains, true, true, finish, stop);
                argb = c == null ? null : finish.argb(c.light(), Place.whole(w, h), c.seen(), stop);
            }
        }
        if (argb == null) return false;
        hand(s, way, gains, w, h, argb);
        return true;
    }

    /** Waits for a moment; whether it was stopped meanwhile. */
    private static boolean rests(BooleanSupplier stop) {
        for (int i = 0; i < 12; i++) {
            if (stop.getAsBoolean()) return true;
            java.util.concurrent.locks.LockSupport.parkNanos((long) (REST / 12 * 1e9));
        }
        return stop.getAsBoolean();
    }

    private void hand(Shown s, Way way, float[] gains, int w, int h, int[] argb) {
        if (argb == null) return;
        double[] light = way.lit() && way.part() == null ? means(s).clone() : new double[0];
        // A plane's mean luminance scales with what its gains do to white.
        if (gains != null)
            for (int g = 0; g < light.length; g++) light[g] *= 0.2126 * gains[3 * g] + 0.7152 * gains[3 * g + 1] + 0.0722 * gains[3 * g
                    + 2];
        var lights = s.scene().lights();
        double sun = lights.sunDirection() == null ? 0 : lights.sunIlluminance().luminance() * Math.max(0, lights.sunDirection().z());
        boolean spots = way.lit() && !way.lux() && way.part() == null || way.showing() == Showing.RECORDS;
        frames.accept(new LiveRender.Frame(w, h, argb, s.passes(), s.noise(), s.seconds(), s.rays() / Math.max(1e-9, s.seconds()),
                lights.groups(),
                light, way.part() == null ? new double[0] : means(s).clone(), way.aimed(), lights.dome().horizontalIlluminance(), sun,
                spots ? new Spots(s.scene(), s.camera(), s.film(), gains) : null));
    }

    /** A walk over the whole film, which a change of the finish need not wait for. */
    private double[] means(Shown s) {
        Means m = means;
        if (m == null || m.film != s.film() || m.passes != s.passes())
            means = m = new Means(s.film(), s.passes(), s.film().planeLuminance());
        return m.luminance;
    }

    /** @param fine whether it is worth the time of a delivered picture */
    private Clean clean(Shown s, float[] gains, boolean lit, boolean fine, Finish finish, BooleanSupplier stop) {
        Clean c = clean;
        Region all = Region.all(s.film().width(), s.film().height());
        if (c == null || c.film != s.film() || c.passes != s.passes() || !Arrays.equals(c.gains, gains) || fine && !c.fine) {
            float[] light = fine ? Denoiser.run(s.film(), gains, all, finish.saturation(), stop)
                    : PictureOutput.quickLight(s.film(), gains, all, lit, stop);
            c = light == null ? null : new Clean(s.film(), s.passes(), gains, fine, light, null);
        }
        if (c != null && c.seen == null) {
            Seen seen = finish.seen(s.film(), all);
            if (seen != null) c = new Clean(c.film, c.passes, c.gains, c.fine, c.light, seen);
        }
        // Only the last picture of a rendering may be shown once more; while passes go on the film is another one each time.
        return clean = c;
    }

    /** Made once for many changes of a finish, a little smaller than it must be: one that is about as small serves as well. */
    private Small small(Clean c, int least, int w, int h) {
        Small m = small;
        if (m != null && m.of == c && m.k >= least && m.k <= 2 * least) return m;
        int k = Math.min(least + least / 4, Math.min(w, h) / 8);
        int sw = w / k, sh = h / k;
        float[] light = shrunk(c.light(), 3, w, k, sw, sh);
        Seen seen = c.seen() == null ? null
                : new Seen(shrunk(c.seen().values(), 7, w, k, sw, sh), shrunk(c.seen().open(), 1, w, k, sw, sh));
        return small = new Small(c, k, sw, sh, light, seen);
    }

    /** Means of squares of {@code k} by {@code k} pixels; null for null. */
    private static float[] shrunk(float[] p, int n, int w, int k, int sw, int sh) {
        if (p == null) return null;
        float[] out = new float[n * sw * sh];
        float part = 1f / (k * k);
        IntStream.range(0, sh).parallel().forEach(row -> {
            for (int y = row * k; y < (row + 1) * k; y++)
                for (int x = 0, to = n * row * sw; x < sw; x++, to += n)
                    for (int from = n * (y * w + x * k), end = from + n * k; from < end; from += n)
                        for (int c = 0; c < n; c++) out[to + c] += part * p[from + c];
        });
        return out;
    }

    private static int[] lux(Film film, float[] gains, BooleanSupplier stop) {
        float[] clean = QuickDenoiser.run(film, gains, Region.all(film.width(), film.height()), stop);
        if (clean == null) return null;
        int[] out = new int[film.width() * film.height()];
        for (int i = 0; i < out.length; i++)
            out[i] = LuxScale.argb(0.2126 * clean[3 * i] + 0.7152 * clean[3 * i + 1] + 0.0722 * clean[3 * i + 2]);
        return out;
    }
}
