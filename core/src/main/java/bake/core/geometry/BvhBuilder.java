package bake.core.geometry;

import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.RecursiveTask;
import java.util.stream.IntStream;

/**
 * Builds a {@link Bvh} from boxes: binned surface area heuristic (Wald 2007, "On fast Construction of SAH-based Bounding
 * Volume Hierarchies") counting leaves in blocks, straight into nodes of eight: the child with the largest surface is
 * split until there are eight (Wald, Benthin and Boulos 2008, "Getting Rid of Packets"). Large subtrees are built in
 * parallel, each into an {@link Arena} of its own that is then appended in child order, so the result does not depend on
 * timing.
 */
public final class BvhBuilder {
    private static final int PARALLEL_FROM = 12_000;

    private final int[] refs;
    private final int block;

    private BvhBuilder(float[] boxes, int block) {
        int n = boxes.length / 6;
        this.block = block;
        refs = new int[Range.REF * n];
        IntStream.range(0, (n + 65_535) >> 16).parallel().forEach(part -> {
            for (int i = part << 16; i < Math.min(n, (part + 1) << 16); i++) {
                Range.put(boxes, 6 * i, refs, Range.REF * i);
                refs[Range.REF * i + Range.ID] = i;
            }
        });
    }

    /**
     * @param boxes min x y z, max x y z for each primitive, all finite; at least one primitive
     * @param block most primitives of a leaf, at least 1
     */
    public static Bvh build(float[] boxes, int block, ForkJoinPool pool) {
        if (boxes.length == 0) throw new IllegalArgumentException("a hierarchy needs at least one primitive");
        return new BvhBuilder(boxes, block).run(pool);
    }

    private Bvh run(ForkJoinPool pool) {
        Range all = new Range();
        all.to = refs.length / Range.REF;
        all.measure(refs);
        Subtree root = new Subtree(all);
        Arena a = all.size() > PARALLEL_FROM ? pool.invoke(root) : root.compute();
        float[] bounds = new float[6];
        for (int k = 0; k < 6; k++) bounds[k] = Range.coordinate(all.box, 0, k);
        return new Bvh(a.nodes(), a.order(), block, bounds);
    }

    /** Builds the node over references [from, to) and all below it. */
    private final class Subtree extends RecursiveTask<Arena> {
        private final transient Range whole = new Range();
        private final transient Arena arena = new Arena(block);
        private final transient SplitFinder finder = new SplitFinder(refs, block);
        private transient Range[][] levels = new Range[16][];

        Subtree(Range r) {
            whole.copy(r);
        }

        @Override
        protected Arena compute() {
            node(whole, 0);
            return arena;
        }

        private Range[] level(int depth) {
            if (depth == levels.length) levels = java.util.Arrays.copyOf(levels, 2 * depth);
            if (levels[depth] == null) {
                levels[depth] = new Range[Bvh.WIDTH];
                for (int k = 0; k < Bvh.WIDTH; k++) levels[depth][k] = new Range();
            }
            return levels[depth];
        }

        private int node(Range range, int depth) {
            Range[] kids = level(depth);
            kids[0].copy(range);
            int n = open(kids, 1), self = arena.newNode();
            Subtree[] forked = null;
            for (int k = 0; k < n; k++) {
                arena.setBox(self, k, kids[k].box);
                if (kids[k].size() <= block) arena.setChild(self, k, ~arena.addLeaf(refs, kids[k].from, kids[k].to));
                else if (kids[k].size() > PARALLEL_FROM) {
                    if (forked == null) forked = new Subtree[Bvh.WIDTH];
                    forked[k] = new Subtree(kids[k]);
                    forked[k].fork();
                } else arena.setChild(self, k, node(kids[k], depth + 1));
            }
            for (int k = 0; forked != null && k < n; k++) if (forked[k] != null) arena.setChild(self, k, arena.append(forked[k].join()));
            return self;
        }

        /** Splits the child with the largest surface until there are eight or none is left to split. */
        private int open(Range[] kids, int n) {
            while (n < Bvh.WIDTH) {
                int best = -1;
                float most = -1;
                for (int k = 0; k < n; k++) {
                    float area = kids[k].size() > block ? kids[k].halfArea() : -1;
                    if (area > most) {
                        most = area;
                        best = k;
                    }
                }
                if (best < 0) break;
                finder.split(kids[best], kids[n++]);
            }
            return n;
        }
    }
}
