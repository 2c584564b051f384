package bake.core.scene;

import java.util.List;

/**
 * What is done for a surface beyond what is done for all.
 *
 * @param samples paths that each pass gives a pixel that shows the surface, 1 to {@value #MOST}
 * @param edges the same for pixels in which it ends, 0 for as the picture says; never fewer than {@code samples}
 * @param reflections most bounces in gloss and mirrors from the surface on, itself counted, that show more than the light of what they
 *     meet; {@link #ALL} for no limit of its own
 */
public record Effort(int samples, int edges, int reflections) {
    public static final int MOST = 16, ALL = 1000;
    public static final Effort USUAL = new Effort(1, 0, ALL);

    /** @throws IllegalArgumentException for what is out of range */
    public Effort {
        if (samples < 1 || samples > MOST || edges < 0 || edges > MOST || reflections < 0)
            throw new IllegalArgumentException("effort takes 1 to " + MOST + " samples, 0 to " + MOST + " for edges and 0 or more reflections");
    }

    /** The greater care of two, and the fewer reflections. */
    public Effort and(Effort o) {
        return new Effort(Math.max(samples, o.samples), Math.max(edges, o.edges), Math.min(reflections, o.reflections));
    }

    /**
     * Efforts by number of the material and of the instance; an empty list for the usual one of all.
     */
    public record Table(List<Effort> materials, List<Effort> instances) {
        public static final Table NONE = new Table(List.of(), List.of());

        public Effort of(int material, int instance) {
            Effort m = materials.isEmpty() ? USUAL : materials.get(material), i = instances.isEmpty() ? USUAL : instances.get(instance);
            return m == USUAL ? i : i == USUAL ? m : m.and(i);
        }

        public boolean none() {
            return materials.isEmpty() && instances.isEmpty();
        }
    }
}
