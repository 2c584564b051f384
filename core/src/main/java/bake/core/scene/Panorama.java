package bake.core.scene;

/**
 * An equirectangular picture of the surroundings, or a flat one that stands behind a model. The top row is the zenith, the middle column
 * looks along +y. Linear Rec. 709 luminance by colour, cd/m2, finite and not negative. Immutable; two panoramas are equal when they are the
 * same object.
 */
public final class Panorama {
    private final String name;
    private final int width, height;
    private final float[] full;
    private final short[] half;
    private final float unit;

    /** @param rgb length 3 width height, row by row from the top */
    public Panorama(String name, int width, int height, float[] rgb) {
        this(name, width, height, rgb, null, 1, rgb.length);
    }

    private Panorama(String name, int width, int height, float[] full, short[] half, float unit, long length) {
        if (width < 1 || height < 1 || length != 3L * width * height)
            throw new IllegalArgumentException("panorama " + name + ": size and data do not agree");
        this.name = name;
        this.width = width;
        this.height = height;
        this.full = full;
        this.half = half;
        this.unit = unit;
    }

    /**
     * A panorama that is kept in half the memory: 16 bit floats (IEEE 754 binary16) of multiples of a unit.
     *
     * @param halves length 3 width height
     * @param unit cd/m2, above 0
     */
    public static Panorama packed(String name, int width, int height, short[] halves, float unit) {
        return new Panorama(name, width, height, null, halves, unit, halves.length);
    }

    public String name() {
        return name;
    }

    public int width() {
        return width;
    }

    public int height() {
        return height;
    }

    /** One of the 3 width height values, cd/m2. */
    public float at(int i) {
        return full != null ? full[i] : unit * Float.float16ToFloat(half[i]);
    }

    /** Luminance of pixel {@code i}, cd/m2 (Rec. 709). */
    public float luminance(int i) {
        return 0.2126f * at(3 * i) + 0.7152f * at(3 * i + 1) + 0.0722f * at(3 * i + 2);
    }

    /** All values anew, for edits. */
    public float[] copy() {
        float[] out = new float[3 * width * height];
        for (int i = 0; i < out.length; i++) out[i] = at(i);
        return out;
    }
}
