package bake.desktop.work;

import bake.studio.live.LiveRender;
import bake.studio.live.Showing;
import bake.studio.live.Spots;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/**
 * What the Light station can do besides setting values: lamps and portals on the picture, the light meter, soloed groups. Holds no control.
 */
public final class Lighting {
    /** What a click on the picture does. */
    public enum Tool { LOOK, LAMP, MOVE, AIM, PORTAL, DRAW, CATCH }

    private final Workbench bench;
    private final ExecutorService background;
    private final ObjectProperty<Tool> tool = new SimpleObjectProperty<>(Tool.LOOK);
    private final LampHand lamps;
    private final LampOutput output;
    private final PortalHand openings;
    private final PortalDrawing drawing;
    private final ObjectProperty<Set<String>> solo = new SimpleObjectProperty<>(Set.of());
    private final ObjectProperty<Spots.Reading> reading = new SimpleObjectProperty<>();
    private boolean metering;
    private double[] meterAt;

    Lighting(Workbench bench, ExecutorService background) {
        this.bench = bench;
        this.background = background;
        lamps = new LampHand(bench, this, background);
        output = new LampOutput(bench);
        openings = new PortalHand(bench, this, background);
        drawing = new PortalDrawing(bench, this);
        tool.addListener((o, a, b) -> {
            if (a == Tool.DRAW) drawing.cancel();
            if (b == Tool.DRAW) openings.learn();
        });
        showing().addListener((o, a, b) -> {
            // Ways are not told apart by source.
            if (b.part() != null && !solo.get().isEmpty()) solo(Set.of());
        });
    }

    /** Forgets what belonged to the project that was open before. */
    void begin() {
        solo.set(Set.of());
        tool.set(Tool.LOOK);
        lamps.begin();
        openings.begin();
    }

    /** Copies an HDRI into the project's folder if it is not there, and uses it as light. */
    public void useHdri(Path file) {
        bench.skyFiles().panorama(file, name -> bench.editView(null, v -> v.withAround(v.around().withFile(name).withKind("hdri"))));
    }

    /** What is done with lamps. */
    public LampHand lamps() {
        return lamps;
    }

    /** How much light lamps give. */
    public LampOutput output() {
        return output;
    }

    /** What is done with openings and their portals. */
    public PortalHand openings() {
        return openings;
    }

    public ObjectProperty<Tool> toolProperty() {
        return tool;
    }

    /** A portal that is being drawn. */
    public PortalDrawing drawing() {
        return drawing;
    }

    public ObjectProperty<Set<String>> soloProperty() {
        return solo;
    }

    /** What the light meter reads under the pointer; null for nothing. */
    public ObjectProperty<Spots.Reading> readingProperty() {
        return reading;
    }

    /** What the easel shows on the Light station: the picture, illuminance, the light of one way alone, or a guide. */
    public ObjectProperty<Showing> showing() {
        return bench.easel().showing(Station.LIGHT);
    }

    /** Hears one group more, or one less; none soloed means all are heard. */
    public void solo(String group, boolean on) {
        Set<String> s = new HashSet<>(solo.get());
        if (on) s.add(group);
        else s.remove(group);
        if (on && showing().get().part() != null) showing().set(Showing.PICTURE);
        solo(s);
    }

    private void solo(Set<String> groups) {
        solo.set(groups);
        if (bench.easel().live() != null) bench.easel().live().solo(groups);
    }

    /** Looks at places of the picture that is shown; null while there is none. */
    public Spots spots() {
        LiveRender.Frame f = bench.easel().frameProperty().get();
        return f == null ? null : f.spots();
    }

    /** Takes a click on the picture, 0 to 1 from the left and the top. */
    public void click(double x, double y) {
        Spots s = spots();
        if (s == null || tool.get() == Tool.LOOK || tool.get() == Tool.DRAW) return;
        Spots.Place p = s.place(x, y);
        switch (tool.get()) {
            case LAMP -> {
                if (p != null) lamps.add(p);
            }
            case MOVE -> {
                if (p != null) lamps.move(lamps.chosenProperty().get(), p);
            }
            case AIM -> {
                if (p != null) lamps.aim(lamps.chosenProperty().get(), x, y);
            }
            case CATCH -> {
                if (p != null) bench.sights().catchShadows(p.material(), true);
            }
            default -> {
                openings.at(s, x, y);
                return;
            }
        }
        if (p == null) bench.notices().lastProperty().set(new Notices.Message("There is only sky; click a surface.", true));
        else tool.set(Tool.LOOK);
    }

    // ---- light meter

    /** Reads the picture under the pointer; the last place asked for wins. */
    public void meter(double x, double y) {
        meterAt = new double[] {x, y};
        Spots s = spots();
        if (s == null || metering) return;
        metering = true;
        double[] at = meterAt;
        background.execute(() -> {
            Spots.Reading r = s.read(at[0], at[1]);
            bench.later(() -> {
                metering = false;
                if (meterAt == null) return;
                reading.set(r);
                if (meterAt != at) meter(meterAt[0], meterAt[1]);
            });
        });
    }

    public void noMeter() {
        meterAt = null;
        reading.set(null);
    }
}
