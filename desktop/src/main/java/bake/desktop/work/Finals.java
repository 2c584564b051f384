package bake.desktop.work;

import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.preset.Presets;
import bake.studio.queue.Delivery;
import bake.studio.render.RenderJob;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/** The delivery: which views, where to, and how far. */
public final class Finals {
    /** How a final stands. */
    public enum Stage { WAITING, RENDERING, DONE, STOPPED, FAILED }

    /** One line of the delivery. */
    public record Row(View view, Preset preset, int width, int height, boolean chosen, Stage stage, RenderJob.Progress progress,
            String note) {
        Row chosen(boolean c) {
            return new Row(view, preset, width, height, c, stage, progress, note);
        }

        Row at(Stage s, RenderJob.Progress p, String n) {
            return new Row(view, preset, width, height, chosen, s, p, n);
        }
    }

    private final Workbench bench;
    private final Executor background;
    private final ObservableList<Row> rows = FXCollections.observableArrayList();
    private final Set<String> left = new TreeSet<>();
    private final BooleanProperty running = new SimpleBooleanProperty();
    private final ObjectProperty<Path> folder = new SimpleObjectProperty<>();
    private final ObjectProperty<String> ending = new SimpleObjectProperty<>(".png");
    private final ObjectProperty<List<Path>> existing = new SimpleObjectProperty<>(List.of());
    /** The project whose delivery folder it is: one that was chosen stays until another project is opened. */
    private Path of;
    private volatile Delivery delivery;

    Finals(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        bench.projectProperty().addListener((o, a, b) -> refresh(a, b));
    }

    public ObservableList<Row> rows() {
        return rows;
    }

    public BooleanProperty runningProperty() {
        return running;
    }

    public ObjectProperty<Path> folderProperty() {
        return folder;
    }

    /** Ending of the files: .png, .tif, .exr or .hdr. */
    public ObjectProperty<String> endingProperty() {
        return ending;
    }

    /** Finals that are there already, while it is asked what is to become of them; empty while nothing is asked. */
    public ObjectProperty<List<Path>> existingProperty() {
        return existing;
    }

    boolean busy() {
        return running.get();
    }

    private void refresh(Project before, Project now) {
        if (running.get() || now == null) return;
        if (!bench.folder().equals(of)) {
            of = bench.folder();
            folder.set(of.resolve("finals"));
        }
        List<Row> out = new ArrayList<>();
        for (View v : now.views()) {
            Preset p = Presets.suiting(now, v, true);
            Row old = rows.stream().filter(r -> r.view() == v).findFirst().orElse(null);
            out.add(old != null && old.preset().equals(p) ? old : new Row(v, p, v.size()[0], v.size()[1], !left.contains(v.name()),
                    Stage.WAITING, null, ""));
        }
        rows.setAll(out);
    }

    public void choose(Row r, boolean chosen) {
        if (running.get()) return;
        if (chosen) left.remove(r.view().name());
        else left.add(r.view().name());
        rows.set(rows.indexOf(r), r.chosen(chosen));
    }

    /** Renders the chosen views one after another; where that would replace finals it is asked first. */
    public void start() {
        List<Path> there = items(false, true).stream().map(Delivery.Item::file).filter(Files::exists).toList();
        existing.set(there);
        if (there.isEmpty()) start(items(false, false));
    }

    /** Makes the finals anew; each that is there goes once its new one is whole. */
    public void replace() {
        existing.set(List.of());
        start(items(false, true));
    }

    /** Makes the finals beside those that are there, under numbered names. */
    public void number() {
        existing.set(List.of());
        start(items(true, false));
    }

    /** Leaves everything as it is. */
    public void leave() {
        existing.set(List.of());
    }

    private List<Delivery.Item> items(boolean numbered, boolean replace) {
        List<Delivery.Item> items = new ArrayList<>();
        Set<Path> taken = new TreeSet<>();
        for (Row r : rows) {
            if (!r.chosen() || folder.get() == null) continue;
            Path f = folder.get().resolve(Delivery.fileName(r.view(), ending.get()));
            for (int i = 2; !taken.add(f) || numbered && Files.exists(f); i++)
                f = folder.get().resolve(Delivery.fileName(r.view(), "-" + i + ending.get()));
            items.add(new Delivery.Item(r.view(), r.preset(), r.width(), r.height(), f, replace));
        }
        return items;
    }

    private void start(List<Delivery.Item> items) {
        if (running.get() || bench.prover().busy() || items.isEmpty() || bench.easel().live() == null) return;
        Project project = bench.project();
        for (int i = 0; i < rows.size(); i++) rows.set(i, rows.get(i).at(Stage.WAITING, null, ""));
        running.set(true);
        bench.easel().hold();
        Delivery d = new Delivery(bench.workers(), bench.easel().live()::compile, bench.folder());
        delivery = d;
        background.execute(() -> {
            try {
                d.run(project, items, new Told());
            } finally {
                bench.later(() -> {
                    running.set(false);
                    bench.easel().release();
                    if (bench.project() != null) refresh(bench.project(), bench.project());
                });
            }
        });
    }

    /** Stops the final in work and keeps what it has; the others are not begun. */
    public void stop() {
        Delivery d = delivery;
        if (d != null) d.stop();
    }

    /** Asks for the final in work to be kept after its next pass. */
    public void saveSoon() {
        Delivery d = delivery;
        if (d == null) return;
        d.saveSoon();
        bench.notices().say("The final in work is kept after the pass it is in.");
    }

    private final class Told implements Delivery.Listener {
        private long last;

        @Override
        public void progress(Delivery.Item item, RenderJob.Progress p) {
            long now = System.nanoTime();
            if (now - last < 200_000_000L && p.state() == RenderJob.State.RENDERING) return;
            last = now;
            set(item, Stage.RENDERING, p, "");
        }

        @Override
        public void finished(Delivery.Item item, RenderJob.Progress p, int resumedAt) {
            set(item, Stage.DONE, p, item.file().getFileName() + (resumedAt > 0 ? ", went on from pass " + resumedAt : ""));
        }

        @Override
        public void stopped(Delivery.Item item, RenderJob.Progress p, Path kept) {
            set(item, Stage.STOPPED, p, kept.getFileName().toString());
        }

        @Override
        public void failed(Delivery.Item item, Exception e) {
            set(item, Stage.FAILED, null, e.getMessage());
        }

        @Override
        public void warned(Delivery.Item item, String text) {
            bench.later(() -> bench.notices().say(text));
        }

        private void set(Delivery.Item item, Stage s, RenderJob.Progress p, String note) {
            bench.later(() -> {
                for (int i = 0; i < rows.size(); i++) if (rows.get(i).view() == item.view()) rows.set(i, rows.get(i).at(s, p, note));
            });
        }
    }
}
