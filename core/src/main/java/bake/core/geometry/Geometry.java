package bake.core.geometry;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.ForkJoinTask;

/**
 * The compiled instances of a scene: meshes that occur once, and small ones that occur a few times, are merged into
 * one world-space hierarchy; the others keep one hierarchy each, shared by their instances.
 */
public final class Geometry {
    /** Repeated meshes are copied into the world hierarchy while all copies together stay below this. */
    private static final long COPY_BUDGET = 300_000;

    private static final int COPY_SIZE = 400;

    final Blas[] blasOf;
    final float[] toWorld;
    final float[] toLocal;
    final float[] itemBoxes;
    /** Scene instance behind each item, -1 for the merged world. */
    final int[] instanceOf;
    private final List<Blas> distinct = new ArrayList<>();

    /**
     * @throws IllegalArgumentException when an instance has a transform that is not finite or cannot be inverted
     */
    public Geometry(List<Mesh> meshes, List<Instance> instances, ForkJoinPool pool) {
        this(meshes, instances, pool, BlasStore.NONE);
    }

    /**
     * @param store where hierarchies that were built before may be found
     * @throws IllegalArgumentException when an instance has a transform that is not finite or cannot be inverted
     */
    public Geometry(List<Mesh> meshes, List<Instance> instances, ForkJoinPool pool, BlasStore store) {
        int[] uses = new int[meshes.size()];
        for (Instance i : instances) uses[i.mesh()]++;
        boolean[] copied = new boolean[meshes.size()];
        long budget = COPY_BUDGET;
        for (int m = 0; m < uses.length; m++) {
            long extra = (long) meshes.get(m).triangles() * (uses[m] - 1);
            copied[m] = uses[m] == 1 || meshes.get(m).triangles() <= COPY_SIZE && extra <= budget;
            if (copied[m] && uses[m] > 1) budget -= extra;
        }
        List<Instance> merged = new ArrayList<>();
        List<Integer> mergedNumber = new ArrayList<>(), kept = new ArrayList<>();
        for (int i = 0; i < instances.size(); i++) {
            Instance inst = instances.get(i);
            if (meshes.get(inst.mesh()).triangles() == 0) continue;
            if (copied[inst.mesh()]) {
                merged.add(inst);
                mergedNumber.add(i);
            } else kept.add(i);
        }
        int world = merged.isEmpty() ? 0 : 1, n = world + kept.size();
        blasOf = new Blas[n];
        toWorld = new float[12 * n];
        toLocal = new float[12 * n];
        itemBoxes = new float[6 * n];
        instanceOf = new int[n];
        // The shared meshes do not need each other, nor the merged world them.
        Map<Integer, ForkJoinTask<Blas>> own = new LinkedHashMap<>();
        for (int k : kept) own.computeIfAbsent(instances.get(k).mesh(), m -> pool.submit(() -> Blas.of(meshes.get(m), pool)));
        if (world == 1) {
            Blas b = merged(meshes, merged, mergedNumber.stream().mapToInt(x -> x).toArray(), pool, store);
            distinct.add(b);
            place(0, b, Affine.IDENTITY, -1);
        }
        for (ForkJoinTask<Blas> t : own.values()) distinct.add(t.join());
        for (int k = 0; k < kept.size(); k++) {
            Instance inst = instances.get(kept.get(k));
            place(world + k, own.get(inst.mesh()).join(), inst.toWorld(), kept.get(k));
        }
    }

    private static Blas merged(List<Mesh> meshes, List<Instance> instances, int[] source, ForkJoinPool pool, BlasStore store) {
        if (store == BlasStore.NONE) return Blas.merge(meshes, instances, source, pool);
        String key = ContentKey.of(meshes, instances, source);
        Blas b = store.find(key);
        if (b == null || !b.isSound()) store.keep(key, b = Blas.merge(meshes, instances, source, pool));
        return b;
    }

    private void place(int item, Blas blas, Affine a, int instance) {
        blasOf[item] = blas;
        instanceOf[item] = instance;
        a.store(toWorld, 12 * item);
        a.inverse().store(toLocal, 12 * item);
        float[] b = blas.bvh().bounds();
        float inf = Float.POSITIVE_INFINITY;
        float[] box = {inf, inf, inf, -inf, -inf, -inf};
        for (int c = 0; c < 8; c++) {
            Vec3 p = a.point(new Vec3(b[(c & 1) * 3], b[1 + (c >> 1 & 1) * 3], b[2 + (c >> 2) * 3]));
            double[] q = {p.x(), p.y(), p.z()};
            for (int k = 0; k < 3; k++) {
                box[k] = Math.min(box[k], (float) q[k]);
                box[3 + k] = Math.max(box[3 + k], (float) q[k]);
            }
        }
        for (int k = 0; k < 3; k++) {
            // Rotated copies are rounded differently from their boxes; a hair of room keeps edges watertight.
            float pad = 1e-6f * Math.max(1, Math.max(Math.abs(box[k]), Math.abs(box[3 + k])));
            box[k] -= pad;
            box[3 + k] += pad;
        }
        System.arraycopy(box, 0, itemBoxes, 6 * item, 6);
    }

    /** Largest absolute coordinate of the place that an item was moved to, metres. */
    public float farthest(int item) {
        int o = 12 * item;
        return Math.max(Math.abs(toWorld[o + 3]), Math.max(Math.abs(toWorld[o + 7]), Math.abs(toWorld[o + 11])));
    }

    /** At least how much larger than its own numbers an item is in the world. */
    public float scale(int item) {
        float most = 0;
        for (int row = 12 * item; row < 12 * item + 12; row += 4) most =
                Math.max(most, Math.abs(toWorld[row]) + Math.abs(toWorld[row + 1]) + Math.abs(toWorld[row + 2]));
        return most;
    }

    public int items() {
        return blasOf.length;
    }

    public Blas blas(int item) {
        return blasOf[item];
    }

    /** Offset-free access to the 3x4 object-to-world matrix of an item: entry {@code k} of 12, row by row. */
    public float toWorld(int item, int k) {
        return toWorld[12 * item + k];
    }

    public float toLocal(int item, int k) {
        return toLocal[12 * item + k];
    }

    /** Whether the item lies in world space already. */
    public boolean isWorld(int item) {
        return instanceOf[item] < 0;
    }

    /** Scene instance that a triangle of an item belongs to. */
    public int instance(int item, int prim) {
        return instanceOf[item] < 0 ? blasOf[item].sources()[prim] : instanceOf[item];
    }

    /** Triangles held in memory, shared ones counted once. */
    public long uniqueTriangles() {
        return distinct.stream().mapToLong(Blas::triangles).sum();
    }

    public long bytes() {
        return distinct.stream().mapToLong(Blas::bytes).sum() + 4L * (toWorld.length * 2 + itemBoxes.length);
    }
}
