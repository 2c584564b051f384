package bake.desktop.work;

import bake.formats.project.View;
import bake.studio.live.LiveRender;
import bake.studio.live.Showing;
import java.util.EnumMap;
import java.util.Map;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** The live picture: its size, what it shows on which station, and when it rests. */
public final class EaselPicture {
    private final Workbench bench;
    private final ReadOnlyObjectWrapper<LiveRender.Frame> frame = new ReadOnlyObjectWrapper<>();
    private final Map<Station, ObjectProperty<Showing>> showing = new EnumMap<>(Station.class);
    /** Why there is no picture; null while there is one, or will be. */
    private final ObjectProperty<String> failure = new SimpleObjectProperty<>();
    private LiveRender live;
    private final BooleanProperty half = new SimpleBooleanProperty();
    private int width = 640, height = 360, patience = 4096, divisor = 1;

    EaselPicture(Workbench bench) {
        this.bench = bench;
        for (Station s : Station.values()) {
            ObjectProperty<Showing> p = new SimpleObjectProperty<>(Showing.PICTURE);
            p.addListener((o, a, b) -> {
                if (bench.stationProperty().get() == s) show();
            });
            showing.put(s, p);
        }
        half.addListener((o, a, b) -> show());
        bench.stationProperty().addListener((o, a, b) -> {
            if (showing(a).get() != showing(b).get()) show();
        });
    }

    void take(Opened o) {
        close();
        frame.set(null);
        failure.set(null);
        live = new LiveRender(o.assembly(), o.compiled(), bench.workers(), x -> bench.later(() -> {
            failure.set(null);
            frame.set(x);
        }), e -> {
            bench.notices().fail(e);
            bench.later(() -> failure.set(e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage()));
        });
        live.patience(patience);
    }

    /** Shows nothing any more. */
    void leave() {
        close();
        live = null;
        frame.set(null);
        failure.set(null);
    }

    /** Limits the work of the picture, for slow machines: the passes after which it rests, and how many of the screen's pixels one of its
    // own stands for
     * each way, both at least 1; from the next project on. */
    public void spare(int passes, int pixels) {
        patience = passes;
        divisor = pixels;
    }

    void close() {
        if (live != null) live.close();
    }

    LiveRender live() {
        return live;
    }

    public ReadOnlyObjectProperty<LiveRender.Frame> frameProperty() {
        return frame.getReadOnlyProperty();
    }

    /** Why nothing can be shown, or null. */
    public ReadOnlyObjectProperty<String> failureProperty() {
        return failure;
    }

    /** Whether the live picture has half the pixels of the easel each way, and is sharp four times sooner. */
    public BooleanProperty halfProperty() {
        return half;
    }

    /** What a station shows of the view: the picture, where nothing else was chosen there. */
    public ObjectProperty<Showing> showing(Station station) {
        return showing.get(station);
    }

    /** Size that the easel can show, pixels; the live picture is rendered at it. */
    public void resize(int w, int h) {
        if (w == width && h == height || w < 16 || h < 16) return;
        width = w;
        height = h;
        show();
    }

    /** Width and height of the live picture: the view's shape fitted into the easel. */
    public int[] size() {
        View v = bench.view();
        double aspect = v == null ? 16.0 / 9 : (double) v.size()[0] / v.size()[1];
        int k = half.get() ? Math.max(2, divisor) : divisor, w = Math.min(width / k, (int) Math.round(height * aspect / k));
        return new int[] {Math.max(16, w), Math.max(16, (int) Math.round(w / aspect))};
    }

    void show() {
        if (live == null || bench.view() == null) return;
        int[] s = size();
        live.guides(bench.guides().toShow());
        live.caches(bench.prover().caches().toShow());
        live.show(bench.project(), bench.view(), s[0], s[1], shown());
    }

    /** Rests while a proof or a final is made. */
    void hold() {
        if (live != null) live.hold();
    }

    void release() {
        if (live == null || bench.view() == null || bench.prover().busy() || bench.finals().busy()) return;
        int[] s = size();
        live.release(bench.project(), bench.view(), s[0], s[1], shown());
    }

    private Showing shown() {
        return showing(bench.stationProperty().get()).get();
    }
}
