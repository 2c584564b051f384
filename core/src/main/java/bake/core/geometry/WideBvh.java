package bake.core.geometry;

import java.util.Arrays;

/**
 * A hierarchy of eight boxes a node, collapsed from a binary one: the child with the largest surface is opened until
 * eight are found (Wald, Benthin and Boulos 2008, "Getting Rid of Packets").
 *
 * @param boxes 48 floats a node: eight min x, min y, min z, max x, max y, max z; unused places are boxes no ray enters
 * @param children eight ints a node: an inner node's number, or the leaf code of {@link Bvh#leaf}
 */
public record WideBvh(float[] boxes, int[] children) {
    static final int WIDTH = 8;

    /** Whether the vector module was resolved at start. */
    static final boolean AVAILABLE = ModuleLayer.boot().findModule("jdk.incubator.vector").isPresent() && !Boolean.getBoolean("bake.scalar");

    public long bytes() {
        return 4L * (boxes.length + children.length);
    }

    static WideBvh of(Bvh b) {
        return new Collapse(b).run();
    }

    private static final class Collapse {
        private final Bvh bvh;
        private float[] boxes = new float[48 * 64];
        private int[] children = new int[8 * 64];
        private int used;

        Collapse(Bvh b) {
            bvh = b;
        }

        WideBvh run() {
            // Work list of binary nodes that become wide ones, in the order of their wide numbers.
            int[] source = new int[Math.max(1, bvh.children().length / 2)];
            source[0] = 0;
            used = 1;
            int[] slots = new int[WIDTH];
            for (int at = 0; at < used; at++) {
                int n = gather(source[at], slots);
                grow(at + 1);
                Arrays.fill(boxes, 48 * at, 48 * at + 24, Float.POSITIVE_INFINITY);
                Arrays.fill(boxes, 48 * at + 24, 48 * at + 48, Float.NEGATIVE_INFINITY);
                for (int k = 0; k < WIDTH; k++) {
                    int child = Bvh.leaf(0, 0);
                    if (k < n) {
                        int slot = slots[k], o = 12 * (slot >> 1) + 6 * (slot & 1);
                        for (int a = 0; a < 6; a++) boxes[48 * at + 8 * a + k] = bvh.boxes()[o + a];
                        child = bvh.children()[slot];
                        if (child >= 0) {
                            source[used] = child;
                            child = used++;
                        }
                    }
                    children[8 * at + k] = child;
                }
            }
            return new WideBvh(Arrays.copyOf(boxes, 48 * used), Arrays.copyOf(children, 8 * used));
        }

        private void grow(int nodes) {
            if (48 * nodes <= boxes.length) return;
            boxes = Arrays.copyOf(boxes, 2 * boxes.length);
            children = Arrays.copyOf(children, 2 * children.length);
        }

        /** Slots (2 node + side) of up to eight descendants; leaves that hold nothing are dropped. */
        private int gather(int node, int[] slots) {
            int n = 0;
            for (int side = 0; side < 2; side++) if (!empty(2 * node + side)) slots[n++] = 2 * node + side;
            while (n < WIDTH) {
                int best = -1;
                float most = -1;
                for (int k = 0; k < n; k++) {
                    if (bvh.children()[slots[k]] < 0) continue;
                    float a = area(slots[k]);
                    if (a > most) {
                        most = a;
                        best = k;
                    }
                }
                if (best < 0) break;
                int open = bvh.children()[slots[best]];
                slots[best] = 2 * open;
                slots[n++] = 2 * open + 1;
            }
            return n;
        }

        private boolean empty(int slot) {
            int c = bvh.children()[slot];
            return c < 0 && Bvh.leafCount(c) == 0;
        }

        private float area(int slot) {
            int o = 12 * (slot >> 1) + 6 * (slot & 1);
            float x = bvh.boxes()[o + 3] - bvh.boxes()[o], y = bvh.boxes()[o + 4] - bvh.boxes()[o + 1], z = bvh.boxes()[o + 5] - bvh.boxes()[o + 2];
            return x * y + y * z + z * x;
        }
    }
}
