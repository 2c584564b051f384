package bake.studio.proof;

import bake.formats.project.Preset;
import bake.formats.project.View;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * One picture that was made, kept with how it was made.
 *
 * @param number counted from one, never used again
 * @param title what the artist called it, or empty
 * @param note what the artist wrote about it, or empty
 * @param view the view as it was
 * @param made local time, ISO 8601
 * @param seconds of rendering, of which {@code caches} came before the passes
 * @param noise percent
 * @param clamped share of the light that the clamp took away
 * @param stopped whether it was stopped before its limits
 * @param over number of the proof that a region was laid over; 0 for a whole picture
 * @param threads that made it
 * @param error percent that the denoised picture is off, {@code worst} the same of its noisiest blocks; null where it was not judged
 */
@JsonIgnoreProperties(ignoreUnknown = true)
@RecordBuilder
public record Proof(int number, String title, String note, View view, Preset preset, int width, int height, String made, double seconds,
        double caches, int passes, double noise, long rays, double clamped, long seed, boolean stopped, boolean pinned, int over,
        int threads, Double error, Double worst) implements ProofBuilder.With {

    /** Share of its time limit from which on it has ended a proof. */
    private static final double NEARLY = 0.98;

    public Proof {
        title = title == null ? "" : title;
        note = note == null ? "" : note;
    }

    /** What ended it, in words: a limit of its preset, or somebody. */
    public String endedBy() {
        if (stopped) return "stopped by hand";
        if (preset.samples() > 0 && passes >= preset.samples()) return "by its samples";
        if (preset.timeLimit() > 0 && seconds >= NEARLY * preset.timeLimit()) return "by its time limit";
        return preset.noiseAim() > 0 ? "by its noise aim" : "by itself";
    }

    /** What the preset's aim is of, percent: noise before denoising or what is left after it. */
    public double figure() {
        return preset.aimsAtDenoised() && error != null ? error : noise;
    }

    /** Whether some words are all found in its number, name, note, view or preset, whatever their case. */
    public boolean has(String words) {
        String all = (number + " " + title + " " + note + " " + view.name() + " " + preset.name() + (pinned ? " pinned" : ""))
                .toLowerCase(java.util.Locale.ROOT);
        for (String w : words.toLowerCase(java.util.Locale.ROOT).strip().split("\\s+")) if (!all.contains(w)) return false;
        return true;
    }
}
