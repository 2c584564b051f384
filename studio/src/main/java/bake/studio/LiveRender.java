package bake.studio;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Finish;
import bake.core.finish.Look;
import bake.core.scene.Camera;
import bake.core.scene.Material;
import bake.core.scene.Scene;
import bake.core.transport.Diagram;
import bake.core.transport.Passes;
import bake.core.transport.PathSettings;
import bake.core.transport.RenderScene;
import bake.core.transport.Renderer;
import bake.core.transport.Workers;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.util.List;
import java.util.function.Consumer;

/**
 * The easel's picture: renders the current view again from the first pass after every edit, small first and then
 * sharper. Works on a thread of its own; frames and failures are handed over there.
 */
public final class LiveRender implements AutoCloseable {
    /** Sizes of the first pictures, as divisors of the full one: least and most of the very first, and the steps from there. */
    private static final double FINEST = 2, COARSEST = 12, STEP = 2.5;
    /** Time that the very first picture should take, seconds. */
    private static final double FIRST = 0.045;
    private static final int MOST_PASSES = 4096;
    private static final PathSettings SETTINGS = new PathSettings(8, 12, 1).promptly();

    /**
     * One picture.
     *
     * @param argb width times height pixels, which the receiver may keep
     * @param groups names of the source groups
     * @param light mean luminance of each group, cd/m2
     * @param aimed width of the sharp picture that this one stands for
     * @param skyLux illuminance of open level ground from all surroundings but the sun, lux
     * @param sunLux the same from the sun
     */
    public record Frame(int width, int height, int[] argb, int passes, double noise, double seconds, double raysPerSecond, List<String> groups, double[] light, int aimed, double skyLux, double sunLux) {}

    private record Request(Project project, View view, int width, int height, Showing showing) {}

    private final SceneAssembly assembly;
    private final Workers workers;
    private final Consumer<Frame> frames;
    private final Consumer<Throwable> failures;
    private final Thread thread = new Thread(this::loop, "easel");
    private Request wanted;
    private boolean held, closed;
    private volatile boolean interrupt, halted;
    /** Divisor of the very first picture, by how long the last one took. */
    private double coarse = 10;
    private RenderScene compiled;
    private List<Material> clay, clayOf;

    /**
     * @param compiled what was compiled of the scene before, or null
     */
    public LiveRender(SceneAssembly assembly, RenderScene compiled, Workers workers, Consumer<Frame> frames, Consumer<Throwable> failures) {
        this.assembly = assembly;
        this.compiled = compiled;
        this.workers = workers;
        this.frames = frames;
        this.failures = failures;
        thread.setDaemon(true);
        thread.start();
    }

    /** Shows this view from now on; what is being rendered is dropped. */
    public void show(Project project, View view, int width, int height) {
        show(project, view, width, height, Showing.PICTURE);
    }

    /** The same, for one of several ways of showing a model. */
    public synchronized void show(Project project, View view, int width, int height, Showing showing) {
        wanted = new Request(project, view, Math.clamp(width, 16, 4096), Math.clamp(height, 16, 4096), showing);
        interrupt = true;
        notifyAll();
    }

    /** Makes room for a proof: the easel rests until {@link #release}. */
    public synchronized void hold() {
        held = true;
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
                r = wanted;
                wanted = null;
                interrupt = false;
            }
            try {
                render(r);
            } catch (Exception | OutOfMemoryError e) {
                synchronized (this) {
                    if (closed) return; // the workers went first
                }
                failures.accept(e);
            }
        }
    }

    /** Compiles a view for the easel or a proof, taking over what did not change. */
    public RenderScene compile(Project project, View view) throws java.io.IOException {
        return compile(project, view, Showing.PICTURE);
    }

    private RenderScene compile(Project project, View view, Showing showing) throws java.io.IOException {
        synchronized (assembly) {
            Scene scene = assembly.scene(project, view);
            if (showing == Showing.CLAY) scene = inClay(scene);
            return compiled = RenderScene.compile(scene, compiled, Workers.COMPILING, HierarchyCache.shared());
        }
    }

    /** The same list of materials always gives the same list of clay, so that compiling sees that nothing changed. */
    private Scene inClay(Scene s) {
        if (clayOf != s.materials()) clay = Showing.CLAY.of(s.materials());
        clayOf = s.materials();
        return new Scene(s.meshes(), s.instances(), clay, s.textures(), s.lamps(), s.surroundings());
    }

    private void render(Request r) throws java.io.IOException {
        RenderScene scene = compile(r.project, r.view, r.showing);
        Camera camera = r.view.camera().camera();
        boolean lit = r.showing == Showing.PICTURE || r.showing == Showing.CLAY;
        Finish finish = new Finish(camera.saturation(), lit ? r.view.look() : Look.PLAIN);
        long start = System.nanoTime();
        // The very first look is taken with the simple kernel, which is at full speed sooner.
        RenderScene quick = KernelWarmth.isWarm() ? scene : scene.quickToStart(Workers.COMPILING);
        boolean first = true;
        for (double d = coarse; ; d = Math.max(FINEST, d / STEP)) {
            long begun = System.nanoTime();
            // The very first picture is finished even when the next edit waits: else none would be seen while a hand moves.
            if (!picture(r, quick, camera, finish, Math.max(8, (int) (r.width / d)), Math.max(8, (int) (r.height / d)), 1, start, first)) return;
            if (first && quick == scene) coarse = Math.clamp(d * Math.sqrt((System.nanoTime() - begun) / 1e9 / FIRST), FINEST, COARSEST);
            if (quick != scene) KernelWarmth.begin(scene, quick);
            quick = scene;
            first = false;
            if (interrupt) return;
            if (d <= FINEST) break;
        }
        picture(r, scene, camera, finish, r.width, r.height, MOST_PASSES, start, false);
    }

    private boolean picture(Request r, RenderScene scene, Camera camera, Finish finish, int w, int h, int passes, long start, boolean atLeast) {
        Film film = Film.byGroup(w, h, scene.lights().groups().size());
        Passes renderer = switch (r.showing) {
            case PICTURE, CLAY -> new Renderer(scene, camera, SETTINGS, film, Region.all(w, h), workers);
            case EDGES -> new Diagram(scene, Diagram.Kind.EDGES, camera, film, workers);
            case MATERIALS -> new Diagram(scene, Diagram.Kind.MATERIALS, camera, film, workers);
        };
        boolean lit = renderer instanceof Renderer;
        if (!lit) passes = Math.min(passes, 32); // enough for clean edges
        long lastFrame = 0, shown = 0;
        double noise = Double.POSITIVE_INFINITY;
        for (int p = 0; p < passes; p++) {
            if (!renderer.pass(p, workers, () -> atLeast ? halted : interrupt)) return false;
            long now = System.nanoTime();
            // Showing costs time too: at most twelve pictures a second, and no more than a seventh of the work.
            if (passes > 1 && p > 0 && now - lastFrame < Math.clamp(6 * shown, 80_000_000L, 1_500_000_000L)) continue;
            lastFrame = now;
            if (p > 0) noise = finish.noise(film, Region.all(w, h));
            double seconds = (now - start) / 1e9;
            int[] argb = PictureOutput.argb(film, finish, null, Region.all(w, h), lit, () -> atLeast ? halted : interrupt);
            if (argb == null) return false;
            frames.accept(new Frame(w, h, argb, passes == 1 ? 0 : p + 1, noise, seconds, renderer.rays() / Math.max(1e-9, seconds),
                    scene.lights().groups(), film.planeLuminance(), r.width, scene.lights().dome().horizontalIlluminance(), scene.lights().sunIlluminance().luminance() * (scene.lights().sunDirection() == null ? 0 : Math.max(0, scene.lights().sunDirection().z()))));
            shown = System.nanoTime() - now;
        }
        return true;
    }

    @Override
    public synchronized void close() {
        closed = true;
        interrupt = halted = true;
        notifyAll();
    }
}
