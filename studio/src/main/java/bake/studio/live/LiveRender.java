package bake.studio.live;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Finish;
import bake.core.finish.Look;
import bake.core.guide.Guides;
import bake.core.guide.LightGuide;
import bake.core.meters.CacheMap;
import bake.core.meters.Diagram;
import bake.core.meters.GuideMap;
import bake.core.meters.Illuminance;
import bake.core.path.BounceSettings;
import bake.core.path.LightPart;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.scene.Camera;
import bake.core.scene.Scene;
import bake.core.solve.Caches;
import bake.core.work.Passes;
import bake.core.work.Workers;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.render.KernelWarmth;
import bake.studio.scene.Levels;
import bake.studio.scene.SceneAssembly;
import java.util.List;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;

/**
 * The easel's picture: renders the current view again from the first pass after every edit, small first and then
 * sharper. Works on a thread of its own; frames and failures are handed over there.
 */
public final class LiveRender implements AutoCloseable {
    /** Sizes of the first pictures, as divisors of the full one: least and most of the very first, and the steps from there. */
    private static final double FINEST = 2, COARSEST = 12, STEP = 2.5;
    /** Passes that a clean picture has at least. */
    private static final int HALVES = 2;
    /** Time that the very first picture should take, seconds. */
    private static final double FIRST = 0.045;
    /** Cells and records beyond which caches of the easel begin anew, so that a long walk does not fill the memory. */
    private static final long MOST_CELLS = 2_000_000;
    private static final int MOST_RECORDS = 200_000;
    private static final PathSettings SETTINGS = new PathSettings(8, 12, 1)
            .withBounced(new BounceSettings(BounceSettings.First.IRRADIANCE_CACHE, BounceSettings.Later.RADIANCE_CACHE)
            .withSurroundings(true).withRays(128));

    /**
     * One picture.
     *
     * @param argb width times height pixels, which the receiver may keep
     * @param groups names of the source groups
     * @param light mean luminance of each group, cd/m2; empty where the picture shows no light, or that of one way alone
     * @param ways mean luminance of each way of light, in the order of {@link LightPart}, cd/m2; empty where it is not kept apart
     * @param aimed width of the sharp picture that this one stands for
     * @param skyLux illuminance of open level ground from all surroundings but the sun, lux
     * @param sunLux the same from the sun
     * @param spots looks at places of the picture; null where it shows neither light nor records of it
     */
    public record Frame(int width, int height, int[] argb, int passes, double noise, double seconds, double raysPerSecond,
            List<String> groups, double[] light, double[] ways, int aimed, double skyLux, double sunLux, Spots spots) {}

    /** What the last picture has cached, and of which scene; of the render thread alone. */
    private Caches cached = Caches.NONE;
    private RenderScene cachedOf;

    private record Request(Project project, View view, int width, int height, Showing showing, Set<String> solo) {
        /** The same with other source groups alone. */
        Request with(Set<String> groups) {
            return new Request(project, view, width, height, showing, groups);
        }

        /** Whether another request needs the same light, be it mixed otherwise. */
        boolean sameLight(Request o) {
            // Light by its way to the camera is kept as levels have it, one film for all ways.
            boolean parts = showing.part() != null && o.showing.part() != null;
            return o.width == width && o.height == height && (o.showing == showing || parts) && o.project.showsTheSame(project)
                    && o.view.neutral().equals(view.neutral()) && (!parts || Levels.alike(o.view, view));
        }
    }

    private final SceneAssembly assembly;
    private final Workers workers;
    private final FrameMaker maker;
    private final Consumer<Throwable> failures;
    private final Thread thread = new Thread(this::loop, "easel");
    private Request wanted, current;
    /** The last picture of the current request; null until there is one. */
    private volatile FrameMaker.Shown last;
    private volatile Set<String> solo = Set.of();
    private volatile Guides guides;
    private volatile Caches caches = Caches.NONE;
    /** Mixes light anew while passes go on. */
    private final Thread mixer = new Thread(this::mix, "levels");
    private volatile boolean remix;
    private boolean held, closed;
    /** Passes after which the sharp picture rests. */
    private volatile int patience = 4096;
    private volatile boolean interrupt, halted;
    /** Divisor of the very first picture, by how long the last one took. */
    private double coarse = 10;
    private RenderScene compiled;

    /**
     * @param compiled what was compiled of the scene before, or null
     */
    public LiveRender(SceneAssembly assembly, RenderScene compiled, Workers workers, Consumer<Frame> frames, Consumer<Throwable> failures) {
        this.assembly = assembly;
        this.compiled = compiled;
        this.workers = workers;
        maker = new FrameMaker(assembly, frames);
        this.failures = failures;
        thread.setDaemon(true);
        thread.start();
        mixer.setDaemon(true);
        mixer.start();
    }

    /** Shows only some source groups, none for all; nothing is rendered for it. */
    public synchronized void solo(Set<String> groups) {
        solo = Set.copyOf(groups);
        if (wanted != null) {
            wanted = wanted.with(solo);
        } else if (current != null) {
            // One that has no picture yet shows them in its first; there is nothing to mix before.
            current = current.with(solo);
            remix = last != null;
            notifyAll();
        }
    }

    /** Shows this view from now on; what is being rendered is dropped. */
    public void show(Project project, View view, int width, int height) {
        show(project, view, width, height, Showing.PICTURE);
    }

    /** The same, for one of several ways of showing a model. */
    public synchronized void show(Project project, View view, int width, int height, Showing showing) {
        Request r = new Request(project, view, Math.clamp(width, 16, 4096), Math.clamp(height, 16, 4096), showing, solo);
        if (wanted == null && current != null && !held && r.sameLight(current)) {
            current = r;
            remix = true;
        } else {
            wanted = r;
            interrupt = true;
        }
        notifyAll();
    }

    /** Makes room for a proof: the easel rests until {@link #release}. */
    public synchronized void hold() {
        held = true;
        // What comes after begins anew, be it the same light.
        current = null;
        last = null;
        interrupt = halted = true;
    }

    public synchronized void release(Project project, View view, int width, int height, Showing showing) {
        held = halted = false;
        show(project, view, width, height, showing);
    }

    private void loop() {
        while (true) {
            Request r;
            synchronized (this) {
                while ((wanted == null || held) && !closed) {
                    try {
                        wait();
                    } catch (InterruptedException e) {
                        return;
                    }
                }
                if (closed) return;
                r = current = wanted;
                wanted = null;
                last = null;
                interrupt = false;
            }
            try {
                render(r);
            } catch (Exception | OutOfMemoryError e) {
                synchronized (this) {
                    if (closed) return; // the workers went first
                    current = null;
                }
                failures.accept(e);
            }
        }
    }

    /** Compiles a view for the easel or a proof, taking over what did not change. */
    public RenderScene compile(Project project, View view) throws java.io.IOException {
        // A proof is rendered with its levels in it; the easel mixes them into the finished light.
        return compile(project, view, null);
    }

    private RenderScene compile(Project project, View view, Showing showing) throws java.io.IOException {
        synchronized (assembly) {
            Scene scene = assembly.scene(showing == Showing.CLAY ? project.withClay(true) : project,
                    showing == null || showing.part() != null ? view : view.neutral());
            return compiled = RenderScene.compile(scene, compiled, Workers.COMPILING, HierarchyCache.shared());
        }
    }

    private void render(Request r) throws java.io.IOException {
        RenderScene scene = compile(r.project, r.view, r.showing);
        Camera camera = r.view.camera().camera();
        boolean lit = r.showing == Showing.PICTURE || r.showing == Showing.CLAY || r.showing.part() != null;
        Finish finish = maker.finish(camera, lit ? r.view.look() : Look.PLAIN);
        long start = System.nanoTime();
        // The very first look is taken with the simple kernel, which is at full speed sooner.
        RenderScene quick = KernelWarmth.isWarm() ? scene : scene.quickToStart(Workers.COMPILING);
        boolean first = true;
        for (double d = coarse; ; d = Math.max(FINEST, d / STEP)) {
            // Small pictures wait for nothing, but for the last: it is clean, and what it caches is there for the sharp one.
            boolean prompt = first || d > FINEST;
            long begun = System.nanoTime();
            // The very first picture is finished even when the next edit waits: else none would be seen while a hand moves.
            int w = Math.max(8, (int) (r.width / d)), h = Math.max(8, (int) (r.height / d));
            if (!picture(r, quick, camera, finish, w, h, prompt ? 1 : HALVES, start, first, prompt))
                return;
            if (first && quick == scene) coarse = Math.clamp(d * Math.sqrt((System.nanoTime() - begun) / 1e9 / FIRST), FINEST, COARSEST);
            if (quick != scene) KernelWarmth.begin(scene, quick);
            quick = scene;
            first = false;
            if (interrupt) return;
            if (d <= FINEST) break;
        }
        picture(r, scene, camera, finish, r.width, r.height, patience, start, false, false);
    }

    private boolean picture(Request r, RenderScene scene, Camera camera, Finish finish, int w, int h, int passes, long start,
            boolean atLeast, boolean prompt) {
        int groups = scene.lights().groups().size();
        Film film = r.showing.part() == null ? Film.byGroup(w, h, groups) : Film.split(w, h, groups, LightPart.COUNT, Film.Split.PARTS);
        Passes renderer = switch (r.showing) {
            case PICTURE, CLAY, SEEN, DIRECT, BOUNCED, REFLECTED, REFRACTED -> lit(scene, camera, film, prompt);
            case SKY_GUIDE, LAMP_GUIDE -> map(r.showing, scene, camera, film);
            case RECORDS -> new CacheMap(scene, caches, CacheMap.What.RECORDS, camera, film, workers);
            case CELLS -> new CacheMap(scene, caches, CacheMap.What.CELLS, camera, film, workers);
            case PHOTONS -> new CacheMap(scene, caches, CacheMap.What.PHOTONS, camera, film, workers);
            case LUX -> new Illuminance(scene, camera, 8, film, workers);
            case EDGES, MATERIALS, OBJECTS, DEPTH, NORMALS, COLOURS ->
                new Diagram(scene, Diagram.Kind.valueOf(r.showing.name()), camera, film, workers);
        };
        boolean lit = renderer instanceof Renderer;
        if (!lit && r.showing != Showing.LUX) passes = Math.min(passes, 32); // enough for clean edges
        boolean sharp = w == r.width;
        if (!lit && !sharp) passes = 1;
        long lastFrame = 0, shown = 0;
        // One sample has no halves to tell noise by: what is denoised of it is seldom better than the clean small picture before.
        int next = lit && sharp ? HALVES : 1;
        double noise = Double.POSITIVE_INFINITY;
        for (int p = 0; p < passes; p++) {
            boolean whole = renderer.pass(p, workers, () -> atLeast ? halted : interrupt);
            if (renderer instanceof Renderer lively) keep(scene, lively.caches());
            if (!whole) return false;
            long now = System.nanoTime();
            // Showing costs time too: at most twelve pictures a second, and a fifth of the work unless that took too long to wait for.
            if (p > 1 && p < passes - 1 && now - lastFrame < Math.clamp(4 * shown, 80_000_000L, 4_000_000_000L)) continue;
            // What was denoised well takes longer: the next picture is one that is better.
            if (lit && p + 1 < next && p < passes - 1) continue;
            next = FrameMaker.next(p + 1);
            lastFrame = now;
            if (p > 0) noise = finish.noise(film, Region.all(w, h));
            double seconds = (now - start) / 1e9;
            FrameMaker.Shown there = new FrameMaker.Shown(film, scene, camera, sharp ? p + 1 : 0, lit && !prompt, noise, seconds,
                    renderer.rays());
            Request mixed = current();
            if (!show(there, mixed, false, () -> atLeast ? halted : interrupt)) return false;
            synchronized (this) {
                if (!interrupt) {
                    last = there;
                    // What was changed meanwhile may have been shown before this, which does not have it.
                    if (current != mixed) {
                        remix = true;
                        notifyAll();
                    }
                }
            }
            shown = System.nanoTime() - now;
        }
        return true;
    }

    /** A picture that begins with what those before it have cached of the same light: when only the camera moves it is clean at once. */
    private Renderer lit(RenderScene scene, Camera camera, Film film, boolean prompt) {
        PathSettings how = prompt ? SETTINGS.promptly() : SETTINGS;
        Renderer r = new Renderer(scene, camera, how, film, Region.all(film.width(), film.height()), workers);
        if (cachedOf != null && sameLight(cachedOf, scene)) r.begin(cached);
        return r;
    }

    private void keep(RenderScene scene, Caches c) {
        boolean much = c.cells() != null && c.cells().cells() > MOST_CELLS || c.records() != null && c.records().records() > MOST_RECORDS,
                nothing = c.cells() == null || c.cells().rounds() == 0;
        cachedOf = much || nothing ? null : scene;
        cached = much || nothing ? Caches.NONE : c;
    }

    private static boolean sameLight(RenderScene a, RenderScene b) {
        return a.geometry() == b.geometry() && a.surfaces() == b.surfaces() && a.surround() == b.surround()
                && a.scene().lamps().equals(b.scene().lamps()) && a.lights().groups().equals(b.lights().groups());
    }

    /** A map of the guides that are to be shown; without them, or when they are of another model, nothing is known anywhere. */
    private Passes map(Showing showing, RenderScene scene, Camera camera, Film film) {
        Guides g = guides;
        LightGuide one = g == null ? null : showing == Showing.SKY_GUIDE ? g.sky() : g.lamps();
        if (one == null || showing == Showing.SKY_GUIDE && one.targets() != Renderer.skyTargets(scene)) one = LightGuide.nothing(1);
        return new GuideMap(scene, one, showing == Showing.SKY_GUIDE, camera, film, workers);
    }

    /** Sets the passes after which a picture rests, at least 1; from the next picture on. */
    public void patience(int passes) {
        patience = Math.max(1, passes);
    }

    /** Sets the caches that are shown when caches are to be. */
    public void caches(Caches c) {
        caches = c;
    }

    /** Sets the guides that are shown when guides are to be. */
    public void guides(Guides g) {
        guides = g;
    }

    private synchronized Request current() {
        return current;
    }

    /** Hands over a picture of a film as it is wanted; false when it was stopped. */
    private boolean show(FrameMaker.Shown s, Request r, boolean soon, BooleanSupplier stop) {
        return r != null && maker.show(s, new FrameMaker.Way(r.view, r.showing, r.solo, r.width), soon, stop);
    }

    /** Shows the last picture again whenever its light is to be mixed otherwise. */
    private void mix() {
        while (true) {
            synchronized (this) {
                while (!(remix && last != null) && !closed) {
                    try {
                        wait();
                    } catch (InterruptedException e) {
                        return;
                    }
                }
                if (closed) return;
                remix = false;
            }
            FrameMaker.Shown s = last;
            try {
                // What comes next is not kept waiting by a finish that takes long.
                if (s != null) show(s, current(), true, () -> halted || last == null || remix);
                synchronized (this) {
                    // A newer picture may have come between.
                    if (s != last && last != null) remix = true;
                }
            } catch (RuntimeException | OutOfMemoryError e) {
                synchronized (this) {
                    if (closed) return;
                }
                failures.accept(e);
            }
        }
    }

    @Override
    public synchronized void close() {
        closed = true;
        interrupt = halted = true;
        notifyAll();
    }
}
