package bake.studio.render;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.DeliveredError;
import bake.core.finish.Finish;
import bake.core.finish.Look;
import bake.core.guide.Guides;
import bake.core.meters.CachedPicture;
import bake.core.path.LightPart;
import bake.core.render.Adaptivity;
import bake.core.render.Renderer;
import bake.core.scene.Camera;
import bake.core.solve.Caches;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/**
 * One picture being made: the same for the easel, a proof, a final and the command line. {@link #run} works on the
 * calling thread; the other methods may be called from any.
 */
public final class RenderJob {
    /** Where a job stands. */
    public enum State { WAITING, RENDERING, PAUSED, STOPPED, DONE }

    /**
     * What to make.
     *
     * @param split what of the light is kept apart
     */
    public record Order(String view, Camera camera, Look look, Preset preset, int width, int height, Region region, long seed,
            Film.Split split) {
        public Order {
            if (width < 1 || height < 1 || width > 30_000 || height > 30_000)
                throw new IllegalArgumentException("a picture of " + width + "x" + height
                        + " pixels cannot be made; each side is 1 to 30000");
            region = region == null ? Region.all(width, height) : region.within(width, height);
        }

        /** @param keepGroups keep the light of each source group apart */
        public Order(String view, Camera camera, Look look, Preset preset, int width, int height, Region region, long seed,
                boolean keepGroups) {
            this(view, camera, look, preset, width, height, region, seed, Film.Split.of(keepGroups, false));
        }

        /** The same by another preset. */
        Order with(Preset p) {
            return new Order(view, camera, look, p, width, height, region, seed, split);
        }
    }

    /**
     * How far a job is.
     *
     * @param noise percent, of the picture that the preset's aim is of: before or after denoising; infinite while it cannot be judged
     * @param prepared how far the caches and guides are that come before the first pass, 0 to 1
     * @param fraction done, 0 to 1, of the limit that will be reached first; 0 where there is no limit
     * @param secondsLeft estimate from this job's own passes; NaN while there is none
     */
    public record Progress(State state, int passes, double noise, double seconds, double secondsLeft, double fraction, long rays,
            double prepared) {
        /** A picture past its prepass. */
        Progress(State state, int passes, double noise, double seconds, double secondsLeft, double fraction, long rays) {
            this(state, passes, noise, seconds, secondsLeft, fraction, rays, 1);
        }
    }

    /**
     * Where a job's time went, seconds.
     *
     * @param caches before passes, with what is learnt
     * @param passes the passes themselves
     * @param finish all else: judging noise, checkpoints
     */
    public record Phases(double caches, double passes, double finish) {
        private Phases finished(double seconds) {
            return new Phases(caches, passes, Math.max(0, seconds));
        }
    }

    private static final int COLD = 2;
    /** More passes than this are not counted one by one. */
    private static final int MANY = 1_000_000;
    private static final java.util.concurrent.atomic.AtomicBoolean ANY_BEGUN = new java.util.concurrent.atomic.AtomicBoolean();
    /**
     * Passes before which no test and no final is done: what is rare may still be to come, and a final is not looked at before it is
     * delivered; and pixels that are denoised to judge a picture while it is rendered.
     */
    private static final int FEWEST = 3, FEWEST_OF_FINAL = 6, JUDGED = 60_000;

    private final Order order;
    private final Workers workers;
    private final RenderScene scene;
    private final Renderer renderer;
    private final Finish finish;
    private volatile Checkpoint checkpoint;
    private volatile int resumedAt;
    private volatile State state = State.WAITING;
    private boolean guided;
    private volatile boolean stop, pause;
    private volatile Phases phases = new Phases(0, 0, 0);
    /** Seconds of the passes of this run, in turn. */
    private final List<Double> passTimes = new ArrayList<>();
    private volatile Progress progress = new Progress(State.WAITING, 0, Double.POSITIVE_INFINITY, 0, Double.NaN, 0, 0);
    private volatile long endsAt = Long.MAX_VALUE;
    /** How many threads rest, since when, and how long this pass has rested, nanoseconds. */
    private int resting;
    private long restedFrom, rested;
    private final NoiseFall fall;
    private boolean first;
    /** Percent, before denoising. */
    private volatile double rawNoise = Double.POSITIVE_INFINITY;

    public RenderJob(RenderScene scene, Order order, Workers workers) {
        this(scene, order, workers, film(order, scene, null));
    }

    /** The film for an order; {@code part} is what it keeps, null for all. */
    static Film film(Order o, RenderScene scene, Region part) {
        int groups = scene.lights().groups().size();
        if (o.split != Film.Split.NONE) return Film.split(o.width, o.height, groups, LightPart.COUNT, o.split);
        return Film.apart(o.width, o.height, groups, scene.scene().outlook().apart() ? scene.lights().backdropGroup() : -1,
                part == null ? Region.all(o.width, o.height) : part);
    }

    /** @param film empty, of the order's size, keeping at least its region */
    RenderJob(RenderScene scene, Order order, Workers workers, Film film) {
        this.scene = scene;
        this.order = order;
        this.workers = workers;
        Preset p = order.preset;
        fall = new NoiseFall(p.aimsAtDenoised());
        finish = new Finish(order.camera.saturation(), order.look);
        renderer = new Renderer(scene, order.camera, EngineSettings.paths(p, order.seed), film, order.region, workers,
                p.adaptive() == null ? Adaptivity.NONE : new Adaptivity(p.adaptive(), finish, p.aimsAtDenoised()));
    }

    /** Begins with a kept guide, or null for none; to be said before {@link #run}. One that does not suit the scene is left alone. */
    public RenderJob guidedBy(Guides g) {
        guided = g != null && renderer.begin(g);
        return this;
    }

    public RenderScene scene() {
        return scene;
    }

    Workers workers() {
        return workers;
    }

    /** Whether the picture began with a kept guide. */
    public boolean guided() {
        return guided;
    }

    /** What the picture has learnt so far, or null. To be asked when it is done or stopped. */
    public Guides guides() {
        return renderer.guides();
    }

    /**
     * Begins with caches of another picture, which go on to be filled; to be said before {@link #run}. Those of other source
     * groups are left alone.
     */
    public RenderJob with(Caches c) {
        renderer.begin(c);
        return this;
    }

    /** Begins with all that another picture of the scene has learnt and cached, and adds nothing to it. */
    public RenderJob knowing(RenderJob other) {
        if (other.guides() != null) guidedBy(other.guides());
        with(other.caches());
        renderer.learnNoMore();
        return this;
    }

    /** What the picture has cached so far. To be asked when it is done or stopped. */
    public Caches caches() {
        return renderer.caches();
    }

    /** Where the time went so far. */
    public Phases phases() {
        return phases;
    }

    /** Keeps the picture in a file from now on, and goes on from it where it is there. To be called before {@link #run}. */
    public void keepIn(Checkpoint c) {
        checkpoint = c;
    }

    /** Says that the whole picture is safe in its file: what was kept to go on with it is no longer needed. */
    public void written() {
        Checkpoint c = checkpoint;
        if (c != null && state == State.DONE) c.remove();
    }

    /** Asks for the picture's checkpoint to be written after the pass in work. */
    public void saveSoon() {
        Checkpoint c = checkpoint;
        if (c != null) c.saveSoon();
    }

    /** The pass that a checkpoint was at when this job went on from it; 0 for none. */
    public int resumedAt() {
        return resumedAt;
    }

    public Order order() {
        return order;
    }

    public Film film() {
        return renderer.film();
    }

    public Finish finish() {
        return finish;
    }

    public Progress progress() {
        return progress;
    }

    public State state() {
        return state;
    }

    /**
     * What caches know so far, as a small picture of the order's view; null once passes are made. To be asked by those who are told of
     * progress, on the thread that tells them.
     *
     * @param most greatest width, pixels
     */
    public Film cachedPicture(int most) {
        Caches c = renderer.caches();
        if (progress.passes > 0 || c.empty()) return null;
        int w = Math.min(most, order.width), h = Math.max(1, (int) Math.round(order.height * (double) w / order.width));
        Film f = Film.merged(w, h, scene.lights().groups().size());
        CachedPicture p = new CachedPicture(scene, c, order.camera, f, workers);
        p.pass(0, workers, () -> stop);
        return f;
    }

    /** How wrong the picture is as it would be delivered now; null where it is not denoised, or has too few samples to tell. */
    public DeliveredError delivered() {
        return order.preset.denoise() ? DeliveredError.of(film(), order.region, finish, DeliveredError.MOST, () -> false) : null;
    }

    /** Luminance of caustics that were left out, as a share of the picture's mean with them. */
    public double leftOutShare() {
        double mean = 0;
        for (double l : film().planeLuminance()) mean += l;
        double c = renderer.leftOut();
        return c > 0 ? c / (mean + c) : 0;
    }

    /** Luminance that the clamp took away, as a share of the picture's mean. */
    public double clampedShare() {
        double mean = 0;
        for (double l : film().planeLuminance()) mean += l;
        double c = renderer.clampedLuminance();
        return c > 0 ? c / (mean + c) : 0;
    }

    /** Ends the job as soon as the tiles in work are done; what was made stays in the film. */
    public void stop() {
        stop = true;
        pause = false;
        wake();
    }

    public void pause() {
        pause = true;
    }

    public void resume() {
        pause = false;
        wake();
    }

    private synchronized void wake() {
        notifyAll();
    }

    /**
     * Renders until a limit of the preset is reached or {@link #stop} is called.
     *
     * @param each told after every pass, on the calling thread
     * @throws IOException when a checkpoint is there but broken
     */
    public void run(Consumer<Progress> each) throws IOException {
        Preset p = order.preset;
        first = !ANY_BEGUN.getAndSet(true);
        int most = p.samples() > 0 ? p.samples() : Integer.MAX_VALUE;
        long worked = 0, begun = System.nanoTime(), idle = 0;
        double noise = Double.POSITIVE_INFINITY;
        int checkAt = judgedAfter(0), pass = 0, judged = -1;
        long resumed = 0;
        Checkpoint.State saved = checkpoint == null ? null : checkpoint.load(film());
        if (saved != null) {
            resumedAt = pass = saved.passes();
            worked = resumed = saved.worked();
            renderer.goOn(saved.rays(), saved.clamped());
            noise = judge();
            checkAt = judgedAfter(pass);
        }
        boolean done = saved != null && saved.done();
        while (!done && pass < most && !stop) {
            long waited = System.nanoTime();
            waitWhilePaused();
            idle += System.nanoTime() - waited;
            if (stop) break;
            state = State.RENDERING;
            long start = System.nanoTime();
            rested = 0;
            endsAt = p.timeLimit() > 0 && pass > 0 ? start + (long) (p.timeLimit() * 1e9) - worked : Long.MAX_VALUE;
            int number = pass;
            long before = worked;
            double known = noise;
            boolean whole = renderer.prepare(pass, workers, this::mustEnd, share -> {
                if (number == 0) preparing(each, share, before + System.nanoTime() - rested - start, known);
            });
            // What rested is no work, be it of caches or of passes.
            long ready = System.nanoTime() - rested;
            whole = whole && renderer.pass(pass, workers, this::mustEnd);
            long end = System.nanoTime() - rested;
            idle += rested;
            worked += end - start;
            phases = new Phases(phases.caches + Math.min(ready, end) / 1e9 - start / 1e9, phases.passes + Math.max(0, end - ready) / 1e9,
                    phases.finish).finished((end + rested - begun - idle - worked + resumed) / 1e9);
            if (!whole) {
                judged = -1;
                break;
            }
            pass++;
            passTimes.add(Math.max(0, end - ready) / 1e9);
            keep(pass, worked, false);
            // Estimating noise costs a walk over the film; rarer checks suffice as passes add up.
            if (pass >= checkAt || pass == most) {
                noise = judge();
                judged = pass;
                fall.judged(pass, noise);
                checkAt = judgedAfter(pass);
            }
            double seconds = worked / 1e9;
            done = p.noiseAim() > 0 && noise <= p.noiseAim() && pass >= fewest(p) || p.timeLimit() > 0 && seconds >= p.timeLimit();
            report(each, done ? State.DONE : State.RENDERING, pass, noise, seconds);
        }
        double seconds = worked / 1e9;
        boolean timeUp = p.timeLimit() > 0 && seconds >= p.timeLimit() * 0.98;
        state = stop && !timeUp ? State.STOPPED : State.DONE;
        // Until the picture is in its file its passes are kept: what comes between would cost all of them.
        if (state == State.DONE && pass > 0) keep(pass, worked, true);
        if (judged != pass) noise = judge();
        phases = phases.finished((System.nanoTime() - begun - idle - worked + resumed) / 1e9);
        progress = new Progress(state, pass, noise, seconds, 0, state == State.DONE ? 1 : progress.fraction, renderer.rays());
        each.accept(progress);
    }

    /** The noise that the preset's aim is of, percent; infinite while it cannot be known. */
    private double judge() {
        rawNoise = finish.noise(film(), order.region);
        if (!order.preset.aimsAtDenoised()) return rawNoise;
        DeliveredError e = DeliveredError.of(film(), order.region, finish, JUDGED, () -> false);
        return e == null ? Double.POSITIVE_INFINITY : e.percent();
    }

    /**
     * The next pass after which noise is judged: the same ones whether the picture was begun anew or gone on with. What is left after
     * denoising takes a second to find, and is not there for the first passes.
     */
    private int judgedAfter(int pass) {
        return judgedAfter(pass, order.preset);
    }

    /** The passes of a picture that is at its preset's aim after {@code passes}: more where it is judged later. */
    public static double ends(Preset p, double passes) {
        double least = Math.max(fewest(p), passes);
        return p.aimsAtDenoised() && least < Integer.MAX_VALUE ? judgedAfter((int) Math.ceil(least) - 1, p) : least;
    }

    /** Pixels that are denoised for a picture: whenever it is judged by what is left then, and in the end. */
    public static double denoised(Preset p, double pixels, double passes) {
        if (!p.aimsAtDenoised()) return pixels;
        int judged = 0, last = (int) Math.min(passes, MANY);
        for (int at = judgedAfter(0, p); at <= last; at = judgedAfter(at, p)) judged++;
        return pixels + judged * DeliveredError.denoised(pixels, JUDGED);
    }

    private static int fewest(Preset p) {
        return p.isFinal() ? FEWEST_OF_FINAL : FEWEST;
    }

    private static int judgedAfter(int pass, Preset p) {
        int at = p.aimsAtDenoised() ? fewest(p) : 2;
        while (at <= pass) at += Math.max(1, at / (p.aimsAtDenoised() ? 4 : 12));
        return at;
    }

    /** Noise before denoising, percent; infinite before the second pass. To be asked when the job is done or stopped. */
    public double rawNoise() {
        return rawNoise;
    }

    private void keep(int pass, long worked, boolean done) {
        if (checkpoint != null)
            checkpoint.passed(film(), new Checkpoint.State(pass, worked, renderer.rays(), renderer.clampedSum(), done));
    }

    private void preparing(Consumer<Progress> each, double share, long worked, double noise) {
        double seconds = worked / 1e9;
        progress = new Progress(State.RENDERING, 0, noise, seconds, Double.NaN, 0, renderer.rays(), share);
        each.accept(progress);
    }

    /** Asked before every tile: a job that rests gives the machine back at once, in the middle of a pass. */
    private boolean mustEnd() {
        if (pause) rest();
        return stop || System.nanoTime() > endsAt;
    }

    private synchronized void rest() {
        long from = System.nanoTime();
        if (resting++ == 0) restedFrom = from;
        waitWhilePaused();
        // Threads that rest together have rested once.
        if (--resting == 0) {
            rested += System.nanoTime() - restedFrom;
            if (endsAt < Long.MAX_VALUE) endsAt += System.nanoTime() - restedFrom;
        }
    }

    private synchronized void waitWhilePaused() {
        while (pause && !stop) {
            state = State.PAUSED;
            try {
                wait();
            } catch (InterruptedException e) {
                stop = true;
                Thread.currentThread().interrupt();
            }
        }
        if (state == State.PAUSED) state = State.RENDERING;
    }

    private void report(Consumer<Progress> each, State s, int pass, double noise, double seconds) {
        double left = secondsLeft(pass, noise, seconds);
        progress = new Progress(s, pass, noise, seconds, left, Double.isNaN(left) ? 0 : seconds / Math.max(1e-9, seconds + left),
                renderer.rays());
        each.accept(progress);
    }

    /**
     * Seconds of a usual pass of this run once the first ones are made, which find everything cold; 0 where too few were. The one in which
     * edges are looked at is none of them.
     */
    public double steadyPass() {
        int n = passTimes.size();
        if (n < 2 * COLD) return 0;
        double[] t = passTimes.stream().skip(COLD).mapToDouble(x -> x).sorted().toArray();
        return (t[(t.length - 1) / 2] + t[t.length / 2]) / 2;
    }

    /** Seconds that another pass will take, by those of this run: what came before the first one does not come again. */
    private double usualPass() {
        return steadyPass() > 0 ? steadyPass() : passTimes.isEmpty() ? 0 : passTimes.getLast();
    }

    /** Whether it was the first of the process, for which Java had to compile all code. */
    public boolean first() {
        return first;
    }

    /** With which power of its passes the picture's noise falls. */
    public double falling() {
        return fall.power();
    }

    /** The nearest of the three limits. */
    private double secondsLeft(int pass, double noise, double seconds) {
        Preset p = order.preset;
        double each = usualPass(), left = Double.NaN;
        if (p.noiseAim() > 0 && Double.isFinite(noise))
            left = Math.max(0, each * (NoiseFall.passes(p.aimsAtDenoised(), pass, noise, fall.power(), p.noiseAim()) - pass));
        // Before it is judged what is sure is that it goes on up to then.
        else if (p.aimsAtDenoised() && p.noiseAim() > 0) left = each * Math.max(1, fewest(p) - pass);
        if (p.timeLimit() > 0) left = min(left, Math.max(0, p.timeLimit() - seconds));
        if (p.samples() > 0) left = min(left, each * (p.samples() - pass));
        return left;
    }

    private static double min(double a, double b) {
        return Double.isNaN(a) ? b : Math.min(a, b);
    }
}
