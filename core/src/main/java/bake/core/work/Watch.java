package bake.core.work;

/** Told between the rounds of a prepass how far it is. */
public interface Watch {
    /** @param share of the prepass that is done, 0 to 1 */
    void prepared(double share);
}
