package bake.desktop.station.light;

import bake.core.light.GeneralSky;
import bake.desktop.parts.Dial;
import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import bake.studio.scene.SunPosition;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import java.util.function.BiFunction;
import javafx.scene.control.Label;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.VBox;

/** Light: which surroundings, the sun's path and hour, haze, levels, HDRI. */
public final class LightSheet extends VBox {
    private final LightWork work;
    private final ToggleGroup kinds = new ToggleGroup();
    private final SunPathDiagram path;
    private final PlaceAndTime when;
    private final Label place = Ui.label("", "figure"), angles = Ui.label("", "figure"), oddity = Ui.label("", "hint");
    private final Dial haze, sun, sky, size, azimuth, height, north;
    private final VBox sunCards, plainCard, levels;
    private final HdriCard hdri;
    private final javafx.scene.control.CheckBox disc = new javafx.scene.control.CheckBox("The sun's disc is seen"),
            moon = new javafx.scene.control.CheckBox("A full moon by night");
    private final StandardSkyCard standard;
    private final Label skyLux = Ui.label("", "figure"), sunLux = Ui.label("", "figure"), allLux = Ui.label("", "figure");
    private final Dial plain;
    private boolean setting;

    public LightSheet(LightWork work) {
        this.work = work;
        when = new PlaceAndTime(work, () -> setting);
        path = new SunPathDiagram((key, d, t) -> work.document().editView(key, v ->
                v.withAround(v.around().withTime(d.toString(), t.truncatedTo(ChronoUnit.MINUTES).toString()))));
        haze = new Dial("haze", "Haze (turbidity)", "%.1f", 1, 10, 2.5, false,
                "More haze: whiter sky, weaker and warmer sun. Costs nothing.", x -> work.around("haze", a -> a.withHaze(x)));
        sun = new Dial("sun-stops", "Sun", "%+.1f stops", -8, 8, 0, false, "Level of the sun in stops against nature.",
                x -> work.around("sun level", a -> a.withStops(x, a.or(a.skyStops(), 0))));
        sky = new Dial("sky-stops", "Sky", "%+.1f stops", -8, 8, 0, false, "Level of the sky in stops against nature.",
                x -> work.around("sky level", a -> a.withStops(a.or(a.sunStops(), 0), x)));
        size = new Dial("sun-size", "Sun size", "%.2f\u00b0", 0.05, 10, 0.533, true, "A bigger sun gives softer shadows and more noise.",
                x -> work.around("sun size", a -> a.withSunSize(x)));
        azimuth = new Dial("sun-azimuth", "Sun's azimuth", "%.0f\u00b0", 0, 360, 180, false,
                "By hand, clockwise from north; the clock then no longer counts.", x -> byHand(x, Double.NaN));
        height = new Dial("sun-height", "Sun's height", "%.1f\u00b0", -18, 90, 40, false,
                "By hand, above the horizon; the clock then no longer counts.", x -> byHand(Double.NaN, x));
        north = new Dial("north", "North", "%.0f\u00b0", -180, 180, 0, false,
                "Direction of north, clockwise from the model's +y axis. For all views.",
                x -> work.document().edit("north", p -> p.withPlace(new Project.Place(p.place().latitude(),
                p.place().longitude(), p.place().zone(), Math.rint(x), p.place().other()))));
        flag(disc, "sun-disc", "Its light and shadows stay either way", View.Around::withSunDisc);
        flag(moon, "moon", "Where the sun is below the horizon, a moon opposite to it shines", View.Around::withMoon);
        plain = new Dial("plain-level", "Luminance", "%.0f cd/m\u00b2", 1, 100_000, 1000, true, "The same luminance from everywhere.",
                x -> work.around("plain", a -> a.withSkyStops(0.0).withLuminance(new double[] {x, x, x})));
        sunCards = new VBox(Ui.card("Sun path", place, path, Ui.row(Ui.label("Date", "dial-name"), Ui.spring(), when.date(), when.time()),
                SunTimes.buttons(work),
                Ui.row(Ui.label("Sun stands", "dial-name"), Ui.spring(), angles), oddity,
                Ui.more("sun-more", azimuth, height, Ui.button("follow-clock", "Follow the clock",
                "The sun stands where date and time put it", () -> work.around(null, a -> a.withSunAzimuth(null).withSunHeight(null)),
                "small"),
                        Ui.row(Ui.label("Latitude, longitude", "dial-name"), Ui.spring(), when.latitude(), when.longitude()),
                        Ui.row(Ui.label("Time zone", "dial-name"), Ui.spring(), when.zone()), north)),
                Ui.card("Air and levels", null, haze, sun, sky, size, Ui.more("air-more", disc, moon)));
        hdri = new HdriCard(work);
        plainCard = Ui.card("Plain colour", null, plain);
        standard = new StandardSkyCard(work);
        levels = Ui.card("On open ground", null, Ui.line("From the sky", skyLux), Ui.line("From the sun", sunLux),
                Ui.line("Together", allLux));
        VBox choice = new VBox(Ui.choice(kinds, "around-", "Sun and sky", "Standard sky", "HDRI", "Plain"));
        choice.getStyleClass().add("card");
        getChildren().addAll(choice, standard.card(), sunCards, hdri.card(), plainCard, levels, new WarningsCard(work),
                new SeenCard(work), new PortalsCard(work), new GuidesCard(work), new LampsCard(work));
        work.easel().frameProperty().addListener((o, a, f) -> lux(f));
        kinds.selectedToggleProperty().addListener((o, a, b) -> {
            if (!setting && b != null) kind(((String) b.getUserData()).toLowerCase(Locale.ROOT));
        });
        work.document().viewProperty().addListener((o, a, v) -> refresh());
        refresh();
    }

    private void kind(String k) {
        View v = work.document().view();
        if (v == null || v.around().kind().equals(k)) return;
        if (k.equals("hdri") && v.around().file() == null) {
            hdri.choose();
            refresh();
            return;
        }
        work.around(null, a -> a.withKind(k));
    }

    private void flag(javafx.scene.control.CheckBox b, String id, String help,
            BiFunction<View.Around, Boolean, View.Around> set) {
        b.setId(id);
        b.setTooltip(Ui.tip(help));
        b.selectedProperty().addListener((o, x, y) -> {
            if (!setting) work.around(null, a -> set.apply(a, y));
        });
    }

    /** Sets the sun by hand; what is not given stays as it stands. */
    private void byHand(double toAzimuth, double toHeight) {
        if (setting || work.document().view() == null) return;
        try {
            SunPosition.Angles now = SunPosition.of(work.document().project().place(), work.document().view().around());
            work.around("sun by hand", a -> a.withSunAzimuth(Double.isNaN(toAzimuth) ? now.azimuth() : Math.rint(toAzimuth))
                    .withSunHeight(Double.isNaN(toHeight) ? now.height() : Math.rint(toHeight * 10) / 10));
        } catch (FormatException e) {
            work.notices().fail(e);
        }
    }

    private void refresh() {
        View v = work.document().view();
        setDisable(v == null);
        // Without a view there is no sky of any kind.
        if (v == null) for (VBox card : new VBox[] {standard.card(), sunCards, hdri.card(), plainCard}) show(card, false);
        if (v == null) return;
        setting = true;
        View.Around a = v.around();
        for (Toggle t : kinds.getToggles()) if (((String) t.getUserData()).equalsIgnoreCase(a.kind())) t.setSelected(true);
        boolean general = a.kind().equals("standard sky");
        show(standard.card(), general);
        if (general) standard.show(a.standardSky());
        boolean covered = general && GeneralSky.hidesSun(a.standardSky());
        sun.setDisable(covered);
        size.setDisable(covered);
        haze.setDisable(covered);
        show(sunCards, general || a.kind().equals("sun and sky"));
        show(hdri.card(), a.kind().equals("hdri"));
        hdri.show(a);
        show(plainCard, a.kind().equals("plain"));
        var pl = work.document().project().place();
        place.setText(String.format(Locale.ROOT, "%.1f %s %.1f %s", Math.abs(pl.latitude()), pl.latitude() < 0 ? "S" : "N",
                Math.abs(pl.longitude()), pl.longitude() < 0 ? "W" : "E"));
        path.show(pl, a);
        when.show(pl);
        try {
            when.show(SunPosition.moment(pl, a));
            SunPosition.Angles s = SunPosition.of(pl, a);
            azimuth.show(s.azimuth());
            height.show(s.height());
            angles.setText(String.format(Locale.ROOT, "%.0f\u00b0 %s, azimuth %.0f\u00b0", Math.abs(s.height()),
                    s.height() < 0 ? "below" : "high", s.azimuth()) + (a.byHand() ? ", by hand" : ""));
            String odd = SunPosition.oddity(pl, a);
            oddity.setText(odd == null ? "" : odd);
            Ui.show(oddity, odd != null);
        } catch (FormatException e) {
            angles.setText("\u2013");
        }
        haze.show(a.or(a.haze(), 2.5));
        sun.show(a.or(a.sunStops(), 0));
        sky.show(a.or(a.skyStops(), 0));
        size.show(a.or(a.sunSize(), 0.533));
        disc.setSelected(a.sunDisc() == null || a.sunDisc());
        moon.setSelected(a.moon() != null && a.moon());
        Ui.show(moon, !general);
        north.show(pl.north());
        plain.show(a.luminance() == null ? 1000 : Math.max(1, a.luminance()[1]));
        setting = false;
    }

    private void lux(LiveRender.Frame f) {
        if (f == null) return;
        skyLux.setText(Texts.lux(f.skyLux()));
        sunLux.setText(Texts.lux(f.sunLux()));
        allLux.setText(Texts.lux(f.skyLux() + f.sunLux()));
    }

    private static void show(VBox b, boolean visible) {
        b.setVisible(visible);
        b.setManaged(visible);
    }
}
