package bake.desktop.text;

import bake.core.cache.IrradianceCache;
import bake.core.film.PixelFilter;
import bake.core.path.BounceSettings;
import bake.formats.project.Preset;
import bake.studio.proof.Proof;
import bake.studio.render.RenderJob;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Locale;

/** Numbers and times as the window writes them. */
public final class Texts {
    private static final Locale L = Locale.ROOT;

    private Texts() {}

    /** 0:48, 12:05 or 1 h 12. */
    public static String time(double seconds) {
        if (Double.isNaN(seconds) || Double.isInfinite(seconds)) return "\u2013";
        long s = Math.round(seconds);
        return s >= 3600 ? String.format(L, "%d h %02d", s / 3600, s / 60 % 60) : String.format(L, "%d:%02d", s / 60, s % 60);
    }

    /** A time that nobody can know better: 40 s, 12 min, 3.5 h, 2 days. */
    public static String about(double seconds) {
        if (!(seconds < Double.POSITIVE_INFINITY)) return "\u2013";
        if (seconds < 90) return Math.max(5, 5 * Math.round(seconds / 5)) + " s";
        if (seconds < 5400) return Math.round(seconds / 60) + " min";
        return seconds < 36 * 3600 ? String.format(L, seconds < 10 * 3600 ? "%.1f h" : "%.0f h", seconds / 3600)
                : String.format(L, "%.1f days", seconds / 86400);
    }

    /** What a place is interpolated from in a picture made with some settings. */
    public static String records(String material, IrradianceCache.Sources s, BounceSettings how) {
        if (s.narrow() || how.nearField() > 0)
            return String.format(L, "%s: rays look at what is within %.0f cm, and records tell what is farther off. Grain there goes with more passes.", material, 100 * how.near());
        if (s.records() == 0) return material + ": no record reaches here; bounces are traced.";
        String from = String.format(L, "%s: made of %s, the nearest %.0f cm off, the widest %.0f cm.", material,
                s.records() == 1 ? "one record" : s.records() + " records", 100 * s.nearest(), 100 * s.widest());
        return from + (s.weight() < 0.6 ? " They are far off: shades of small things get lost here."
                : " A blotch here is their noise: more rays help.");
    }

    /** 2.1 %, or a dash where there is none yet. */
    public static String noise(double percent) {
        return Double.isFinite(percent) ? String.format(L, percent < 10 ? "%.1f %%" : "%.0f %%", percent) : "\u2013";
    }

    /** What a preset's aim is of. */
    public static String aimed(Preset p) {
        return p.aimsAtDenoised() ? "error left" : "noise";
    }

    /** How wrong a proof is as it is seen, or how noisy where that was not judged. */
    public static String figure(Proof p) {
        return p.error() == null ? "noise " + noise(p.noise()) : "error left " + noise(p.error());
    }

    /** 84,200 lx, 312 lx, 0.24 lx: three figures, for nobody sees more. */
    public static String lux(double lux) {
        if (!(lux > 0)) return "0 lx";
        double step = Math.pow(10, Math.floor(Math.log10(lux)) - 2), rounded = Math.rint(lux / step) * step;
        return String.format(L, rounded >= 100 ? "%,.0f lx" : rounded >= 10 ? "%.1f lx" : rounded >= 1 ? "%.2f lx" : "%.3f lx", rounded);
    }

    /** Three figures of a number that may be of any size. */
    public static String three(double v) {
        if (!(Math.abs(v) > 0) || Double.isInfinite(v)) return v == 0 ? "0" : "\u2013";
        double step = Math.pow(10, Math.floor(Math.log10(Math.abs(v))) - 2), r = Math.rint(v / step) * step;
        return String.format(L, Math.abs(r) >= 100 ? "%,.0f" : Math.abs(r) >= 10 ? "%.1f" : Math.abs(r) >= 1 ? "%.2f" : "%.3f", r);
    }

    /** 412 k, 1.7 M. */
    public static String count(long n) {
        if (n < 1000) return Long.toString(n);
        if (n < 1_000_000) return n / 1000 + " k";
        return String.format(L, "%.1f M", n / 1e6);
    }

    /** An amount of memory or disk. */
    public static String bytes(long n) {
        return n < 1_000_000_000 ? String.format(L, "%d MB", Math.max(1, n / 1_000_000)) : String.format(L, "%.1f GB", n / 1e9);
    }

    public static String size(int w, int h) {
        return w + "\u00d7" + h;
    }

    /** Fri 12:00, or the text itself where it is no time. */
    public static String due(String iso) {
        if (iso == null) return "not set";
        try {
            return DateTimeFormatter.ofPattern("EEE HH:mm", Locale.ENGLISH).format(LocalDateTime.parse(iso));
        } catch (DateTimeParseException e) {
            return iso;
        }
    }

    /** 1 d 4 h until a time, or how long ago it was. */
    public static String until(LocalDateTime now, LocalDateTime then) {
        Duration d = Duration.between(now, then);
        String t = d.abs().toDays() > 0 ? d.abs().toDays() + " d " + d.abs().toHoursPart() + " h"
                : d.abs().toHours() + " h " + d.abs().toMinutesPart() + " min";
        return d.isNegative() ? t + " ago" : "in " + t;
    }

    /** How far the caches are that come before a proof's first pass. */
    public static String prepass(RenderJob.Progress g) {
        return String.format(Locale.ROOT, "caching bounced light, %.0f %%  %s", 100 * g.prepared(), time(g.seconds()));
    }

    public static String first(BounceSettings.First f) {
        return switch (f) {
            case PATH_TRACING -> "Path tracing: exact, noise goes slowly";
            case IRRADIANCE_CACHE -> "Irradiance cache: smooth, quick";
            case PHOTON_MAP -> "Photon map itself: blotchy, to check it";
        };
    }

    public static String later(BounceSettings.Later l) {
        return switch (l) {
            case PATH_TRACING -> "Path tracing: exact";
            case RADIANCE_CACHE -> "Radiance cache: quick";
            case PHOTON_MAP -> "Photon map: light sent from its sources";
            case NONE -> "None: one bounce only, darker";
        };
    }

    public static String caustics(BounceSettings.Caustics c) {
        return switch (c) {
            case PATH_TRACING -> "traced: exact, noisy";
            case PHOTON_MAP -> "by photons";
            case LEFT_OUT -> "left out";
        };
    }

    /** A pixel filter's name with what it does. */
    public static String filter(PixelFilter.Shape f) {
        return switch (f) {
            case BOX -> "Box   crispest";
            case TRIANGLE -> "Triangle   even";
            case BLACKMAN_HARRIS -> "Blackman-Harris   softest";
            case MITCHELL_NETRAVALI -> "Mitchell-Netravali   a little sharper";
            case CATMULL_ROM -> "Catmull-Rom   sharpest, may ring";
        };
    }

    public static String shutter(double seconds) {
        return seconds >= 0.4 ? String.format(L, "%.1f s", seconds) : "1/" + Math.round(1 / seconds) + " s";
    }
}
