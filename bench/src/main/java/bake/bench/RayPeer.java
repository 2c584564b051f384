package bake.bench;

import bake.core.geometry.Geometry;
import bake.core.geometry.LampShapes;
import bake.core.geometry.Ray;
import bake.core.geometry.Tracer;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.surface.SurfaceTable;
import bake.core.work.Workers;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Traces given rays through given triangles with the kernel that renders, one request a line on standard input, so that
 * another kernel can be timed in turns with it:
 *
 * <pre>
 * run SCENE VARIANT SET THREADS    -> RES mega_rays_per_second hits sum_of_distances
 * build SCENE VARIANT              -> BUILD seconds
 * dump SCENE VARIANT SET FILE      -> OK; one float32 a ray: distance, infinity for a miss; for shd 1 blocked, 0 free
 * </pre>
 *
 * SCENE.tri and SCENE.SET lie in the folder: int32 magic, vertices, triangles, float32 positions, int32 indices; and int32
 * magic, n, then n times origin, nearest, direction, farthest. Little endian. The set named shd asks for any hit.
 */
public final class RayPeer {
    private static final int SPAN = 4096;

    private final Path folder;
    private final Map<String, Tracer> scenes = new HashMap<>();
    private final Map<String, float[]> rays = new HashMap<>();

    private RayPeer(Path folder) {
        this.folder = folder;
    }

    /** Answers requests until standard input ends. */
    public static void main(String[] args) throws Exception {
        RayPeer p = new RayPeer(Path.of(args.length > 0 ? args[0] : "."));
        BufferedReader in = new BufferedReader(new InputStreamReader(System.in, java.nio.charset.StandardCharsets.UTF_8));
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            String[] w = line.trim().split("\\s+");
            switch (w[0]) {
                case "run" -> System.out.println(p.run(w[1], w[3], Integer.parseInt(w[4])));
                case "build" -> System.out.printf(Locale.ROOT, "BUILD %.4f%n", p.build(w[1]));
                case "dump" -> System.out.println(p.dump(w[1], w[3], Path.of(w[4])));
                default -> System.exit(0);
            }
            System.out.flush();
        }
    }

    private static ByteBuffer read(Path file) throws IOException {
        try (FileChannel c = FileChannel.open(file, StandardOpenOption.READ)) {
            return c.map(FileChannel.MapMode.READ_ONLY, 0, c.size()).order(ByteOrder.LITTLE_ENDIAN);
        }
    }

    private Mesh mesh(String scene) throws IOException {
        ByteBuffer b = read(folder.resolve(scene + ".tri"));
        b.getInt();
        float[] p = new float[3 * b.getInt()];
        int[] idx = new int[3 * b.getInt()];
        b.slice().order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(p);
        b.position(b.position() + 4 * p.length);
        b.slice().order(ByteOrder.LITTLE_ENDIAN).asIntBuffer().get(idx);
        return new Mesh(scene, p, null, null, idx, 0);
    }

    private static Geometry geometry(Mesh m) {
        return new Geometry(List.of(m), List.of(new Instance(m.name(), 0, Affine.IDENTITY, 0)), Workers.COMPILING);
    }

    private Tracer tracer(String scene) throws IOException {
        Tracer t = scenes.get(scene);
        if (t == null) {
            SurfaceTable solid = new SurfaceTable(List.of(Material.diffuse("grey", new Vec3(0.5, 0.5, 0.5))), List.of());
            scenes.put(scene, t = Tracer.of(geometry(mesh(scene)), new LampShapes(List.of()), solid, Workers.COMPILING));
        }
        return t;
    }

    private float[] rays(String name) throws IOException {
        float[] r = rays.get(name);
        if (r == null) {
            ByteBuffer b = read(folder.resolve(name));
            b.getInt();
            r = new float[8 * b.getInt()];
            b.slice().order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(r);
            rays.put(name, r);
        }
        return r;
    }

    private double build(String scene) throws IOException {
        Mesh m = mesh(scene);
        long start = System.nanoTime();
        geometry(m);
        return (System.nanoTime() - start) / 1e9;
    }

    private String run(String scene, String set, int threads) throws Exception {
        Tracer t = tracer(scene);
        float[] r = rays(scene + "." + set);
        double[] sums = new double[threads];
        long[] hits = new long[threads];
        AtomicInteger next = new AtomicInteger();
        Thread[] all = new Thread[threads];
        long start = System.nanoTime();
        for (int k = 0; k < threads; k++) {
            int me = k;
            all[k] = new Thread(() -> {
                Ray ray = new Ray();
                for (int a = next.getAndAdd(SPAN); a < r.length / 8; a = next.getAndAdd(SPAN))
                    hits[me] += span(t, r, a, Math.min(r.length / 8, a + SPAN), set.equals("shd"), ray, sums, me, null);
            });
            all[k].start();
        }
        for (Thread x : all) x.join();
        double seconds = (System.nanoTime() - start) / 1e9, sum = 0;
        long count = 0;
        for (int k = 0; k < threads; k++) {
            sum += sums[k];
            count += hits[k];
        }
        return String.format(Locale.ROOT, "RES %.4f %d %.3f", r.length / 8 / seconds / 1e6, count, sum);
    }

    private static int span(Tracer t, float[] r, int from, int to, boolean any, Ray ray, double[] sums, int me, float[] out) {
        int hits = 0;
        double sum = 0;
        for (int i = from; i < to; i++) {
            int o = 8 * i;
            ray.set(r[o], r[o + 1], r[o + 2], r[o + 4], r[o + 5], r[o + 6], r[o + 7]);
            ray.tMin = r[o + 3];
            boolean hit = any ? !t.open(ray) : t.closest(ray);
            if (hit) {
                hits++;
                if (!any) sum += ray.t;
            }
            if (out != null) out[i] = any ? hit ? 1 : 0 : hit ? ray.t : Float.POSITIVE_INFINITY;
        }
        sums[me] += sum;
        return hits;
    }

    private String dump(String scene, String set, Path file) throws IOException {
        float[] r = rays(scene + "." + set), out = new float[r.length / 8];
        span(tracer(scene), r, 0, out.length, set.equals("shd"), new Ray(), new double[1], 0, out);
        ByteBuffer b = ByteBuffer.allocate(4 * out.length).order(ByteOrder.LITTLE_ENDIAN);
        b.asFloatBuffer().put(out);
        Files.write(file, b.array());
        return "OK";
    }
}
