package bake.studio.estimate;

/**
 * What a picture will take.
 *
 * @param seconds most likely; in eight of ten cases between {@code low} and {@code high}
 * @param noise percent at the end, of what the preset's aim is of
 * @param passes until then
 * @param caches seconds before the passes, {@code rendering} of the passes, {@code finish} of all else with saving
 * @param basis in words what it stands on
 * @param limit which limit ends it: "noise aim", "time limit" or "passes"
 * @param probed whether it stands on a small picture that was made for it
 */
public record Estimate(double seconds, double low, double high, double noise, int passes, double caches, double rendering, double finish,
        String basis, String limit, boolean probed) {}
