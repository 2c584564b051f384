package bake.desktop.work;

import bake.studio.live.LiveRender;
import bake.studio.live.ToneHistogram;
import bake.studio.live.Waveform;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;

/** The tones of the live picture, counted on another thread and only while the View station is looked at. Holds no control. */
public final class Tones {
    private static final int STRIPS = 210, LEVELS = 56;
    /** Room before a camera that sees through walls, or whose surroundings are not known, metres. */
    private static final double ROOM = 9;

    /**
     * @param waveform tones by columns, or null where they are not asked for
     * @param metered EV at ISO 100 that a meter says for the whole picture; NaN where it is not known
     * @param clearance metres from the camera to the nearest wall
     */
    public record Counted(ToneHistogram histogram, Waveform waveform, double metered, double clearance) {}

    private final Workbench bench;
    private final ReadOnlyObjectWrapper<Counted> counted = new ReadOnlyObjectWrapper<>();
    private final BooleanProperty byColumns = new SimpleBooleanProperty();

    Tones(Workbench bench) {
        this.bench = bench;
        bench.easel().frameProperty().addListener((o, a, f) -> count());
        bench.stationProperty().addListener((o, a, b) -> count());
        byColumns.addListener((o, a, b) -> count());
    }

    /** Of the picture that was counted last; null before. */
    public ReadOnlyObjectProperty<Counted> countedProperty() {
        return counted.getReadOnlyProperty();
    }

    /** Whether they are told by the columns of the picture as well. */
    public BooleanProperty byColumnsProperty() {
        return byColumns;
    }

    private void count() {
        LiveRender.Frame f = bench.easel().frameProperty().get();
        if (f == null || bench.view() == null || bench.stationProperty().get() != Station.VIEW) return;
        var camera = bench.view().camera().camera();
        boolean columns = byColumns.get();
        bench.inBackground(() -> {
            Waveform w = columns ? Waveform.of(f.argb(), f.width(), STRIPS, LEVELS) : null;
            double room = f.spots() == null || camera.form().clip() > 0 ? ROOM : f.spots().clearance(camera.position());
            Counted c = new Counted(ToneHistogram.of(f.argb()), w, f.spots() == null ? Double.NaN : f.spots().metered(1), room);
            bench.later(() -> {
                if (bench.easel().frameProperty().get() == f) counted.set(c);
            });
        });
    }
}
