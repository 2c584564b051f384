package bake.desktop.work;

import bake.formats.project.FinishSpec;
import bake.formats.project.SavedLook;
import bake.formats.project.View;
import bake.studio.look.LookShelf;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/** Looks that have a name: which there are, what the current view makes of the one it began with, keeping and putting on. */
public final class LooksHand {
    private final Workbench bench;
    private final Executor background;
    private final ObservableList<SavedLook> looks = FXCollections.observableArrayList();
    private List<SavedLook> versions = List.of();
    /** The finish that was there before the last look was put on, to look at it once more. */
    private FinishSpec other;
    private String otherCurve;

    LooksHand(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        bench.viewProperty().addListener((o, a, b) -> {
            if (b == null || a == null || !a.name().equals(b.name())) other = null;
            if (a == null && b != null && bench.stationProperty().get() == Station.VIEW) list();
        });
        bench.stationProperty().addListener((o, a, b) -> {
            if (b == Station.VIEW) list();
        });
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
        else bench.finish().set(difference, l.finish().get(difference));
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
                        bench.editView(null, x -> x.withFinish(x.finish().withLook(l.title())));
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
