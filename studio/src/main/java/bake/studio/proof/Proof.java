package bake.studio.proof;

import bake.formats.project.Preset;
import bake.formats.project.View;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;

/**
 * One picture that was made, kept with how it was made.
 *
 * @param number counted from one, never used again
 * @param title what the artist called it, or empty
 * @param view the view as it was
 * @param made local time, ISO 8601
 * @param noise percent
 * @param clamped share of the light that the clamp took away
 * @param stopped whether it was stopped before its limits
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Proof(int number, String title, View view, Preset preset, int width, int height, String made, double seconds, int passes,
        double noise,
        long rays, double clamped, long seed, boolean stopped, boolean pinned) {

    public Proof withTitle(String t) {
        return new Proof(number, t, view, preset, width, height, made, seconds, passes, noise, rays, clamped, seed, stopped, pinned);
    }

    public Proof withPinned(boolean p) {
        return new Proof(number, title, view, preset, width, height, made, seconds, passes, noise, rays, clamped, seed, stopped, p);
    }
}
