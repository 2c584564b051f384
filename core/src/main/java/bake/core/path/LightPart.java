package bake.core.path;

import java.util.Locale;

/** By which way light has come to the camera, for films that keep that apart. The parts add up to the picture. */
public enum LightPart {
    /** Lamps, glowing surfaces and surroundings that are seen themselves, through panes too. */
    SEEN,
    /** Light straight from its source to what is seen, highlights that were looked for included. */
    DIRECT,
    /** Light that has met something else on the way to the matt body of what is seen. */
    BOUNCED,
    /** What mirrors on what is seen: of gloss, clear coats and panes. */
    REFLECTED,
    /** What comes through what is seen. */
    REFRACTED;

    public static final int COUNT = values().length;

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
