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
        LampSpec k = l.withKelvin(3000.0);
        return switch (l.kind()) {
            case "point" -> k.withLumens(800.0);
            case "spot" -> k.withLumens(700.0).withBeam(24.0).withField(48.0);
            case "disc" -> k.withLumens(900.0).withDiameter(0.18);
            case "rectangle" -> k.withLumens(3500.0).withWidth(0.6).withHeight(0.6).withKelvin(4000.0);
            case "tube" -> k.withLumens(2500.0).withDiameter(0.03).withHeight(1.2).withKelvin(4000.0);
            case "ies" -> k;
            default -> k.withLumens(800.0).withDiameter(0.12);
        };
    }
}
