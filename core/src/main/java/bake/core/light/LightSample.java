package bake.core.light;

/** One chosen place or direction that light comes from; reused by its thread. */
public final class LightSample {
    /** Unit direction towards the light. */
    public float x, y, z;
    /** Distance to the light, metres; infinite for sun and dome. */
    public float distance;
    /** Luminance by colour, cd/m2; for lights without size the illuminance at normal incidence, lux. */
    public float r, g, b;
    /** Density per steradian, the choice of the light included; for lights without size the chance of the choice. */
    public float pdf;
    /** True for lights without size, which no scattered ray can meet. */
    public boolean point;
    /** True for lights that scattered rays cannot see. */
    public boolean hidden;
    /** True for a place on a triangle, which shadow rays must end before: {@link #tx} and so on say where. */
    public boolean onMesh;
    /** A place a hair before the triangle, on the side of whoever is lit. */
    public float tx, ty, tz;
    /** Number of the scene lamp, or -1. */
    public int lamp = -1;
    /** Source group of the light. */
    public int group;

    /** Normal of the surface that looks for light, or zero where light may come to it from both sides. */
    private float nx, ny, nz;
    private boolean facing;

    /** Becomes the sample that another is; how emitters were weighed for it stays behind. */
    public void take(LightSample o) {
        x = o.x;
        y = o.y;
        z = o.z;
        distance = o.distance;
        r = o.r;
        g = o.g;
        b = o.b;
        pdf = o.pdf;
        point = o.point;
        hidden = o.hidden;
        onMesh = o.onMesh;
        tx = o.tx;
        ty = o.ty;
        tz = o.tz;
        lamp = o.lamp;
        group = o.group;
        bin = o.bin;
        emitter = o.emitter;
        clusterChance = o.clusterChance;
    }

    /** Says which way the surface faces that looks for light; emitters behind it are not looked at. */
    public void from(float nx, float ny, float nz) {
        this.nx = nx;
        this.ny = ny;
        this.nz = nz;
        facing = true;
    }

    /** Light may come from all around. */
    public void fromAround() {
        facing = false;
    }

    /**
     * At most the cosine under which light from a ball comes to the surface, 0 where it is behind; a little is left for what just peeps
     * over the horizon. One where light may come from all around.
     *
     * @param d2 squared length of (x, y, z), which leads to the middle of the ball, whose radius has the square r2
     */
    float facing(float x, float y, float z, float d2, float r2) {
        if (!facing) return 1;
        float d = (float) Math.sqrt(d2), c = (x * nx + y * ny + z * nz) / d, s = (float) Math.sqrt(Math.min(1, r2 / d2));
        if (c <= -s) return 0;
        return Math.min(1, Math.max(c, 0) + 0.5f * s + 0.01f);
    }

    /** Bin of the dome that the direction lies in. */
    public int bin;

    final SphericalTriangle triangle = new SphericalTriangle();
    /** Weights of the triangles among which one is chosen, and the chance of that. */
    final float[] faces = new float[GlowCluster.LOOKED];
    float face;
    /** Whether {@link #cut} and its weights stand for a place already; they do so from now on. */
    boolean stands(float px, float py, float pz, float[] weights, int o) {
        float[] w = weighed;
        float x = facing ? nx : 0, y = facing ? ny : 0, z = facing ? nz : 0;
        if (parts > 0 && w[0] == px && w[1] == py && w[2] == pz && w[3] == x && w[4] == y && w[5] == z && weighedBy == weights
                && weighedAt == o) return true;
        w[0] = px;
        w[1] = py;
        w[2] = pz;
        w[3] = x;
        w[4] = y;
        w[5] = z;
        weighedBy = weights;
        weighedAt = o;
        return false;
    }

    final float[] rgb = new float[4];
    float[] weights = new float[0];
    /** Chance of the emitter that was chosen, and what is left of the number that chose it. */
    float chance, rest;
    /** Chance of the part of the light tree that it is in. */
    float clusterChance;
    /** Number of the emitter that was chosen. */
    int emitter = -1;
    /** Nodes of the light tree that are looked at, and their weights. */
    /** For which place, facing and guide the parts were weighed last; several choices are made at one point. */
    private final float[] weighed = new float[6];
    private float[] weighedBy;
    private int weighedAt;
    int parts;
    final int[] cut = new int[LightTree.CLUSTERS];
    final float[] cutWeights = new float[LightTree.CLUSTERS];
}
