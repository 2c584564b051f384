package bake.core.surface;

/** Reflectance of dielectric boundaries and panes. */
public final class Fresnel {
    private Fresnel() {}

    /**
     * Unpolarised reflectance of a boundary between dielectrics (Fresnel's equations).
     *
     * @param cos cosine of the angle of incidence, 0 to 1
     * @param eta index on the far side over the index on the near side
     * @return 0 to 1; 1 at total internal reflection
     */
    public static float dielectric(float cos, float eta) {
        float sin2 = (1 - cos * cos) / (eta * eta);
        if (sin2 >= 1) return 1;
        float ct = (float) Math.sqrt(1 - sin2);
        float s = (cos - eta * ct) / (cos + eta * ct), p = (eta * cos - ct) / (eta * cos + ct);
        return 0.5f * (s * s + p * p);
    }

    /**
     * Share of light that a clear pane lets through straight on, all reflections between its two faces added up,
     * each polarisation for itself: T = (1 - R) / (1 + R) (Born and Wolf, Principles of Optics, plane-parallel plate
     * without interference).
     */
    public static float paneTransmittance(float cos, float ior) {
        float sin2 = (1 - cos * cos) / (ior * ior);
        float ct = (float) Math.sqrt(1 - sin2);
        float s = (cos - ior * ct) / (cos + ior * ct), p = (ior * cos - ct) / (ior * cos + ct);
        float rs = s * s, rp = p * p;
        return 0.5f * ((1 - rs) / (1 + rs) + (1 - rp) / (1 + rp));
    }
}
