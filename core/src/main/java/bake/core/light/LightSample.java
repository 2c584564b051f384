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
    /** Number of the scene lamp, or -1. */
    public int lamp = -1;
    /** Source group of the light. */
    public int group;

    /** Bin of the dome that the direction lies in. */
    public int bin;

    final float[] rgb = new float[4];
    float[] weights = new float[0];
    /** Chance of the emitter that was chosen, and what is left of the number that chose it. */
    float chance, rest;
    /** Nodes of the light tree that are looked at, and their weights. */
    final int[] cut = new int[LightTree.CUT];
    final float[] cutWeights = new float[LightTree.CUT];
}
