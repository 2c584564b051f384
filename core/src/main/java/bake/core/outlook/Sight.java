package bake.core.outlook;

/** Something that is looked at behind the model. Immutable; shared by all threads. */
interface Sight {
    /**
     * Luminance by colour into {@code out[0..2]}, cd/m2; {@code out} has four places.
     *
     * @param ox where the look comes from, metres; likewise {@code oy} and {@code oz}
     * @param dx unit direction; likewise {@code dy} and {@code dz}
     * @param px place in the picture, 0 left to 1 right, {@code py} 0 top to 1 bottom
     */
    void radiance(float ox, float oy, float oz, float dx, float dy, float dz, float px, float py, float[] out);

    /** Luminance that counts as white, cd/m2. */
    float white();
}
