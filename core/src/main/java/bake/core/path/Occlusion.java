package bake.core.path;

/**
 * Corners made darker than they are, for the look of it: light that has bounced is dimmed at the first matt surface by how much of what
 * lies around is near (ambient occlusion: Zhukov, Iones and Kronin 1998, "An Ambient Light Illumination Model", with a step for their
 * falloff). Light straight from sources stays, but for surroundings that are cached with the bounces.
 *
 * @param strength 0 for none to 1: what is shut in altogether gets no bounced light
 * @param metres up to where things count as near, 0.001 to 100
 */
public record Occlusion(double strength, double metres) {
    public static final Occlusion NONE = new Occlusion(0, 0.3);

    /** @throws IllegalArgumentException when a value is out of range */
    public Occlusion {
        if (!(strength >= 0 && strength <= 1)) throw new IllegalArgumentException("corners are darkened by 0 to 1, not " + strength);
        if (!(metres >= 0.001 && metres <= 100))
            throw new IllegalArgumentException("corners are darkened within 0.001 to 100 metres, not " + metres);
    }
}
