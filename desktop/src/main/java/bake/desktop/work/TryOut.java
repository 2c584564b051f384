package bake.desktop.work;

import bake.formats.project.Project;
import bake.studio.plan.Deliveries;
import bake.studio.plan.DryRun;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** The delivery in small, to see in the evening what would be wrong in the morning. Holds no control. */
public final class TryOut {
    private final Workbench bench;
    private final Executor background;
    private final Finals finals;
    private final ObjectProperty<List<DryRun.Small>> sheet = new SimpleObjectProperty<>(List.of());
    private final BooleanProperty running = new SimpleBooleanProperty();
    private volatile DryRun run;

    TryOut(Workbench bench, Executor background, Finals finals) {
        this.bench = bench;
        this.background = background;
        this.finals = finals;
        bench.projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || !a.name().equals(b.name())) sheet.set(List.of());
        });
    }

    public ObjectProperty<List<DryRun.Small>> sheetProperty() {
        return sheet;
    }

    public BooleanProperty runningProperty() {
        return running;
    }

    /** Makes them, one after another; each is shown as soon as it is there. */
    public void start() {
        Project p = bench.project();
        if (p == null || bench.finals().busy() || bench.prover().busy()) return;
        Path folder = bench.folder();
        List<Deliveries.Picture> all = finals.rows().stream().filter(r -> !r.picture().off()).map(Finals.Row::picture).toList();
        running.set(true);
        sheet.set(List.of());
        bench.easel().hold();
        DryRun r = new DryRun(bench.workers());
        run = r;
        background.execute(() -> {
            List<DryRun.Small> made = new ArrayList<>();
            try {
                r.make(p, folder, all, s -> {
                    made.add(s);
                    List<DryRun.Small> now = List.copyOf(made);
                    bench.later(() -> sheet.set(now));
                });
            } finally {
                bench.later(() -> {
                    running.set(false);
                    bench.easel().release();
                });
            }
        });
    }

    public void stop() {
        DryRun r = run;
        if (r != null) r.stop();
    }
}
