package bake.core.geometry;

/**
 * A ray and what it met, reused for every query of a thread. Directions are of length one in world space.
 * After a closest-hit query {@link #t}, {@link #item}, {@link #prim}, {@link #u}, {@link #v} describe the hit.
 */
public final class Ray {
    public float ox, oy, oz, dx, dy, dz;
    /** The nearest distance that counts, at least 0. */
    public float tMin;
    /** Distance: on entry the farthest that counts, after a hit the distance of the hit. */
    public float t;
    /** Item of the top level that was hit, or -1. */
    public int item;
    /** Triangle of that item, in leaf order. */
    public int prim;
    /** Barycentric coordinates of the second and third vertex. */
    public float u, v;
    /** Colour that a shadow ray kept on its way through panes and cut-outs. */
    public float tr, tg, tb;
    /** Chance that a path going straight on would have passed everything that the shadow ray passed. */
    public float chance;
    /** Footprint of the ray at its origin, metres, and how fast it widens, radians; 0 for the sharpest look at textures. */
    public float width, spread;
    /** Scene lamp whose own body does not block this shadow ray, or -1. */
    public int skipLamp = -1;
    /** For whoever filters a hit and needs a colour for a moment. */
    public final float[] texel = new float[4];
    /** Queries made with this ray since the counter was last read. */
    public long traced;

    /**
     * Children still to be visited, each below the bits of its distance, so that their order is that of nearness; the two levels share it.
     */
    final long[] stack = new long[1024];
    final int[] near = new int[8];
    /** Distances and barycentric coordinates in a packet of triangles. */
    final float[] packet = new float[16];
    /** The ray in the space of the triangles, with the axis that it follows most as the third; see {@link #shear}. */
    int ax, ay, az;
    float lx, ly, lz, sx, sy, sz;
    private final float[] turned = new float[10];
    private static final int[] NEXT = {4, 8, 0, 4};

    /**
     * Prepares the test of triangles (Woop, Benthin and Wald 2013, "Watertight Ray/Triangle Intersection"): vertices are sheared so
     * that the ray runs along the third axis from zero, and edges are judged in the plane of the other two. A vertex comes out alike
     * for all triangles that share it, and the side of an edge is exact or zero, so no ray slips between two of them.
     */
    final void shear(float ox, float oy, float oz, float dx, float dy, float dz) {
        float x = Math.abs(dx), y = Math.abs(dy), z = Math.abs(dz);
        // Looked up and not branched on: directions are as good as random.
        float[] q = turned;
        q[0] = q[3] = ox;
        q[1] = q[4] = oy;
        q[2] = oz;
        q[5] = q[8] = dx;
        q[6] = q[9] = dy;
        q[7] = dz;
        int a = x >= y ? 0 : 1;
        a = Math.max(x, y) > z ? a : 2;
        az = 4 * a;
        ax = NEXT[a];
        ay = NEXT[a + 1];
        sz = 1 / q[5 + a];
        sx = -q[6 + a] * sz;
        sy = -q[7 + a] * sz;
        lx = q[1 + a];
        ly = q[2 + a];
        lz = q[a];
    }

    /** One coordinate in the plane across the ray of the vertex that begins at {@code o}. */
    final float sheared(float[] c, int o, int axis, float from, float shear) {
        return Math.fma(c[o + az] - lz, shear, c[o + axis] - from);
    }

    public void set(float ox, float oy, float oz, float dx, float dy, float dz, float tMax) {
        this.ox = ox;
        this.oy = oy;
        this.oz = oz;
        this.dx = dx;
        this.dy = dy;
        this.dz = dz;
        t = tMax;
        item = -1;
    }
}
