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

    /** Children still to be visited, each below the bits of its distance, so that their order is that of nearness; the two levels share it. */
    final long[] stack = new long[1024];
    final int[] near = new int[8];
    /** Distances and barycentric coordinates in a packet of triangles. */
    final float[] packet = new float[12];

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
