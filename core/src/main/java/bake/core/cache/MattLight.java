package bake.core.cache;

/** Irradiance of matt surfaces anywhere in a scene, found before: what later bounces may end in. Read by all threads at once. */
public interface MattLight {
    /**
     * Reads what is known of a place.
     *
     * @param nx with {@code ny} and {@code nz}, the unit normal on the side that is asked for
     * @param most widest means that may be taken there, metres
     * @param u with {@code v}, random numbers in [0, 1)
     * @param out gets irradiance over pi by source group, cd/m2, when true is returned
     * @return whether there is anything fit to be used
     */
    boolean read(float x, float y, float z, float nx, float ny, float nz, float most, float u, float v, float[] out);
}
