package bake.desktop.work;

import bake.core.finish.ExposureZones;
import bake.core.finish.Finish;
import bake.core.finish.SplineCurve;
import bake.formats.picture.CubeFile;
import bake.formats.project.FinishSpec;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import bake.studio.look.SoftProof;
import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** How the picture of the current view is finished. */
public final class FinishHand {
    private final Workbench bench;
    private final SkyFiles files;
    private final Executor background;
    private final ObjectProperty<Through> through = new SimpleObjectProperty<>(Through.NOTHING);
    private final ObjectProperty<SoftProof> paper = new SimpleObjectProperty<>();
    private final ReadOnlyObjectWrapper<Looked> looked = new ReadOnlyObjectWrapper<>();
    private int asked;
    private final BooleanProperty picking = new SimpleBooleanProperty();

    FinishHand(Workbench bench, SkyFiles files, Executor background) {
        this.bench = bench;
        this.files = files;
        this.background = background;
        bench.viewProperty().addListener((o, a, b) -> {
            if (b == null || a == null || !a.name().equals(b.name())) picking.set(false);
        });
        bench.easel().frameProperty().addListener((o, a, b) -> look());
        through.addListener((o, a, b) -> look());
        paper.addListener((o, a, b) -> look());
        bench.stationProperty().addListener((o, a, b) -> {
            look();
            picking.set(false);
        });
    }

    /** Sets a value; null takes it away, and so does what it is without. */
    public void set(String key, Object value) {
        bench.editView("finish " + key, v -> v.withFinish(v.finish().with(key, value)));
    }

    /** The curve of all colours (null) or of one. */
    public SplineCurve curve(String colour) {
        FinishSpec f = bench.view().finish();
        return SplineCurve.of(switch (colour == null ? "curve" : colour) {
            case "red" -> f.red();
            case "green" -> f.green();
            case "blue" -> f.blue();
            default -> f.curve();
        });
    }

    public void curve(String colour, SplineCurve c, String gesture) {
        String key = colour == null ? "curve" : colour;
        bench.editView("finish " + key + gesture, v -> v.withFinish(v.finish().with(key, c.straight() ? null : c.points())));
    }

    /** Takes all of it away. */
    public void clear() {
        bench.editView(null, v -> v.withFinish(FinishSpec.NONE));
    }

    /** What the picture of this station is looked at through. */
    public enum Through { NOTHING, ZONES, PAPER, PAPER_MARKED }

    public ObjectProperty<Through> throughProperty() {
        return through;
    }

    /** The paper that is looked at, or null. */
    public ObjectProperty<SoftProof> paperProperty() {
        return paper;
    }

    /** Looks at the picture as a paper would show it. */
    public void paper(Path profile) {
        background.execute(() -> {
            try {
                SoftProof p = SoftProof.read(profile);
                bench.later(() -> {
                    paper.set(p);
                    through.set(Through.PAPER);
                });
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** A live picture as it is looked at. */
    public record Looked(int[] argb, int width, int height) {}

    /** The live picture as it is looked at; null where it is looked at as it is. */
    public ReadOnlyObjectProperty<Looked> lookedProperty() {
        return looked.getReadOnlyProperty();
    }

    private void look() {
        LiveRender.Frame f = bench.easel().frameProperty().get();
        Through t = through.get();
        SoftProof p = paper.get();
        int number = ++asked;
        if (f == null || bench.stationProperty().get() != Station.VIEW || t == Through.NOTHING || t != Through.ZONES && p == null) {
            looked.set(null);
            return;
        }
        background.execute(() -> {
            int[] argb = t == Through.ZONES ? ExposureZones.of(f.argb()) : p.show(f.argb(), t == Through.PAPER_MARKED);
            bench.later(() -> {
                if (number == asked) looked.set(new Looked(argb, f.width(), f.height()));
            });
        });
    }

    /** Whether the next click on the picture says what is grey. */
    public BooleanProperty pickingProperty() {
        return picking;
    }

    /** A click on the picture, 0 to 1 from the left and the top; whether it was taken. */
    public boolean click(double x, double y) {
        LiveRender.Frame f = bench.easel().frameProperty().get();
        if (!picking.get() || f == null || f.spots() == null) return false;
        picking.set(false);
        float[] rgb = f.spots().colour(x, y);
        background.execute(() -> {
            double[] found = Finish.balanceOf(rgb);
            bench.later(() -> {
                if (found == null) bench.notices().say("No light makes that grey: it is too colourful, or black. Click something white or grey.");
                else bench.editView(null, v -> v.withWhiteBalance(Math.rint(found[0] / 10) * 10)
                        .withFinish(v.finish().withTint(Math.abs(found[1]) < 0.005 ? null : Math.rint(found[1] * 100) / 100)));
            });
        });
        return true;
    }

    /** White balance for the light that gives most here. */
    public void ofMainLight() {
        LiveRender.Frame f = bench.easel().frameProperty().get();
        if (f == null || f.spots() == null) return;
        background.execute(() -> {
            double[] found = Finish.balanceOf(f.spots().mean());
            bench.later(() -> {
                if (found == null) bench.notices().say("The light here has no white of its own; pick a grey in the picture.");
                else bench.editView(null, v -> v.withWhiteBalance(Math.rint(found[0] / 10) * 10));
            });
        });
    }

    /** A colour table for the view. */
    public void table(Path file) {
        files.file(file, "luts", () -> CubeFile.read(file), name -> set("lut", name));
    }
}
