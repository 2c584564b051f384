package bake.desktop.station.finals;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.Finals;
import bake.desktop.work.PlanHand;
import bake.studio.plan.Plan;
import bake.studio.plan.Score;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** The delivery: when it will be ready, a line for each picture, and what would make it fit. */
public final class FinalsPane extends VBox {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
    private final FinalsWork work;
    private final FinalsTable table;
    private final Label title = Ui.label("", "finals-title"), due = Ui.label("", "finals-due"), ready = Ui.label("", "finals-ready");
    private final Button find, again, pause, stop, start;

    public FinalsPane(FinalsWork work) {
        this.work = work;
        Finals f = work.finals();
        setId("finals-pane");
        getStyleClass().add("finals");
        setSpacing(12);
        ready.setId("finals-ready");
        start = Ui.button("finals-start", "Render finals",
                "Adds the chosen pictures to this machine's queue, which goes on without the window", f.start()::now,
                "main-action");
        stop = Ui.button("finals-stop", "Stop, keep", "Stops the picture in work and writes what it has, under a name that says so; the others are left",
                f::stop, "small");
        pause = Ui.button("finals-pause", "Rest", "Gives the machine back within a moment; nothing is lost", () -> f.queue().pause(!resting()), "small");
        again = Ui.button("finals-go-on", "Go on", "Nobody works the queue: have it worked where it was left", () -> f.queue().goOn(), "small");
        find = Ui.button("finals-find", "When will it be ready?", "Makes a small picture of each view that nothing is known of, some seconds each",
                () -> f.plan().find(), "small");
        Button tryOut = Ui.button("finals-try", "Try it small", "Every picture at a sixteenth of its size: what would be wrong in the morning is seen now",
                () -> {
            if (f.tryOut().runningProperty().get()) f.tryOut().stop();
            else f.tryOut().start();
        }, "small");
        f.tryOut().runningProperty().addListener((o, a, b) -> tryOut.setText(b ? "Stop trying" : "Try it small"));
        start.setMinWidth(USE_PREF_SIZE);
        table = new FinalsTable(f);
        setMinWidth(0);
        getChildren().addAll(Ui.row(title, due, Ui.spring(), again, pause, stop, start), Ui.row(ready, Ui.spring(), find, tryOut), asked(),
                new PlanClock(f.plan()), new WaysPart(f.plan()), table, new SheetPart(f.tryOut()));
        f.rows().addListener((ListChangeListener<Finals.Row>) c -> fill());
        f.queue().seenProperty().addListener((o, a, b) -> fill());
        f.plan().planProperty().addListener((o, a, b) -> told());
        f.plan().lookingProperty().addListener((o, a, b) -> told());
        work.document().projectProperty().addListener((o, a, b) -> fill());
        fill();
    }

    private boolean resting() {
        var s = work.finals().queue().seenProperty().get();
        return s != null && s.paused();
    }

    /** What is to become of finals that are there already. */
    private VBox asked() {
        Label text = Ui.note("");
        VBox out = new VBox(6, text, Ui.row(
                Ui.button("finals-number", "Keep them, number the new ones", "New finals get names that end in -2, -3 and so on",
                        () -> work.finals().start().number(), "small"),
                Ui.button("finals-replace", "Replace them", "Each goes once its new picture is whole, and not before",
                        () -> work.finals().start().replace(), "small"),
                Ui.button("finals-not-now", "Do not render", null, () -> work.finals().start().leave(), "small")));
        out.setId("finals-existing");
        out.getStyleClass().add("asked");
        work.finals().start().existingProperty().addListener((o, a, there) -> {
            text.setText((there.size() == 1 ? "This final is there already: " : "These finals are there already: ")
                    + String.join(", ", there.stream().map(f -> f.getFileName().toString()).toList()) + ".");
            Ui.show(out, !there.isEmpty());
        });
        Ui.show(out, false);
        return out;
    }

    private void fill() {
        Ui.refill(this, this::refill);
    }

    private void refill() {
        Finals f = work.finals();
        var rows = f.rows();
        long chosen = rows.stream().filter(r -> !r.picture().off()).count();
        title.setText(rows.isEmpty() ? "The finals of the project's views are made here" : f.delivery().name() + ": " + chosen
                + (chosen == 1 ? " final" : " finals"));
        ZonedDateTime d = f.plan().due();
        due.setText(d == null ? "" : "due " + d.format(WHEN) + ", " + Texts.until(LocalDateTime.now(), d.toLocalDateTime()));
        boolean queued = rows.stream().anyMatch(Finals.Row::queued);
        Ui.show(stop, f.runningProperty().get());
        Ui.show(pause, queued || resting());
        pause.setText(resting() ? "Work again" : "Rest");
        Ui.show(again, queued && f.queue().left());
        start.setDisable(rows.stream().noneMatch(r -> r.open() && !r.queued()));
        told();
    }

    /** When it will be ready, and what that stands on. */
    private void told() {
        PlanHand h = work.finals().plan();
        Plan p = h.planProperty().get();
        long unknown = h.unknown();
        Ui.show(find, unknown > 0);
        find.setDisable(h.lookingProperty().get());
        Score score = h.score();
        String kept = score.pictures() == 0 ? "" : String.format(Locale.ROOT, "  So far pictures took %.2f of what was promised (%d).", score.ratio(),
                score.pictures());
        ready.setTooltip(score.weeks().isEmpty() ? null : Ui.tip(String.join("\n", score.weeks().stream().map(Score.Week::words).toList())));
        ready.setText(p == null ? unknown > 0 ? "How long it takes is not known yet." : "" : "Ready " + p.end().format(WHEN) + ", " + p.early().format(WHEN)
                + " to " + p.late().format(WHEN) + (Double.isNaN(p.chance()) || unknown > 0 ? "." : String.format(Locale.ROOT, ". In time with a chance of %.0f %%.",
                        100 * p.chance())) + (unknown > 0 ? "  " + unknown + (unknown == 1 ? " picture is" : " pictures are") + " not in it." : "") + kept);
        ready.getStyleClass().removeAll("late", "in-time");
        if (p != null && !Double.isNaN(p.chance()) && unknown == 0) ready.getStyleClass().add(p.chance() < 0.5 ? "late" : "in-time");
    }
}
