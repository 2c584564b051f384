package bake.desktop.station.light;

import bake.desktop.parts.Dial;
import bake.desktop.parts.Ui;
import bake.desktop.work.Lighting;
import bake.desktop.work.Sights.Part;
import bake.desktop.work.Sights;
import bake.formats.project.View.Around;
import bake.formats.project.View.GroundSpec;
import bake.formats.project.View;
import java.util.List;
import java.util.function.BiFunction;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.VBox;

/** What is seen of the surroundings: behind the model, in mirrors, on the ground, and surfaces that catch shadows. */
final class SeenCard extends VBox {
    private final LightWork work;
    private final Sights sights;
    private final SightCard backdrop, mirrored;
    private final CheckBox apart = new CheckBox("Leave it out of picture files"),
            stands = new CheckBox("The panorama stands on the ground"), ground = new CheckBox("Lay a ground that catches shadows");
    private final Dial radius, tripod, softness, stretch, x, y, z;
    private final VBox room, caught = new VBox(5);
    private final ToggleButton pick = new ToggleButton("Click a surface\u2026");
    private boolean setting;

    SeenCard(LightWork work) {
        super(8);
        this.work = work;
        sights = work.sights();
        setId("seen");
        getStyleClass().add("card");
        backdrop = new SightCard(work, Part.BACKDROP);
        mirrored = new SightCard(work, Part.MIRRORED);
        radius = dial("ground-radius", "Radius", "%.1f m", 1, 500, 25, true,
                "Of the floor. Set it so that the panorama's floor has the model's scale.", GroundSpec::withRadius, 10);
        tripod = dial("ground-tripod", "Tripod height", "%.2f m", 0.3, 20, 1.6, true,
                "Of the lens when the panorama was taken. It sets how big the floor looks.", GroundSpec::withTripod, 100);
        softness = dial("ground-softness", "Rim softness", "%.2f", 0, 1, 0.3, false, "How softly the floor goes over into the wall.",
                GroundSpec::withSoftness, 100);
        stretch = dial("ground-stretch", "Upright wall", "%.2f", 0, 5, 0.5, false,
                "Height of the wall in radii. What is upright on it stays straight when the camera moves.", GroundSpec::withStretch, 100);
        x = dial("ground-x", "Middle, x", "%.2f m", -200, 200, 0, false, null, GroundSpec::withX, 100);
        y = dial("ground-y", "Middle, y", "%.2f m", -200, 200, 0, false, null, GroundSpec::withY, 100);
        z = dial("ground-z", "Floor at", "%.2f m", -50, 50, 0, false, "Height of the panorama's floor in the model.", GroundSpec::withZ,
                100);
        room = new VBox(7, radius, tripod, softness, stretch, Ui.more("ground-more", x, y, z,
                Ui.button("ground-here", "Middle below the camera", "From there the panorama looks as it was taken", () -> here(),
                "small")));
        box(apart, "apart", "PNG, TIFF and EXR files then have transparency where the surroundings are, with the shadow on what catches it",
                on -> sights.change(null, a -> a.withApart(on ? true : null)));
        box(stands, "stands", "For the camera and its mirrors the panorama lies on a floor and a wall of a size that you set. The light stays what it was.", sights::stand);
        box(ground, "catch-ground", "A level disc that shows nothing but the shadow and the bounce on what lies behind it", sights::ground);
        pick.setId("catch-pick");
        pick.getStyleClass().add("small");
        pick.setTooltip(Ui.tip("The surface that is clicked shows nothing any more but the shadow and bounce it receives, with all else of its material"));
        pick.setOnAction(e -> work.lighting().toolProperty().set(pick.isSelected() ? Lighting.Tool.CATCH : Lighting.Tool.LOOK));
        work.lighting().toolProperty().addListener((o, a, b) -> pick.setSelected(b == Lighting.Tool.CATCH));
        getChildren().addAll(Ui.row(Ui.label("What is seen", "card-title")), backdrop, apart, mirrored, stands, room,
                Ui.row(Ui.label("Shadow catchers", "line-name"), Ui.spring(), pick), ground, caught);
        work.document().viewProperty().addListener((o, a, v) -> refresh());
        work.document().projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || a.materials() != b.materials() || a.shapes() != b.shapes()) refresh();
        });
        refresh();
    }

    private void box(CheckBox b, String id, String help, java.util.function.Consumer<Boolean> set) {
        b.setId(id);
        b.setTooltip(Ui.tip(help));
        b.setWrapText(true);
        b.selectedProperty().addListener((o, was, on) -> {
            if (!setting) set.accept(on);
        });
    }

    private Dial dial(String id, String name, String format, double min, double max, double standard, boolean log, String help,
            BiFunction<GroundSpec, Double, GroundSpec> set, double steps) {
        return new Dial(id, name, format, min, max, standard, log, help, v -> {
            if (!setting) sights.change(id, a -> a.ground() == null ? a
                    : a.withGround(set.apply(a.ground(), Math.rint(v * steps) / steps)));
        });
    }

    private void here() {
        double[] at = work.document().view().camera().position();
        sights.change(null, a -> a.ground() == null ? a : a.withGround(a.ground().withX(Math.rint(at[0] * 100) / 100)
                .withY(Math.rint(at[1] * 100) / 100)));
    }

    private void refresh() {
        View v = work.document().view();
        if (v == null) return;
        setting = true;
        Around a = v.around();
        backdrop.show(a);
        mirrored.show(a);
        apart.setSelected(a.leavesBackdropOut());
        boolean hdri = a.kind().equals("hdri");
        GroundSpec g = a.ground();
        Ui.show(stands, hdri);
        stands.setSelected(g != null);
        Ui.show(room, hdri && g != null);
        if (g != null) {
            radius.show(g.radius());
            tripod.show(g.tripod());
            softness.show(g.softness());
            stretch.show(g.stretch());
            x.show(g.x());
            y.show(g.y());
            z.show(g.z());
        }
        ground.setSelected(sights.hasGround());
        List<String> all = sights.catchers();
        caught.getChildren().clear();
        for (String m : all)
            if (!(sights.hasGround() && m.equals(Sights.GROUND))) {
                Label l = Ui.label(m, "figure");
                caught.getChildren().add(Ui.row(l, Ui.spring(), Ui.button("caught-" + LightStrip.id(m), "Show it again", null,
                        () -> sights.catchShadows(m, false), "small")));
            }
        Ui.show(caught, !caught.getChildren().isEmpty());
        setting = false;
    }
}
