package bake.desktop.work;

import bake.core.math.Vec3;
import bake.studio.live.LiveRender;
import bake.studio.live.Spots;
import java.util.List;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** What clicks on the picture of the Model station do: pick an object with its material, measure, or place a file. Holds no control. */
public final class ModelPicks {
    /** What a click does. */
    public enum Tool { PICK, MEASURE, PLACE }

    private final Workbench bench;
    private final ObjectProperty<Tool> tool = new SimpleObjectProperty<>(Tool.PICK);
    private final ObjectProperty<Spots.Place> picked = new SimpleObjectProperty<>();
    private final ObjectProperty<List<Vec3>> measured = new SimpleObjectProperty<>(List.of());
    private int placing;

    ModelPicks(Workbench bench) {
        this.bench = bench;
        tool.addListener((o, a, b) -> {
            if (a == Tool.MEASURE) measured.set(List.of());
        });
    }

    void begin() {
        tool.set(Tool.PICK);
        picked.set(null);
        measured.set(List.of());
    }

    public ObjectProperty<Tool> toolProperty() {
        return tool;
    }

    /** What was clicked last, or null. */
    public ObjectProperty<Spots.Place> pickedProperty() {
        return picked;
    }

    /** Ends of what is measured: none, one or two, metres. */
    public ObjectProperty<List<Vec3>> measuredProperty() {
        return measured;
    }

    /** The distance between two ends that were clicked, metres; NaN before. */
    public double distance() {
        return measured.get().size() < 2 ? Double.NaN : measured.get().get(1).minus(measured.get().get(0)).length();
    }

    /** The next click puts the origin of one of the files there. */
    public void place(int file) {
        placing = file;
        tool.set(Tool.PLACE);
    }

    /** Takes a click, 0 to 1 from the left and the top. */
    public void click(double x, double y) {
        LiveRender.Frame f = bench.easel().frameProperty().get();
        if (f == null) return;
        if (f.spots() == null) {
            bench.notices().say("Switch to Picture or Clay under the easel to pick and measure.");
            return;
        }
        Spots.Place p = f.spots().place(x, y);
        switch (tool.get()) {
            case PICK -> picked.set(p);
            case MEASURE -> {
                if (p != null) measured.set(measured.get().size() == 1 ? List.of(measured.get().getFirst(), p.at()) : List.of(p.at()));
            }
            default -> {
                tool.set(Tool.PICK);
                if (p != null) bench.models().change(null, placing, m -> m.placed(LampHand.array(p.at()), m.turn(), m.scale()));
            }
        }
    }
}
