package bake.desktop.station.light;

import bake.desktop.parts.Dial;
import bake.desktop.parts.Ui;
import bake.formats.project.View;
import java.io.File;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/** A panorama used as light: which, how it is turned, its level and colours, and its sun. */
final class HdriCard {
    private final LightWork work;
    private final VBox card;
    private final Label file = Ui.label("", "figure");
    private final HdriRing ring;
    private final Dial level, lux, gamma, saturation, tilt, roll, sun, size;
    private final CheckBox toLux = new CheckBox("Bring it to a level that was measured"),
            sunOut = new CheckBox("Take the sun out, as a light of its own");
    private boolean setting;

    HdriCard(LightWork work) {
        this.work = work;
        ring = new HdriRing(x -> around("rotation", a -> a.withRotation(x)));
        level = new Dial("hdri-stops", "Level", "%+.1f stops", -12, 12, 0, false, "Level of the panorama in stops.",
                x -> around("hdri level", a -> a.withStops(a.or(a.sunStops(), 0), x)));
        lux = new Dial("hdri-lux", "On open ground", "%.0f lx", 1, 150_000, 20_000, true,
                "Horizontal illuminance that the whole panorama is brought to, before its level.",
                x -> around("hdri lux", a -> a.withLux(x)));
        gamma = new Dial("hdri-gamma", "Gamma", "%.2f", 0.3, 3, 1, true, "Contrast: above 1 deepens the dark parts. The mean stays.",
                x -> around("hdri gamma", a -> a.withGamma(Math.rint(x * 100) / 100)));
        saturation = new Dial("hdri-saturation", "Saturation", "%.2f", 0, 2, 1, false, "Strength of its colours; 0 is grey.",
                x -> around("hdri saturation", a -> a.withSaturation(Math.rint(x * 100) / 100)));
        tilt = new Dial("hdri-tilt", "Tilt", "%+.1f\u00b0", -30, 30, 0, false,
                "Lowers the middle of the panorama, for a horizon that is not level.",
                x -> around("hdri tilt", a -> a.withTilt(Math.rint(x * 10) / 10)));
        roll = new Dial("hdri-roll", "Roll", "%+.1f\u00b0", -30, 30, 0, false, "Leans the panorama to the right.",
                x -> around("hdri roll", a -> a.withRoll(Math.rint(x * 10) / 10)));
        sun = new Dial("hdri-sun-stops", "Its sun", "%+.1f stops", -8, 8, 0, false,
                "Level of the sun that was taken out. A clipped panorama needs some stops more.",
                x -> around("sun level", a -> a.withStops(x, a.or(a.skyStops(), 0))));
        size = new Dial("hdri-sun-size", "Sun size", "%.2f\u00b0", 0.05, 10, 0.533, true,
                "A bigger sun gives softer shadows and more noise.", x -> around("sun size", a -> a.withSunSize(x)));
        toLux.setId("hdri-to-lux");
        sunOut.setId("hdri-sun-out");
        toLux.selectedProperty().addListener((o, a, b) -> {
            if (!setting) around(null, v -> v.withLux(b ? 20_000.0 : null));
        });
        sunOut.selectedProperty().addListener((o, a, b) -> {
            if (!setting) around(null, v -> v.withSunOut(b));
        });
        sunOut.setTooltip(Ui.tip("Finds the sun in the picture and lets it shine as a sun: sharp shadows, less noise, and its own fader. The light as a whole stays."));
        card = Ui.card("Panorama", Ui.button("choose-hdri", "Choose\u2026",
                "An .hdr or .exr file, twice as wide as high, up to 16384 x 8192", this::choose, "small"), file, ring, level, sunOut, sun,
                size,
                Ui.more("hdri-more", toLux, lux, gamma, saturation, tilt, roll));
    }

    VBox card() {
        return card;
    }

    private void around(String key, java.util.function.UnaryOperator<View.Around> change) {
        work.document().editView(key, v -> v.withAround(change.apply(v.around())));
    }

    void choose() {
        FileChooser c = new FileChooser();
        c.setTitle("Choose a panorama");
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("Panoramas (.hdr, .exr)", "*.hdr", "*.exr"));
        if (work.document().folder() != null) c.setInitialDirectory(work.document().folder().toFile());
        File f = c.showOpenDialog(card.getScene() == null ? null : card.getScene().getWindow());
        if (f != null) work.lighting().useHdri(f.toPath());
    }

    void show(View.Around a) {
        setting = true;
        file.setText(a.file() == null ? "none chosen" : a.file());
        ring.show(a.or(a.rotation(), 0));
        level.show(a.or(a.skyStops(), 0));
        toLux.setSelected(a.lux() != null);
        lux.show(a.or(a.lux(), 20_000));
        lux.setDisable(a.lux() == null);
        gamma.show(a.or(a.gamma(), 1));
        saturation.show(a.or(a.saturation(), 1));
        tilt.show(a.or(a.tilt(), 0));
        roll.show(a.or(a.roll(), 0));
        sunOut.setSelected(a.takesSunOut());
        Ui.show(sun, a.takesSunOut());
        Ui.show(size, a.takesSunOut());
        sun.show(a.or(a.sunStops(), 0));
        size.show(a.or(a.sunSize(), 0.533));
        setting = false;
    }
}
