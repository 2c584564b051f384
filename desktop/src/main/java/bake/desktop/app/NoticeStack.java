package bake.desktop.app;

import bake.desktop.parts.Ui;
import bake.desktop.work.Notices;
import bake.desktop.work.Workbench;
import java.util.ArrayList;
import java.util.List;
import javafx.animation.FadeTransition;
import javafx.animation.PauseTransition;
import javafx.animation.SequentialTransition;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/**
 * What the window has to say and to ask, over the picture's lower edge: it takes no room from it. Notices fade, errors and questions
 * stay.
 */
final class NoticeStack extends VBox {
    private static final Duration STAYS = Duration.seconds(7), FADES = Duration.millis(600);
    private final Workbench bench;
    private final VBox said = new VBox(4);

    NoticeStack(Workbench bench) {
        super(4);
        this.bench = bench;
        setId("notices");
        getStyleClass().add("notices");
        setPickOnBounds(false);
        setAlignment(Pos.BOTTOM_LEFT);
        setMaxSize(760, Region.USE_PREF_SIZE);
        said.setPickOnBounds(false);
        Label lost = text(""), holder = text(""), leave = text("");
        HBox recovery = question(lost, Ui.button("recover", "Take it back", "As an edit that can be undone", bench.document()::recover, "small"),
                Ui.button("discard", "Delete it", "The project stays as it was last saved; the unsaved work is gone for good",
                        bench.document()::discardRecovered, "small"));
        HBox readOnly = question(holder, Ui.button("take-over", "Take over", "This window writes the project then, and the other only reads it; "
                + "what is unsaved there is kept in a file of its own", bench.document()::takeOver, "small"));
        HBox outside = question(text("The project's file was changed outside since it was read."),
                Ui.button("take-theirs", "Load that", "As an edit that can be undone", () -> bench.document().session().takeTheirs(), "small"),
                Ui.button("keep-mine", "Keep what is here", "The next save replaces what was changed outside",
                        () -> bench.document().session().keepMine(), "small"));
        HBox leaving = question(leave, Ui.button("leave-stop", "Stop it, keep what there is, and quit", null,
                        () -> bench.leaving().stopAndQuit(), "small"),
                Ui.button("leave-go-on", "Go on without the window", "Bake ends once the work is done", () -> bench.leaving().goOnWithout(),
                        "small"),
                Ui.button("leave-stay", "Do not quit", null, () -> bench.leaving().stay(), "small"));
        getChildren().addAll(said, recovery, readOnly, outside, leaving);
        bench.document().recoveryProperty().addListener((o, a, b) -> {
            if (b) lost.setText("Work that was never saved is here, of " + bench.document().session().recoveredAt().replace('T', ' ') + ".");
            Ui.show(recovery, b);
        });
        bench.document().readOnlyProperty().addListener((o, a, b) -> {
            if (b) holder.setText("Only to look at: " + bench.document().session().holder().words() + " writes this project.");
            Ui.show(readOnly, b);
        });
        bench.document().outsideProperty().addListener((o, a, b) -> Ui.show(outside, b));
        bench.leaving().askedProperty().addListener((o, a, b) -> {
            if (b) leave.setText(bench.leaving().what());
            Ui.show(leaving, b);
            if (b) leaving.getChildren().getLast().requestFocus();
        });
        bench.notices().all().addListener((ListChangeListener<Notices.Message>) c -> refresh());
        refresh();
    }

    private static Label text(String t) {
        Label l = Ui.label(t, "message-text");
        l.setWrapText(true);
        return l;
    }

    private static HBox question(Node... parts) {
        List<Node> all = new ArrayList<>(List.of(parts));
        all.add(1, Ui.spring());
        HBox h = Ui.row(all.toArray(Node[]::new));
        h.getStyleClass().addAll("message", "question");
        Ui.show(h, false);
        return h;
    }

    /** A row for each message; those that are shown already go on fading as they do. */
    private void refresh() {
        List<Notices.Message> all = bench.notices().all();
        said.getChildren().removeIf(n -> !all.contains(n.getUserData()));
        for (Notices.Message m : all)
            if (said.getChildren().stream().noneMatch(n -> n.getUserData() == m)) said.getChildren().add(row(m));
        for (Node n : said.getChildren()) {
            boolean last = n.getUserData() == all.getLast();
            ((HBox) n).getChildren().getFirst().setId(last ? "message" : null);
            ((HBox) n).getChildren().getLast().setId(last ? "message-close" : null);
        }
    }

    private HBox row(Notices.Message m) {
        Button close = Ui.button(null, "Close", null, () -> bench.notices().close(m), "small");
        HBox row = Ui.row(text(m.text()), Ui.spring(), close);
        row.setUserData(m);
        row.getStyleClass().addAll("message", m.error() ? "error" : "notice");
        if (m.error()) return row;
        FadeTransition fade = new FadeTransition(FADES, row);
        fade.setToValue(0);
        SequentialTransition t = new SequentialTransition(new PauseTransition(STAYS), fade);
        t.setOnFinished(e -> bench.notices().close(m));
        t.play();
        return row;
    }
}
