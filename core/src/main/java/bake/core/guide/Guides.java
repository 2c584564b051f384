package bake.core.guide;

/**
 * All that the training of a picture has learnt, to begin another one with.
 *
 * @param sky where the surroundings are seen
 * @param lamps which lamps matter where; null where they are few
 * @param rounds of training that were held
 * @param brought light that paths brought, by source group, in whole steps
 * @param bounced sums of the share of bounced light in the noise
 */
public record Guides(LightGuide sky, LightGuide lamps, int rounds, long[] brought, long[] bounced) {
    public Guides {
        if (rounds < 1 || rounds > 24) throw new IllegalArgumentException("not a guide");
    }

    /** Places that were learnt apart, of both guides. */
    public int places() {
        return sky.places() + (lamps == null ? 0 : lamps.places());
    }
}
