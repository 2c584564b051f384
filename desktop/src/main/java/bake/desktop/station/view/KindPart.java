package bake.desktop.station.view;

import bake.core.scene.Camera;
import bake.core.scene.CameraForm;
import bake.desktop.parts.Dial;
import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.text.Quantity;
import bake.formats.project.View;
import bake.studio.plan.Sizes;
import java.util.Locale;
import java.util.function.UnaryOperator;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.VBox;

/** What kind of picture the camera makes, and what of it is rarely touched. */
final class KindPart extends VBox {
    private static final String[] KINDS = {"Perspective", "Parallel", "Panorama", "Stereo panorama"};
    private static final double[] SENSORS = {36, 24, 23.5, 17.3, 13.2, 43.8, 53.4};
    private final ViewWork work;
    private final ComboBox<String> kind = new ComboBox<>(), sensor = new ComboBox<>();
    private final Dial across, clip, roll, blades, catEye;
    private final Field scale;
    private final VBox parallel, lens;
    private boolean setting;

    KindPart(ViewWork work) {
        super(7);
        this.work = work;
        kind.getItems().addAll(KINDS);
        kind.setId("camera-kind");
        kind.setAccessibleText("Kind of picture");
        kind.valueProperty().addListener((o, a, b) -> {
            if (!setting && b != null) kind(CameraForm.Kind.values()[kind.getSelectionModel().getSelectedIndex()]);
        });
        for (double s : SENSORS) sensor.getItems().add(String.format(Locale.ROOT, "%.1f mm", s));
        sensor.setId("camera-sensor");
        sensor.setAccessibleText("Width of the sensor");
        sensor.valueProperty().addListener((o, a, b) -> {
            int i = sensor.getSelectionModel().getSelectedIndex();
            if (!setting && i >= 0) form(null, f -> f.withSensor(SENSORS[i]));
        });
        across = new Dial("camera-across", "Shows", "%.2f m", 0.5, 500, 10, true, "Width of what a plan or an elevation shows.", x ->
                form("across", f -> f.withAcross(x)));
        scale = new Field("camera-scale", 80, this::scale);
        clip = new Dial("camera-clip", "Sees from", "%.2f m", 0, 50, 0, false,
                "Looks through walls before this distance; their shadows and their light stay.", x ->
                form("clip", f -> f.withClip(Math.rint(x * 100) / 100)));
        roll = new Dial("camera-roll", "Roll", "%+.1f\u00b0", -45, 45, 0, false, "Leans the camera to the right.", x ->
                form("roll", f -> f.withRoll(Math.rint(x * 10) / 10)));
        blades = new Dial("camera-blades", "Blades", "%.0f", 0, 16, 0, false, "Of the aperture, 3 and more; 0 for a round one. They show in blurred lights.",
                x -> form("blades", f -> f.withBlades(Math.rint(x) < 3 ? 0 : (int) Math.rint(x))));
        catEye = new Dial("camera-cat-eye", "Cat's eye", "%.0f %%", 0, 100, 0, false, "Blurred lights grow narrow towards the corners.",
                x -> form("cat eye", f -> f.withCatEye(Math.rint(x) / 100)));
        Button above = Ui.button("from-above", "Plan", "From above, everything under the camera's height seen", () -> straight(true), "small"),
                front = Ui.button("from-front", "Elevation", "Level, along the nearest axis of the model", () -> straight(false), "small");
        parallel = new VBox(7, across, Ui.row(Ui.label("Prints at", "dial-name"), Ui.spring(), scale), Ui.row(above, front));
        lens = new VBox(7, Ui.row(Ui.label("Sensor", "dial-name"), Ui.spring(), sensor), blades, catEye);
        getChildren().addAll(Ui.row(Ui.label("Kind", "dial-name"), Ui.spring(), kind), parallel, Ui.more("kind-more", clip, roll, lens));
    }

    private void form(String key, UnaryOperator<CameraForm> how) {
        if (!setting) work.document().editView(key == null ? null : "camera " + key, v -> {
            Camera c = v.camera().camera();
            return v.withCamera(c.withForm(how.apply(c.form())));
        });
    }

    /** A panorama gets the shape that it must have. */
    private void kind(CameraForm.Kind k) {
        work.document().editView(null, v -> {
            Camera c = v.camera().camera();
            View w = v.withCamera(c.withForm(c.form().withKind(k)));
            int width = v.size()[0];
            return switch (k) {
                case PANORAMA -> w.withSize(width, Math.max(1, width / 2));
                case STEREO -> w.withSize(width, width);
                default -> w;
            };
        });
    }

    /** 1:50 with the pixels there are, at the resolution of print. */
    private void scale(String t) {
        String n = t.replaceFirst("^\\s*1\\s*:", "").strip();
        double to = Quantity.of("%.1f").parse(n, 0.01, 1e6);
        form("scale", f -> f.withAcross((double) work.document().view().size()[0] / Sizes.FINE * 0.0254 * to));
    }

    /** Turns the camera straight down, or level along an axis; what it looks at stays in the middle. */
    private void straight(boolean down) {
        work.document().editView(null, v -> {
            Camera c = v.camera().camera();
            var view = c.target().minus(c.position());
            double far = Math.max(1, view.length());
            boolean x = Math.abs(view.x()) > Math.abs(view.y());
            var along = down ? new bake.core.math.Vec3(0, 0, -1) : x ? new bake.core.math.Vec3(Math.signum(view.x()), 0, 0)
                    : new bake.core.math.Vec3(0, view.y() < 0 ? -1 : 1, 0);
            return v.withCamera(c.at(c.target().minus(along.times(far)), c.target()).withForm(c.form().withKind(CameraForm.Kind.PARALLEL)));
        });
    }

    void show(View v) {
        setting = true;
        CameraForm f = v.camera().camera().form();
        kind.setValue(KINDS[f.kind().ordinal()]);
        String s = String.format(Locale.ROOT, "%.1f mm", f.sensor());
        if (!sensor.getItems().contains(s)) sensor.getItems().add(s);
        sensor.setValue(s);
        across.show(f.across());
        scale.show(String.format(Locale.ROOT, "1:%.4g", f.across() / ((double) v.size()[0] / Sizes.FINE * 0.0254)));
        clip.show(f.clip());
        roll.show(f.roll());
        blades.show(f.blades());
        catEye.show(100 * f.catEye());
        Ui.show(parallel, f.kind() == CameraForm.Kind.PARALLEL);
        Ui.show(lens, f.kind() == CameraForm.Kind.PERSPECTIVE);
        Ui.show(roll, !f.kind().round());
        setting = false;
    }
}
