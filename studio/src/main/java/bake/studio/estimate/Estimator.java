package bake.studio.estimate;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.render.EngineSettings;
import bake.studio.render.NoiseFall;
import bake.studio.render.RenderJob;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BooleanSupplier;

/**
 * Predicts pictures. Passes take time in proportion to their pixels, noise falls with a power of the passes that is seen while they are
 * made, caches grow with a power of the pixels that was measured (docs/performance.md). What a pass takes and how noisy one is comes from
 * pictures of the same view that were
 * made here, or from a small one that is made now; how far predictions of that kind were off so far mends them and gives the range.
 */
public final class Estimator {
    /** Width of the small picture, pixels; the longest that its passes are measured, seconds, and the fewest. */
    private static final int SMALL = 240, FEWEST = 6;
    private static final double SECONDS = 4;
    /**
     * Caches grow as (pixels + a constant) to a power: 28 s for 0.04 million, 52 for 0.16, 108 for 0.65, 448 s for 7.7 in one room with
     * 1,600 rays; with few rays they grow faster.
     */
    private static final double CACHE_GROWTH = 0.7, CACHE_LEAST = 60_000;
    /**
     * Rays of a record in whose time all else is made that comes before passes: 8.1 and 22.4, 4.5 and 17.5 s for 200 and 1,600 in two
     * rooms.
     */
    private static final double CACHE_RAYS = 450;
    /**
     * Seconds to denoise and save a million pixels where no picture has told, judging counted by what it denoises: 16 s to denoise two
     * million, 0.9 s to save half a million.
     */
    private static final double FINISH = 10;
    /**
     * Pixels, as the root of their number, at which half of the error that is left after denoising is of what is too small for them, which
     * more of them take away: 5.5, 3.6, 2.8 and 2.1 % at 240, 480, 960 and 3307 pixels wide in a room. Leaves and brick have edges at every
     * size: 3.8, 3.2, 3.5 and 3.3 % at 240, 480, 1280 and 3840. Rooms behind glass lie between: 5.9, 5.2 and 3.8 % at 240, 480 and 1280.
     */
    private static final double ROOM = 450, BEHIND_GLASS = 150, OUTDOORS = 40;
    /**
     * With which power of the pixels the time that a pixel takes falls where records are read, which more pixels share: 12, 9.5, 8.5 and 7
     * microseconds at those sizes; outdoors it does not.
     */
    private static final double SHARED = 0.1;
    /**
     * With which power of the pixels falls what the first passes take for a pixel beyond others, mostly looks at edges: 38, 33, 23 and 13
     * microseconds at 480, 960, 1280 and 3840 pixels wide outdoors, where nearly all is edges.
     */
    private static final double LINES = 0.25;
    /** Spread of predictions before any was checked, as factors. */
    private static final double[] UNSURE = {1.45, 1.2};
    private static final int RECENT = 24;
    /** Shorter pictures say nothing about longer ones, seconds. */
    private static final double TELLING = 2;
    /** A small picture whose rays took so many times as long as those of most others was made while the machine did something else. */
    private static final double HICCUP = 2;

    /**
     * Seconds that the first picture of a process takes more than another, nearly all before its passes: 14.6 for 8.1 and 9.0 for 4.5 in
     * two rooms on a slow day.
     */
    private static final double START = 4;

    private final WorkLog log;
    private final double start;
    /** Small pictures made so far. */
    private final Map<String, Costs> probes = new ConcurrentHashMap<>();

    public Estimator(WorkLog log) {
        this(log, false);
    }

    /** @param first whether what is predicted is made by a process of its own, as on the command line */
    public Estimator(WorkLog log, boolean first) {
        this.log = log;
        start = first ? START : 0;
    }

    /** What a picture took before its passes, less what its process took to begin. */
    private static double caches(RenderJob j) {
        double seconds = j.phases().caches();
        return j.first() ? Math.max(seconds / 2, seconds - START) : seconds;
    }

    /**
     * What is known of the cost of a view.
     *
     * @param pass seconds of a pass for a pixel, {@code cold} what the first ones take beyond that, for a pixel
     * @param noise percent after {@code passes} of a picture of so many pixels, {@code falling} with this power of them
     * @param rate rays of a small picture in a second, 0 of others
     */
    private record Costs(double pass, double cold, double passes, double noise, long noisePixels, double falling, double caches,
            long cachePixels, int rays, boolean probed, int pictures, double rate) {
        /** Seconds of a pass of another size. Where caches cost next to nothing there is little in them to share. */
        double pass(double pixels) {
            return pass * pixels * (caches > 4 * pass * cachePixels ? Math.pow(cachePixels / pixels, SHARED) : 1);
        }

        /** Seconds that the first passes of another size take beyond others. */
        double cold(double pixels) {
            return cold * pixels * Math.min(1, Math.pow(cachePixels / pixels, LINES));
        }

        /** Seconds of caches of another size, whose records gather with other rays. */
        double caches(Preset p, double pixels) {
            double more = rays > 0 ? (EngineSettings.bounced(p).gatherRays() + CACHE_RAYS) / (rays + CACHE_RAYS) : 1;
            return caches * more * Math.pow((pixels + CACHE_LEAST) / (cachePixels + CACHE_LEAST), CACHE_GROWTH);
        }

        /** After those passes in a picture of another size, of which denoising leaves less the more pixels show the same thing. */
        double noise(Preset p, double pixels) {
            if (!p.aimsAtDenoised()) return noise;
            double small = switch (p.setting()) {
                case "exterior" -> OUTDOORS;
                case "dusk" -> BEHIND_GLASS;
                default -> ROOM;
            };
            return noise * (1 + small / Math.sqrt(pixels)) / (1 + small / Math.sqrt(noisePixels));
        }
    }

    /**
     * Predicts a picture; takes some seconds where none like it was made before.
     *
     * @param scene the compiled scene of the view; asked for only when a small picture has to be made
     * @param size pixels: width, height
     * @param stop gives up
     * @return null when it was stopped
     */
    public Estimate of(Project project, Path folder, View v, Preset p, int[] size, Compiled scene, Workers workers, BooleanSupplier stop)
            throws IOException {
        List<Work> all = log.list();
        String key = Work.scene(project, folder, v), solvers = Work.solvers(p);
        Costs c = known(all, key, solvers, workers.threads());
        if (c == null) {
            c = probe(v, p, size, scene.scene(), workers, stop);
            if (c != null) probes.put(key + solvers + workers.threads(), c);
        }
        return c == null ? null : predicted(c, all, p, size, solvers);
    }

    /** The same where a like picture was made before; null where only a small picture would tell. */
    public Estimate quick(Project project, Path folder, View v, Preset p, int[] size, int threads) throws IOException {
        List<Work> all = log.list();
        Costs c = known(all, Work.scene(project, folder, v), Work.solvers(p), threads);
        return c == null ? null : predicted(c, all, p, size, Work.solvers(p));
    }

    /** Forgets small pictures that were made while the machine did something else; asked for again they are made anew. */
    public boolean forgetHiccups() {
        double least = slowest(probes.values().stream().mapToDouble(Costs::rate).toArray());
        return probes.values().removeIf(c -> c.rate < least);
    }

    /** The least rate that is believed of some, which must be three to tell. */
    static double slowest(double... rates) {
        return rates.length < 3 ? 0 : median(rates) / HICCUP;
    }

    /** Where the scene comes from. */
    public interface Compiled {
        RenderScene scene() throws IOException;
    }

    private Costs known(List<Work> all, String key, String solvers, int threads) {
        List<Work> like = all.stream().filter(w -> w.scene().equals(key) && w.solvers().equals(solvers) && w.threads() == threads
                && w.passes() > 1 && w.rendering() > 0.5).toList();
        if (like.isEmpty()) return probes.get(key + solvers + threads);
        List<Work> last = like.subList(Math.max(0, like.size() - 3), like.size());
        double pass = median(last.stream().mapToDouble(w -> w.pass() / w.pixels()).toArray()),
                cold = median(last.stream().mapToDouble(w -> w.cold() / w.pixels()).toArray()),
                falling = median(last.stream().mapToDouble(w -> w.falling() > 0 ? w.falling() : 0.5).toArray());
        // Of several the one with most passes says most of what more of them would do.
        Work longest = last.stream().reduce((a, b) -> b.passes() >= a.passes() ? b : a).orElseThrow();
        Work cached = last.stream().reduce((a, b) -> b.caches() >= a.caches() ? b : a).orElseThrow();
        return new Costs(pass, cold, longest.passes(), longest.noise(), longest.pixels(),
                longest.falling() > 0 ? longest.falling() : falling,
                cached.caches(),
                cached.pixels(), cached.rays(), false, like.size(), 0);
    }

    /** A small picture that is really made. */
    private static Costs probe(View v, Preset p, int[] size, RenderScene scene, Workers workers, BooleanSupplier stop) throws IOException {
        int w = Math.min(SMALL, size[0]), h = Math.max(8, (int) Math.round((double) w * size[1] / size[0]));
        Preset q = EngineSettings.ending(p, 0, 0, 0);
        RenderJob j = new RenderJob(scene, new RenderJob.Order(v.name(), v.camera().camera(), v.look(), q, w, h, null, 1, false), workers);
        j.run(g -> {
            if (stop.getAsBoolean()) j.stop();
            if (g.passes() >= FEWEST && j.phases().passes() >= SECONDS || j.phases().passes() >= 4 * SECONDS) j.stop();
        });
        int n = j.progress().passes();
        if (stop.getAsBoolean() || n < 2) return null;
        double pass = j.steadyPass() > 0 ? j.steadyPass() : j.phases().passes() / n;
        // Of fewer samples than the denoiser wants only the noise before is known.
        double noise = Double.isFinite(j.progress().noise()) ? j.progress().noise() : j.rawNoise() / Preset.RAW;
        // What Java had to compile is not more for more pixels.
        double cold = j.first() ? 0 : Math.max(0, j.phases().passes() - n * pass);
        return new Costs(pass / ((double) w * h), cold / ((double) w * h), n, noise,
                (long) w * h, j.falling(), caches(j), (long) w * h, EngineSettings.bounced(p).gatherRays(), true, 0,
                j.progress().rays() / (j.phases().caches() + j.phases().passes()));
    }

    private Estimate predicted(Costs c, List<Work> all, Preset p, int[] size, String solvers) {
        double pixels = (double) size[0] * size[1], noise = c.noise(p, pixels);
        String basis = c.probed ? "probe" : "pictures";
        double[] off = all.stream().filter(w -> w.basis().equals(basis) && w.solvers().equals(solvers) && w.off() > 0.05 && w.off() < 20
                && w.seconds() >= TELLING)
                .mapToDouble(Work::off).toArray();
        double[] recent = Arrays.copyOfRange(off, Math.max(0, off.length - RECENT), off.length);
        // A few are not yet believed whole: the mean of logarithms, as if two more had been right.
        double mend = Math.exp(Arrays.stream(recent).map(Math::log).sum() / (recent.length + 2));
        double caches = c.caches(p, pixels), pass = c.pass(pixels), cold = c.cold(pixels);
        double passes = Double.POSITIVE_INFINITY;
        String limit = "passes";
        if (p.samples() > 0) passes = p.samples();
        double aim = p.noiseAim() > 0 ? RenderJob.ends(p, NoiseFall.passes(p.aimsAtDenoised(), c.passes, noise, c.falling, p.noiseAim()))
                : Double.POSITIVE_INFINITY;
        if (aim < passes) {
            passes = aim;
            limit = "noise aim";
        }
        double inTime = p.timeLimit() > 0 ? Math.max(1, (p.timeLimit() - start - (caches + cold) * mend) / (pass * mend))
                : Double.POSITIVE_INFINITY;
        boolean timed = inTime < passes;
        if (timed) {
            passes = inTime;
            limit = "time limit";
        }
        double rendering = (passes * pass + cold) * mend, before = caches * mend;
        if (timed) rendering = Math.max(pass * mend, p.timeLimit() - before);
        before += timed ? 0 : start;
        double[] finishes = all.stream().mapToDouble(Work::finishOfPixel).filter(Double::isFinite).toArray();
        double finish = RenderJob.denoised(p, pixels, passes) * (finishes.length == 0 ? FINISH * 1e-6
                : median(Arrays.copyOfRange(finishes, Math.max(0, finishes.length - RECENT), finishes.length)));
        double seconds = before + rendering + finish, spread = timed ? 1.05 : spread(recent, mend, c.probed);
        String words = c.probed ? String.format(java.util.Locale.ROOT, "a small picture made for this%s", checked(recent.length))
                : c.pictures + (c.pictures == 1 ? " picture" : " pictures") + " of this view made here" + checked(recent.length);
        return new Estimate(seconds, seconds / spread, seconds * spread, NoiseFall.noise(p.aimsAtDenoised(), c.passes, noise,
                c.falling, Math.max(1, passes)),
                (int) Math.ceil(passes),
                before, rendering, finish, words, limit, c.probed);
    }

    private static String checked(int n) {
        return n == 0 ? "" : ", mended by " + n + (n == 1 ? " prediction" : " predictions") + " before";
    }

    /** The factor within which eight of ten fell, widened while few are known. */
    private static double spread(double[] off, double mend, boolean probed) {
        double unsure = UNSURE[probed ? 0 : 1];
        if (off.length < 4) return unsure;
        double[] d = Arrays.stream(off).map(x -> Math.abs(Math.log(x / mend))).sorted().toArray();
        return Math.max(1.05, Math.exp(d[(int) Math.min(d.length - 1, Math.ceil(0.8 * d.length))] * (1 + 1.0 / d.length)));
    }

    /**
     * Keeps what a picture really took.
     *
     * @param before what was predicted for it, or null
     * @param saving seconds that it took to denoise and save it
     */
    public void made(Project project, Path folder, View v, RenderJob job, int threads, double saving, Estimate before) throws IOException {
        RenderJob.Progress g = job.progress();
        // A picture that was gone on with or stopped says nothing about what a whole one takes, one of few passes nothing of its noise.
        if (g.state() != RenderJob.State.DONE || job.resumedAt() > 0 || g.passes() < 1 || g.seconds() < 0.5 * TELLING
                || !Double.isFinite(g.noise())) return;
        RenderJob.Order o = job.order();
        RenderJob.Phases t = job.phases();
        Preset p = o.preset();
        log.add(new Work(Work.scene(project, folder, v), Work.solvers(p), threads, (long) o.region().width() * o.region().height(),
                g.passes(), caches(job), t.passes(), t.finish() + saving,
                g.noise(), job.falling(), before == null ? 0 : before.seconds() - start,
                before == null ? 0 : before.noise(), before == null ? "" : before.probed() ? "probe" : "pictures", job.steadyPass(),
                EngineSettings.bounced(p).gatherRays(), RenderJob.denoised(p, (double) o.region().width() * o.region().height(),
                        g.passes())));
    }

    /**
     * How predictions did: share of the last ones that were right within a fifth, and how many they were.
     *
     * @return {share, count}; share is NaN for none
     */
    public double[] score() {
        double[] off = log.list().stream().mapToDouble(Work::off).filter(x -> x > 0).toArray();
        double[] last = Arrays.copyOfRange(off, Math.max(0, off.length - RECENT), off.length);
        long right = Arrays.stream(last).filter(x -> x > 1 / 1.2 && x < 1.2).count();
        return new double[] {last.length == 0 ? Double.NaN : right / (double) last.length, last.length};
    }

    private static double median(double[] v) {
        double[] s = v.clone();
        Arrays.sort(s);
        return s.length % 2 == 1 ? s[s.length / 2] : (s[s.length / 2 - 1] + s[s.length / 2]) / 2;
    }
}
