package bake.core.light;

import bake.core.geometry.Geometry;
import bake.core.math.Distribution;
import bake.core.math.PathSampler;
import bake.core.scene.Lamp;
import bake.core.surface.SurfaceTable;
import java.util.List;

/**
 * Lamps and glowing objects, of which one is chosen at a shading point in about the proportion of what each could give there: a few
 * are all looked at, many through a {@link LightTree}. The number of an emitter is that of the lamp, and after the lamps that of the
 * glowing object.
 */
public final class Emitters {
    /** Up to this many are all looked at for each choice. */
    private static final int FEW = 48;

    private final int count, lamps;
    private final LampTable lampTable;
    private final GlowTable glow;
    private final int[] group;
    private final LightTree tree;
    /** Choice of emitters by what they give in all. */
    private final Distribution powers;

    /**
     * @param groupOf source group of each lamp
     * @param glowGroup source group of glowing materials
     */
    public Emitters(List<Lamp> lampList, int[] groupOf, Geometry geometry, SurfaceTable surfaces, int glowGroup) {
        lamps = lampList.size();
        lampTable = new LampTable(lampList);
        glow = new GlowTable(geometry, surfaces);
        count = lamps + glow.count();
        group = new int[count];
        for (int i = 0; i < count; i++) group[i] = i < lamps ? groupOf[i] : glowGroup;
        float[] all = new float[count];
        for (int i = 0; i < count; i++) all[i] = power(i);
        powers = count > 0 ? new Distribution(all) : null;
        tree = count > FEW ? new LightTree(this) : null;
    }

    public int count() {
        return count;
    }

    float power(int i) {
        return i < lamps ? lampTable.power(i) : glow.power(i - lamps);
    }

    /** Middle, squared half size, axis, and the cosine to it beyond which there is no light, -1 for every way; eight numbers. */
    void bound(int i, float[] out) {
        if (i < lamps) lampTable.bound(i, out);
        else glow.bound(i - lamps, out);
    }

    /** About what an emitter could give to what {@code at} says of the surface at a place. */
    float weight(int i, float px, float py, float pz, LightSample at) {
        float w = weight(i, px, py, pz);
        return w > 0 ? w * (i < lamps ? lampTable.facing(i, px, py, pz, at) : glow.facing(i - lamps, px, py, pz, at)) : w;
    }

    private float weight(int i, float px, float py, float pz) {
        return i < lamps ? lampTable.weight(i, px, py, pz) : glow.weight(i - lamps, px, py, pz);
    }

    /** Chance that emitter {@code i} is chosen at a point. */
    private float chance(int i, float px, float py, float pz, LightSample scratch, float[] weights, int o) {
        if (tree != null) return tree.chance(i, px, py, pz, scratch, weights, o);
        float sum = 0;
        for (int k = 0; k < count; k++) sum += weight(k, px, py, pz, scratch);
        return sum > 0 ? weight(i, px, py, pz, scratch) / sum : 0;
    }

    /** In how many parts the emitters are that a guide may tell apart; 0 where they are too few to need one. */
    public int clusters() {
        return tree == null ? 0 : tree.clusters();
    }

    /** Part of the emitter that a sample chose. */
    public int cluster(LightSample s) {
        return tree.cluster(s.emitter);
    }

    /**
     * Density of the last sample of {@link #sample} within its part, times what the part seems to give there: what a guide learns the worth
     * of a part against.
     */
    public float perCluster(LightSample s, float px, float py, float pz) {
        return s.pdf / s.clusterChance * tree.clusterWeight(tree.cluster(s.emitter), px, py, pz, s);
    }

    /** Without a guide. */
    public boolean sample(float px, float py, float pz, float choose, float u1, float u2, LightSample out) {
        return sample(px, py, pz, choose, u1, u2, out, null, 0);
    }

    /**
     * Chooses an emitter and a point on it as seen from a point; false when nothing there can give light.
     *
     * @param worth what a guide says of each part, from place {@code o} on; null without one
     */
    public boolean sample(float px, float py, float pz, float choose, float u1, float u2, LightSample out, float[] weights, int o) {
        if (count == 0) return false;
        int i = tree != null ? tree.choose(px, py, pz, choose, out, weights, o) : choose(px, py, pz, choose, out);
        if (i < 0) return false;
        out.emitter = i;
        out.group = group[i];
        out.point = false;
        out.hidden = out.onMesh = false;
        out.lamp = i < lamps ? i : -1;
        if (i >= lamps) return glow.sample(i - lamps, px, py, pz, out.chance, out.rest, u1, u2, out);
        return lampTable.sample(i, px, py, pz, out.chance, u1, u2, out);
    }

    /** Sum of what all could give, cd. */
    double emitted() {
        return powers == null ? 0 : powers.total();
    }

    /** Chooses a ray on which light leaves an emitter; this was chosen to be done with some chance. */
    boolean emit(PathSampler random, float chance, Emission out) {
        if (powers == null || !(powers.total() > 0)) return false;
        int i = powers.sample(random.next1());
        float p = chance * powers.probability(i);
        out.group = group[i];
        return i < lamps ? lampTable.emit(i, p, random, out) : glow.emit(i - lamps, p, random, out);
    }

    private int choose(float px, float py, float pz, float choose, LightSample out) {
        if (out.weights.length < count) out.weights = new float[count];
        float sum = 0;
        for (int k = 0; k < count; k++) sum += out.weights[k] = weight(k, px, py, pz, out);
        if (!(sum > 0)) return -1;
        float target = choose * sum, run = 0;
        int i = -1;
        for (int k = 0; k < count; k++) {
            float w = out.weights[k];
            if (w <= 0) continue;
            i = k;
            if (target < run + w) break;
            run += w;
        }
        out.chance = out.weights[i] / sum;
        out.rest = Math.clamp((target - run) / out.weights[i], 0f, 0x1.fffffep-1f);
        return i;
    }

    /** Turns the sample's axis by local coordinates (along, a, b) in any frame around it (Duff et al. 2017). */
    static void turn(LightSample s, float along, float a, float b) {
        float nx = s.x, ny = s.y, nz = s.z, sign = Math.copySign(1, nz), q = -1 / (sign + nz), m = nx * ny * q;
        s.x = nx * along + a * (1 + sign * nx * nx * q) + b * m;
        s.y = ny * along + a * sign * m + b * (sign + ny * ny * q);
        s.z = nz * along - a * sign * nx - b * ny;
    }

    /** Density with which {@link #sample} at (px, py, pz) would have chosen a glowing triangle's point met along a ray. */
    public float pdfGlow(int item, int prim, float px, float py, float pz, float distance, float cos, LightSample scratch, float[] weights,
            int o) {
        int number = glow.number(item, prim);
        if (number < 0 || cos <= 0) return 0;
        return chance(lamps + glow.cluster(number), px, py, pz, scratch, weights, o)
                * glow.pdf(number, px, py, pz, distance, cos, scratch.triangle);
    }

    /** Luminance of a lamp's body met by a ray along (dx, dy, dz) into out; false from an unlit side. */
    public boolean lampLuminance(int lamp, float dx, float dy, float dz, float[] out) {
        return lampTable.luminance(lamp, dx, dy, dz, out);
    }

    /** Whether the camera ({@code straight}) or what has bounced sees the body of a lamp. */
    public boolean seen(int lamp, boolean straight) {
        return lampTable.seen(lamp, straight);
    }

    public int lampGroup(int lamp) {
        return group[lamp];
    }

    /** Density with which {@link #sample} at (px, py, pz) would have chosen the direction that met a lamp's body. */
    public float pdfLamp(int lamp, float px, float py, float pz, float dx, float dy, float dz, float distance, LightSample scratch,
            float[] weights, int o) {
        float pdf = lampTable.pdf(lamp, px, py, pz, dx, dy, dz, distance);
        return pdf > 0 ? pdf * chance(lamp, px, py, pz, scratch, weights, o) : 0;
    }
}
