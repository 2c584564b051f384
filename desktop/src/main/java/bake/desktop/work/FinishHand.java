package bake.desktop.work;

import bake.core.finish.ExposureZones;
import bake.core.finish.Finish;
import bake.core.finish.SplineCurve;
import bake.formats.picture.CubeFile;
import bake.formats.project.FinishSpec;
import bake.formats.project.SavedLook;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import bake.studio.look.LookShelf;
import bake.studio.look.SoftProof;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/** How the picture of the current view is finished, and the looks that have a name. */
public final class FinishHand {
    private final Workbench bench;
    private final SkyFiles files;
    private final Executor background;
    private final ObservableList<SavedLook> looks = FXCollections.observableArrayList();
    private List<SavedLook> versions = List.of();
    private final ObjectProperty<Through> through = new SimpleObjectProperty<>(Through.NOTHING);
    private final ObjectProperty<SoftProof> paper = new SimpleObjectProperty<>();
    private final ReadOnlyObjectWrapper<Looked> looked = new ReadOnlyObjectWrapper<>();
    private int asked;
    private final BooleanProperty picking = new SimpleBooleanProperty();
    /** The finish that was there before the last look was put on, to look at it once more. */
    private FinishSpec other;
    private String otherCurve;

    FinishHand(Workbench bench, SkyFiles files, Executor background) {
        this.bench = bench;
        this.files = files;
        this.background = background;
        bench.viewProperty().addListener((o, a, b) -> {
            if (b == null || a == null || !a.name().equals(b.name())) {
                other = null;
                picking.set(false);
            }
            if (a == null && b != null && bench.stationProperty().get() == Station.VIEW) list();
        });
        bench.easel().frameProperty().addListener((o, a, b) -> look());
        through.addListener((o, a, b) -> look());
        paper.addListener((o, a, b) -> look());
        bench.stationProperty().addListener((o, a, b) -> {
            look();
            picking.set(false);
            if (b == Station.VIEW) list();
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
                else bench.editView(null, v -> v.withWhiteBalance(Math.rint(found[0] / 10) * 10).withFinish(v.finish().with("tint",
                        Math.abs(found[1]) < 0.005 ? null : Math.rint(found[1] * 100) / 100)));
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

    /** The look that the view began with, in its own version; null where it began with none that is on a shelf. */
    public SavedLook began() {
        String title = bench.view() == null ? null : bench.view().finish().look();
        return title == null ? null : versions.stream().filter(l -> l.title().equals(title)).findFirst().orElse(null);
    }

    /** A newer version of that; null where there is none. */
    public SavedLook newer() {
        SavedLook l = began();
        return l == null ? null : looks.stream().filter(x -> x.name().equals(l.name()) && x.version() > l.version()).findFirst().orElse(
                null);
    }

    /** Puts a value back to what the look says. */
    public void back(String difference) {
        SavedLook l = began();
        if (l == null) return;
        if (difference.equals("tone curve")) bench.editView(null, v -> v.withCurve(l.curve()));
        else set(difference, l.finish().get(difference));
    }

    /** Looks of all shelves, newest versions. */
    public ObservableList<SavedLook> looks() {
        return looks;
    }

    /** Looks for them anew. */
    public void list() {
        Path folder = bench.folder();
        if (folder == null) return;
        background.execute(() -> {
            List<LookShelf> shelves = LookShelf.all(folder);
            List<SavedLook> found = LookShelf.current(shelves), every = shelves.stream().flatMap(x -> x.versions().stream()).toList();
            bench.later(() -> {
                if (folder.equals(bench.folder())) versions = every;
                if (folder.equals(bench.folder()) && !looks.equals(found)) looks.setAll(found);
            });
        });
    }

    /**
     * Keeps the finish of the view as a look.
     *
     * @param shelf number of the shelf: 0 the project's, 1 the artist's own, 2 the studio's
     */
    public void save(String name, int shelf) {
        View v = bench.view();
        Path folder = bench.folder();
        if (v == null || name.isBlank()) throw new IllegalArgumentException("A look needs a name.");
        background.execute(() -> {
            try {
                List<LookShelf> all = LookShelf.all(folder);
                if (shelf >= all.size()) throw new IOException("There is no studio shelf; choose one at Prove.");
                SavedLook l = all.get(shelf).save(SavedLook.of(v, name), System.getProperty("user.name"), null);
                bench.later(() -> {
                    bench.notices().say("Look " + l.name() + " v" + l.version() + " is kept.");
                    View now = bench.view();
                    // The view stands on it now, unless it was changed meanwhile.
                    if (now != null && now.name().equals(v.name()) && l.differences(now).isEmpty())
                        bench.editView(null, x -> x.withFinish(x.finish().with("look", l.title())));
                });
                list();
            } catch (IOException | IllegalArgumentException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Finishes the view as a look says. */
    public void use(SavedLook l) {
        View v = bench.view();
        if (v == null) return;
        other = v.finish();
        otherCurve = v.curve();
        bench.editView(null, l::on);
    }

    /** Whether there is a finish to go back and forth to. */
    public boolean hasOther() {
        return other != null;
    }

    /** Changes between the finish there is and the one before the last look. */
    public void swap() {
        View v = bench.view();
        if (v == null || other == null) return;
        FinishSpec f = other;
        String c = otherCurve;
        other = v.finish();
        otherCurve = v.curve();
        bench.editView(null, x -> x.withFinish(f).withCurve(c));
    }
}
