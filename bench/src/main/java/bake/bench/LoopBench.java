package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.denoise.QuickDenoiser;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.geometry.Geometry;
import bake.core.geometry.Ray;
import bake.core.light.Atmosphere;
import bake.core.light.Dome;
import bake.core.light.SkyImage;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.scene.Camera;
import bake.core.scene.Panorama;
import bake.core.surface.Scatter;
import bake.core.surface.SurfacePoint;
import bake.core.work.Workers;
import bake.demo.DemoProject;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The hot loops besides rays, each alone, over the demo's reading room: milliseconds for one round of each. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgsAppend = {"--add-modules=jdk.incubator.vector", "--enable-native-access=ALL-UNNAMED", "-XX:+UseParallelGC",
        "-XX:+UseTransparentHugePages"})
@Warmup(iterations = 3, time = 3)
@Measurement(iterations = 4, time = 3)
public class LoopBench {
    private static final int POINTS = 10_000, W = 320, H = 180;

    private RenderScene scene;
    private Camera camera;
    private Workers workers;
    private Renderer renderer;
    private Film film;
    private Dome dome;
    private Atmosphere air;
    private int next;
    private final Scatter scatter = new Scatter();
    private final SurfacePoint point = new SurfacePoint();
    private final PathSampler random = new PathSampler();
    private final float[] rgb = new float[3];
    private final Ray[] hits = new Ray[POINTS];

    @Setup
    public void load() throws IOException {
        Path f = DemoProject.ensure(DemoProject.home(), LocalDate.now());
        Project p = ProjectFile.read(f);
        View v = p.views().getFirst();
        camera = v.camera().camera();
        scene = RenderScene.compile(new SceneAssembly(f.getParent()).scene(p, v), Workers.COMPILING);
        workers = new Workers(Runtime.getRuntime().availableProcessors());
        film = Film.merged(W, H, scene.lights().groups().size());
        renderer = new Renderer(scene, camera, new PathSettings(8, 20, 1), film, Region.all(W, H), workers);
        for (next = 0; next < 8; next++) renderer.pass(next, workers, () -> false);
        air = new Atmosphere(2.5, 0.2);
        Panorama sky = SkyImage.clear(air, new Vec3(0, 0.6, 0.8), 320);
        dome = new Dome(sky, 1, 0);
        random.start(1, 2, 3, 4);
        for (int i = 0; i < POINTS; i++) {
            Ray r;
            do {
                r = new Ray();
                random.next2();
                double z = 2 * random.u - 1, t = 2 * Math.PI * random.v, w = Math.sqrt(1 - z * z);
                random.next2();
                r.set(1 + 7 * random.u, 3 + 12 * random.v, 1.6f, (float) (w * Math.cos(t)), (float) (w * Math.sin(t)), (float) z,
                        Float.POSITIVE_INFINITY);
            } while (!scene.tracer().closest(r) || r.item >= scene.tracer().firstLamp());
            hits[i] = r;
        }
    }

    /** 10,000 surface points read. */
    @Benchmark
    public float surfaces() {
        float sum = 0;
        for (Ray r : hits) {
            point.load(scene.geometry(), scene.surfaces(), r);
            sum += point.baseR;
        }
        return sum;
    }

    /** 10,000 directions drawn from surfaces and looked up in them again. */
    @Benchmark
    public float scattering() {
        float sum = 0;
        for (Ray r : hits) {
            point.load(scene.geometry(), scene.surfaces(), r);
            scatter.begin(point, -r.dx, -r.dy, -r.dz);
            random.next2();
            float lobe = random.u;
            random.next2();
            if (!scatter.sample(lobe, random.u, random.v)) continue;
            scatter.eval(scatter.wx, scatter.wy, scatter.wz);
            sum += scatter.pdf;
        }
        return sum;
    }

    /** 10,000 directions drawn from the sky and read in it. */
    @Benchmark
    public float sky() {
        float sum = 0;
        for (int i = 0; i < POINTS; i++) {
            random.next2();
            dome.sample(random.u, random.v, rgb);
            sum += dome.read(rgb[0], rgb[1], rgb[2], rgb);
        }
        return sum;
    }

    /** The sky's table for another hour. */
    @Benchmark
    public Panorama skyTable() {
        return SkyImage.clear(air, new Vec3(0, 0.6, 0.8), 320);
    }

    /** The air's tables for another haze. */
    @Benchmark
    public Atmosphere air() {
        return new Atmosphere(2.5, 0.2);
    }

    /** One pass of 320 x 180 pixels, learnt and exchanged. */
    @Benchmark
    public long pass() {
        renderer.pass(next++, workers, () -> false);
        return renderer.rays();
    }

    /** The denoiser over 320 x 180 pixels. */
    @Benchmark
    public float[] denoiser() {
        return QuickDenoiser.run(film, null, Region.all(W, H));
    }

    /** All hierarchies of the demo. */
    @Benchmark
    public Geometry hierarchies() {
        return new Geometry(scene.scene().meshes(), scene.scene().instances(), Workers.COMPILING);
    }
}
