package bake.desktop.text;

import bake.formats.project.LampSpec;
import java.util.List;
import java.util.Locale;

/** Kinds of lamps and what they begin with. */
public final class Lamps {
    public static final List<String> KINDS = List.of("sphere", "point", "spot", "disc", "rectangle", "tube", "ies");

    private Lamps() {}

    public static String title(String kind) {
        return kind.equals("ies") ? "Photometric lamp" : kind.substring(0, 1).toUpperCase(Locale.ROOT) + kind.substring(1)
                + (kind.equals("point") ? " lamp" : "");
    }

    /** A lamp with the output and size that such lamps usually have (common practice, no source). */
    public static LampSpec standard(LampSpec l) {
        LampSpec k = l.with("kelvin", 3000);
        return switch (l.kind()) {
            case "point" -> k.with("lumens", 800);
            case "spot" -> k.with("lumens", 700, "beam", 24, "field", 48);
            case "disc" -> k.with("lumens", 900, "diameter", 0.18);
            case "rectangle" -> k.with("lumens", 3500, "width", 0.6, "height", 0.6, "kelvin", 4000);
            case "tube" -> k.with("lumens", 2500, "diameter", 0.03, "height", 1.2, "kelvin", 4000);
            case "ies" -> k;
            default -> k.with("lumens", 800, "diameter", 0.12);
        };
    }
}
