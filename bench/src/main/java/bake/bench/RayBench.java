package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.geometry.Geometry;
import bake.core.geometry.LampShapes;
import bake.core.geometry.Ray;
import bake.core.geometry.ScalarTracer;
import bake.core.geometry.Tracer;
import bake.core.work.Workers;
import bake.demo.DemoProject;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OperationsPerInvocation;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Closest-hit rays from all over the demo's reading room in all directions: eight boxes at a time against one pair. */
@State(Scope.Thread)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Fork(value = 1, jvmArgsAppend = {"--add-modules=jdk.incubator.vector", "--enable-native-access=ALL-UNNAMED", "-XX:+UseParallelGC",
        "-XX:+UseTransparentHugePages"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class RayBench {
    private static final int RAYS = 20_000;
    private Tracer fast, scalar;
    private final float[] rays = new float[6 * RAYS];
    private final Ray ray = new Ray();

    @Setup
    public void load() throws IOException {
        Path f = DemoProject.ensure(DemoProject.home(), LocalDate.now());
        Project p = ProjectFile.read(f);
        RenderScene s = RenderScene.compile(new SceneAssembly(f.getParent()).scene(p, p.views().getFirst()), Workers.COMPILING);
        Geometry g = s.geometry();
        fast = s.tracer();
        scalar = new ScalarTracer(g, new LampShapes(List.of()), s.surfaces(), Workers.COMPILING);
        SplittableRandom r = new SplittableRandom(1);
        for (int i = 0; i < RAYS; i++) {
            double z = r.nextDouble(-1, 1), t = r.nextDouble(2 * Math.PI), w = Math.sqrt(1 - z * z);
            double[] v = {r.nextDouble(1, 8), r.nextDouble(3, 15), r.nextDouble(0.2, 4.2), w * Math.cos(t), w * Math.sin(t), z};
            for (int k = 0; k < 6; k++) rays[6 * i + k] = (float) v[k];
        }
    }

    private double trace(Tracer t) {
        double sum = 0;
        for (int i = 0; i < rays.length; i += 6) {
            ray.set(rays[i], rays[i + 1], rays[i + 2], rays[i + 3], rays[i + 4], rays[i + 5], Float.POSITIVE_INFINITY);
            if (t.closest(ray)) sum += ray.t;
        }
        return sum;
    }

    @Benchmark
    @OperationsPerInvocation(RAYS)
    public double eightBoxes() {
        return trace(fast);
    }

    @Benchmark
    @OperationsPerInvocation(RAYS)
    public double onePair() {
        return trace(scalar);
    }
}
