package bake.desktop.station.view;

import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.CameraForm;
import bake.desktop.parts.Dial;
import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.text.Quantity;
import bake.desktop.text.Texts;
import bake.desktop.work.CameraHand;
import bake.desktop.work.GivesWay;
import bake.formats.project.View;
import java.util.Locale;
import java.util.function.UnaryOperator;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.VBox;

/** View: the saved views, the camera and its exposure, and the size of the final. */
final class ViewSheet extends VBox {
    private final ViewWork work;
    private final CameraHand hand;
    private final KindPart kind;
    private final ViewList list;
    private final MoodTable moods;
    private final Field name;
    private final SizeCard size;
    private final ToggleGroup settings = new ToggleGroup(), gives = new ToggleGroup();
    private final Dial focal, shift, across, ev, fNumber, iso, focus;
    /** Where the camera stands and what it looks at. */
    private final Field[] place = new Field[6];
    private final CheckBox upright = new CheckBox("Straight verticals"), depth = new CheckBox("Depth of field");
    private final Field shutter = new Field("camera-shutter", 90, this::shutter);
    private boolean setting;

    ViewSheet(ViewWork work, CameraHand hand) {
        this.work = work;
        this.hand = hand;
        for (int i = 0; i < 6; i++) {
            int k = i;
            place[i] = new Field("camera-" + (i < 3 ? "at-" : "to-") + "xyz".charAt(i % 3), 72, t -> place(k, t));
            place[i].setAccessibleText((i < 3 ? "Camera " : "Target ") + "xyz".charAt(i % 3));
        }
        name = new Field("view-name", 120, t -> {
            if (t.isEmpty()) throw new IllegalArgumentException("A view has a name.");
            work.views().rename(t);
        });
        name.getStyleClass().remove("figure-field");
        Button add = Ui.button("add-view", "Keep as new", "Keeps this camera as another view", work.views()::add, "small");
        Button delete = Ui.button("delete-view", "Delete", "Takes this view away; undo brings it back", work.views()::delete, "small");
        Button inside = Ui.button("go-inside", "Go inside", "Adds a view from inside the building, in its largest room with glass",
                () -> work.views().inside(), "small");
        java.util.function.Function<String, java.nio.file.Path> pictures = view -> work.prints().store() == null ? null
                : work.prints().all().stream().filter(
                p -> p.view().name().equals(view)
                && p.over() == 0).findFirst().map(work.prints().store()::picture).orElse(null);
        list = new ViewList(work.views(), pictures);
        moods = new MoodTable(work.views(), pictures);
        VBox views = Ui.card("Views", Ui.row(add, inside, delete), list, Ui.row(Ui.label("Name", "dial-name"), name),
                Ui.foldedAway("moods-more", "Moods", Ui.note("The same cameras in other light."), moods), new CopyRow(work.views()));
        javafx.scene.layout.HBox.setHgrow(name, javafx.scene.layout.Priority.ALWAYS);
        focal = new Dial("focal", "Focal length", "%.0f mm", 8, 300, 24, true, "On the sensor of this camera, usually 36 mm wide.",
                x -> camera("focal", c -> c.withFocal(x)));
        shift = new Dial("shift", "Vertical shift", "%+.1f mm", -24, 24, 0, false,
                "Raises or lowers the view without tilting the verticals.",
                x -> camera("shift", c -> c.withShift(c.straightVerticals(), x, c.shiftAcross())));
        across = new Dial("shift-across", "Sideways shift", "%+.1f mm", -24, 24, 0, false,
                "Moves the view to the side without turning the camera: walls that face it stay parallel to the frame.",
                x -> camera("shift across", c -> c.withShift(c.straightVerticals(), c.shift(), x)));
        ev = new Dial("ev", "Exposure", "EV %.1f", -4, 18, 12, false,
                "EV at ISO 100; full sun is about 15, a room by day 8 to 11. The value below follows.", x -> camera("ev", c -> hand.givesWay().to(c, x)));
        fNumber = new Dial("f-number", "Aperture", "f/%.1f", 1, 32, 8, true,
                "A wider lens blurs more with depth of field.",
                x -> camera("aperture", c -> follow(c, c.withExposure(x, c.shutter(), c.iso()), GivesWay.APERTURE)));
        iso = new Dial("iso", "Sensitivity", "ISO %.0f", 25, 25_600, 100, true, "Of the film.",
                x -> camera("iso", c -> follow(c, c.withExposure(c.fNumber(), c.shutter(), Math.rint(x)), GivesWay.ISO)));
        focus = new Dial("focus", "Sharp at", "%.2f m", 0.1, 200, 5, true,
                "Distance of sharpness. \"Focus\" under the picture takes it from what is clicked.",
                x -> camera("focus", c -> c.withFocus(c.depthOfField(), x)));
        upright.setId("upright");
        depth.setId("depth-of-field");
        upright.selectedProperty().addListener((o, a, b) -> camera(null,
                c -> c.withShift(b, c.shift(), c.shiftAcross())));
        depth.selectedProperty().addListener((o, a, b) -> camera(null,
                c -> c.withFocus(b, c.focus())));
        kind = new KindPart(work);
        VBox lens = Ui.card("Camera", null, kind, focal, shift, across, upright, depth, focus,
                Ui.more("place-more", Ui.row(Ui.label("Stands at x, y", "dial-name"), Ui.spring(), place[0], place[1]),
                Ui.row(Ui.label("Eye height z", "dial-name"), Ui.spring(), place[2]),
                Ui.row(Ui.label("Looks at x, y, z", "dial-name")), Ui.row(Ui.spring(), place[3], place[4], place[5])));
        shutter.setAccessibleText("Shutter");
        gives.selectedToggleProperty().addListener((o, x, y) -> {
            if (y != null) hand.givesWay(GivesWay.valueOf(((String) y.getUserData()).toUpperCase(Locale.ROOT)));
        });
        javafx.scene.Node follows = Ui.choice(gives, "gives-", "Shutter", "Aperture", "ISO");
        gives.getToggles().getFirst().setSelected(true);
        VBox exposure = Ui.card("Exposure", shutter, ev, Ui.row(Ui.label("Follows", "dial-name"), Ui.spring(), follows), fNumber, iso,
                Ui.row(Ui.label("Meter", "dial-name"), Ui.spring(), Ui.button("meter-whole", "Whole", "Middle grey on average over the whole picture", () -> hand.meter(1), "small"),
                Ui.button("meter-middle", "Middle", "The same over the middle", () -> hand.meter(0.35), "small")));
        size = new SizeCard(work, Ui.row(Ui.label("Presets for", "dial-name"), Ui.spring(), Ui.choice(settings, "setting-", "Interior",
                "Exterior")));
        settings.selectedToggleProperty().addListener((o, a, b) -> {
            if (!setting && b != null) work.document().editView(null, v -> v.setting().equalsIgnoreCase((String) b.getUserData()) ? v
                    : v.withSetting(((String) b.getUserData()).toLowerCase(Locale.ROOT)));
        });
        getChildren().addAll(views, exposure, lens, size);
        work.document().viewProperty().addListener((o, a, v) -> refresh());
        work.prints().all().addListener((javafx.collections.ListChangeListener<Object>) c -> refresh());
        refresh();
    }

    /** The exposure stays where another value can follow; that of the one which is set itself does not. */
    private Camera follow(Camera before, Camera after, GivesWay itself) {
        return hand.givesWay() == itself ? after : hand.givesWay().to(after, before.ev100());
    }

    private void shutter(String t) {
        double seconds = Quantity.of("%.3f s").parse(t, 1e-6, 1e5);
        camera("shutter", c -> follow(c, c.withExposure(c.fNumber(), seconds, c.iso()), GivesWay.SHUTTER));
    }

    private void camera(String key, UnaryOperator<Camera> change) {
        if (!setting) work.document().editView(key, v -> v.withCamera(change.apply(v.camera().camera())));
    }

    private void place(int k, String t) {
        double v = Quantity.of("%.2f m").parse(t, -1e5, 1e5);
        camera("camera place", c -> {
            double[] p = values(c);
            p[k] = v;
            Vec3 at = new Vec3(p[0], p[1], p[2]), to = new Vec3(p[3], p[4], p[5]);
            if (at.minus(to).length() < 0.01) throw new IllegalArgumentException("The camera cannot stand where it looks.");
            return c.at(at, to);
        });
    }

    private static double[] values(Camera c) {
        return new double[] {c.position().x(), c.position().y(), c.position().z(), c.target().x(), c.target().y(), c.target().z()};
    }

    private void refresh() {
        View v = work.document().view();
        setDisable(v == null);
        if (v == null) return;
        setting = true;
        list.show(work.document().project().views(), v);
        moods.show(work.document().project().views(), v);
        lookupDelete(work.document().project().views().size() < 2);
        name.show(v.name());
        Camera c = v.camera().camera();
        focal.show(c.focal());
        shift.show(c.shift());
        across.show(c.shiftAcross());
        iso.show(c.iso());
        double[] stands = values(c);
        for (int i = 0; i < 6; i++) place[i].show(String.format(Locale.ROOT, "%.2f m", stands[i]));
        ev.show(c.ev100());
        fNumber.show(c.fNumber());
        focus.show(c.focus());
        focus.setDisable(!c.depthOfField());
        upright.setSelected(c.straightVerticals());
        depth.setSelected(c.depthOfField());
        shutter.show(Texts.shutter(c.shutter()));
        kind.show(v);
        boolean flat = c.form().kind() == CameraForm.Kind.PERSPECTIVE;
        for (javafx.scene.Node n : new javafx.scene.Node[] {focal, shift, across, upright, depth, focus}) Ui.show(n, flat);
        size.show(v);
        pick(settings, v.setting());
        setting = false;
    }

    private void lookupDelete(boolean last) {
        javafx.scene.Node d = lookup("#delete-view");
        if (d != null) d.setDisable(last);
    }

    private static void pick(ToggleGroup g, String value) {
        for (Toggle t : g.getToggles()) if (((String) t.getUserData()).equalsIgnoreCase(value)) t.setSelected(true);
    }
}
