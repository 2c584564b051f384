package bake.desktop.station.model;

import bake.core.math.Srgb;
import bake.core.math.Vec3;
import bake.core.scene.Material;
import bake.desktop.parts.Dial;
import bake.desktop.parts.Ui;
import bake.desktop.work.ModelFiles;
import bake.formats.project.Project;
import java.util.function.UnaryOperator;
import javafx.scene.control.ColorPicker;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;

/** The values of a material; what is set here holds in the project, whatever the model says. */
final class SurfaceEditor extends VBox {
    private final ModelFiles models;
    private final String name;

    /** @param own what the project says of it, or null for nothing */
    SurfaceEditor(ModelFiles models, Material m, Project.Surface own) {
        super(5);
        this.models = models;
        name = m.name();
        getStyleClass().add("inset");
        ColorPicker base = new ColorPicker(color(m.base()));
        base.setId("surface-base");
        base.setOnAction(e -> set("base colour", s -> s.withBase(linear(base.getValue()))));
        base.setTooltip(Ui.tip("Takes the place of the model's picture, where it has one"));
        getChildren().addAll(Ui.line("Base colour", base),
                dial("surface-roughness", "Roughness", "%.2f", 0, 1, m.roughness(), false, "0 is polished, 1 matt.",
                        (s, v) -> s.withRoughness(v)),
                dial("surface-metal", "Metal", "%.2f", 0, 1, m.metallic(), false, "0 for all but metals, 1 for metals.",
                        (s, v) -> s.withMetallic(v)),
                dial("surface-ior", "Refractive index", "%.3f", 1, 3, m.ior(), false, "Glass 1.52, water 1.33, lacquer 1.5, plastic 1.45 to 1.6.",
                        (s, v) -> s.withIor(v)),
                dial("surface-transmission", "Transmission", "%.2f", 0, 1, m.transmission(), false, "Share that goes through, as in glass.",
                        (s, v) -> s.withTransmission(v)),
                dial("surface-glow", "Glow", "%.0f cd/m\u00b2", 0, 100_000, luminance(m.emission()), false,
                        "A screen has about 200, a light box 1000 to 3000; in the colour it glows in, or white.",
                        (s, v) -> s.withEmission(glow(m.emission(), v))));
        // Only where the model's pictures say something of it.
        if (m.normalImage() != null || m.relief().height() != null) getChildren().add(dial("surface-bump", "Bumps", "%.2f", 0, 4,
                own == null || own.bump() == null ? 1 : own.bump(), false, "How far they stand out; 1 as the model has them, 0 flat.",
                (s, v) -> s.withBump(v)));
        if (m.baseImage() != null) getChildren().add(dial("surface-cut-out", "Cut out below", "%.2f", 0, 1,
                m.alphaMode() == Material.AlphaMode.MASK ? m.cutoff() : 0, false,
                "Where the picture covers less than this the surface is not there, as between leaves; 0 for whole.", (s, v) ->
                s.withCutOut(v)));
    }

    private interface Put {
        Project.Surface in(Project.Surface s, double v);
    }

    private Dial dial(String id, String title, String format, double min, double max, double now, boolean log, String help, Put put) {
        Dial d = new Dial(id, title, format, min, max, now, log, help,
                v -> set(title.toLowerCase(java.util.Locale.ROOT), s -> put.in(s, v)));
        d.show(now);
        return d;
    }

    private void set(String key, UnaryOperator<Project.Surface> how) {
        models.surface(name, key, how);
    }

    private static double luminance(Vec3 c) {
        return 0.2126 * c.x() + 0.7152 * c.y() + 0.0722 * c.z();
    }

    private static double[] glow(Vec3 colour, double cdm2) {
        double l = luminance(colour);
        Vec3 c = l > 0 ? colour.times(cdm2 / l) : new Vec3(cdm2, cdm2, cdm2);
        return new double[] {c.x(), c.y(), c.z()};
    }

    private static Color color(Vec3 linear) {
        return Color.color(code(linear.x()), code(linear.y()), code(linear.z()));
    }

    private static double code(double v) {
        return Math.clamp(Srgb.encode(Math.clamp(v, 0, 1)), 0, 1);
    }

    private static double[] linear(Color c) {
        return new double[] {Srgb.decode(c.getRed()), Srgb.decode(c.getGreen()), Srgb.decode(c.getBlue())};
    }
}
