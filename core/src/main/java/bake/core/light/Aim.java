package bake.core.light;

/** How to aim at the surroundings from one part of a scene: at all of them, or in one of several ways, each with its chance. Immutable. */
public abstract class Aim {
    private final float whole;

    Aim(float whole) {
        this.whole = whole;
    }

    /** Chance of aiming at all of the surroundings. */
    public final float whole() {
        return whole;
    }

    /** The same from a place, where some of the ways may not be open and fall to this one. */
    public float wholeFrom(float px, float py, float pz) {
        return whole;
    }

    /**
     * Chooses a direction in another way than at everything into the sample's x, y, z; returns the way's number, or -1 where it falls to
     * aiming at everything.
     *
     * @param choose in [0, 1)
     */
    public abstract int sample(float px, float py, float pz, float choose, float u1, float u2, LightSample out);

    /**
     * Density per steradian of a direction, all ways together.
     *
     * @param whole density of aiming at all of the surroundings, over which {@code bin} the direction lies in
     */
    public abstract float pdf(float px, float py, float pz, float dx, float dy, float dz, float whole, int bin);

    /** Whether much of the surroundings is hidden from there. */
    public abstract boolean indoors();
}
