package bake.desktop.station.finals;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.PlanHand;
import bake.studio.plan.Plan;
import bake.studio.queue.QueueHours;
import java.time.Duration;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;

/** The plan on a clock: a bar for each picture with the range of its end, nights shaded, now and the due time as lines. */
final class PlanClock extends Pane {
    private static final double ROW = 22, TOP = 20, LEFT = 170, RIGHT = 24, BAR = 10, LABEL = 56, LOCK = 16;
    /** Minutes between labels. */
    private static final int[] STEPS = {1, 2, 5, 10, 30, 60, 180, 360, 720, 1440, 2880, 10_080, 40_320};
    private static final LocalTime DUSK = LocalTime.of(20, 0), DAWN = LocalTime.of(6, 0);
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("EEE HH:mm", Locale.ENGLISH);
    private final PlanHand hand;
    private ZonedDateTime from, to;
    /** Where a bar that is carried would go. */
    private final Line mark = new Line();
    private boolean carried;

    PlanClock(PlanHand hand) {
        this.hand = hand;
        setId("plan-clock");
        getStyleClass().add("plan-clock");
        setMinWidth(0);
        mark.getStyleClass().add("plan-mark");
        mark.setManaged(false);
        mark.setVisible(false);
        hand.planProperty().addListener((o, a, b) -> fill());
        widthProperty().addListener((o, a, b) -> fill());
        fill();
    }

    private double x(ZonedDateTime t) {
        double share = Duration.between(from, t).toMillis() / (double) Math.max(1, Duration.between(from, to).toMillis());
        return LEFT + Math.clamp(share, -0.02, 1.02) * Math.max(1, getWidth() - LEFT - RIGHT);
    }

    private void fill() {
        // What is being carried is not taken out of the hand.
        if (!carried) Ui.refill(this, this::refill);
    }

    private void refill() {
        getChildren().clear();
        Plan p = hand.planProperty().get();
        Ui.show(this, p != null && !p.bars().isEmpty());
        if (p == null || p.bars().isEmpty() || getWidth() < LEFT + 60) {
            if (p != null) setPrefHeight(TOP + ROW * p.bars().size() + 8);
            return;
        }
        ZonedDateTime due = hand.due(), now = ZonedDateTime.now();
        from = now;
        to = p.late();
        if (due != null && due.isAfter(to)) to = due;
        to = to.plus(Duration.between(from, to).dividedBy(14)).plusSeconds(30);
        double h = TOP + ROW * p.bars().size();
        setPrefHeight(h + 8);
        setMinHeight(h + 8);
        nights(h);
        hours(h);
        for (int i = 0; i < p.bars().size(); i++) bar(p.bars().get(i), TOP + ROW * i);
        if (due != null) line(due, h, "plan-due", "due " + due.format(WHEN));
        line(now, h, "plan-now", null);
        getChildren().add(mark);
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText(words(p));
    }

    /** What the clock shows, in words. */
    static String words(Plan p) {
        StringBuilder b = new StringBuilder();
        for (Plan.Bar x : p.bars()) b.append(x.work().name()).append(' ').append(x.begin().format(WHEN)).append(" to ").append(x.end().format(WHEN))
                .append(". ");
        return b.toString();
    }

    private void nights(double h) {
        QueueHours closed = new QueueHours(DUSK, DAWN, false);
        for (ZonedDateTime t = from; t.isBefore(to); ) {
            ZonedDateTime begin = closed.next(t);
            if (!begin.isBefore(to)) return;
            ZonedDateTime end = begin;
            while (closed.open(end) && end.isBefore(to)) end = end.plusMinutes(10);
            Rectangle r = new Rectangle(x(begin), TOP - 4, Math.max(0, x(end.isAfter(to) ? to : end) - x(begin)), h - TOP + 8);
            r.getStyleClass().add("plan-night");
            getChildren().add(r);
            t = end.plusMinutes(1);
        }
    }

    private void hours(double h) {
        long minutes = Math.max(1, Duration.between(from, to).toMinutes());
        // As many labels as there is room for.
        double room = Math.max(2, (getWidth() - LEFT - RIGHT) / LABEL);
        int step = STEPS[STEPS.length - 1];
        for (int i = STEPS.length - 1; i >= 0 && minutes / (double) STEPS[i] <= room; i--) step = STEPS[i];
        ZonedDateTime t = from.toLocalDate().atStartOfDay(from.getZone());
        while (t.isBefore(from)) t = t.plusMinutes(step);
        for (; t.isBefore(to); t = t.plusMinutes(step)) {
            Line l = new Line(x(t), TOP - 4, x(t), h + 4);
            l.getStyleClass().add("plan-hour");
            Label n = Ui.label(t.format(DateTimeFormatter.ofPattern(step >= 10_080 ? "d MMM" : step >= 1440 ? "EEE d" : step >= 720 ? "EEE HH" : "HH:mm", Locale.ENGLISH)), "plan-text");
            n.relocate(x(t) - 14, 0);
            getChildren().addAll(l, n);
        }
    }

    private void bar(Plan.Bar b, double y) {
        Label name = Ui.label(b.work().name(), "plan-name");
        name.relocate(0, y);
        name.setMaxWidth(LEFT - LOCK - 10);
        name.setPrefWidth(LEFT - LOCK - 10);
        Rectangle r = new Rectangle(x(b.begin()), y + (ROW - BAR) / 2 - 2, Math.max(2, x(b.end()) - x(b.begin())), BAR);
        r.getStyleClass().add("plan-bar");
        Line range = new Line(x(b.early()), y + ROW / 2 - 2, x(b.late()), y + ROW / 2 - 2), end = new Line(x(b.late()), y + 4, x(
                b.late()), y + ROW - 8);
        range.getStyleClass().add("plan-range");
        end.getStyleClass().add("plan-range");
        Tooltip.install(r, Ui.tip(b.work().name() + "\n" + b.begin().format(WHEN) + " to " + b.end().format(WHEN) + ", in eight of ten cases "
                + b.early().format(WHEN) + " to " + b.late().format(WHEN) + "\nabout " + Texts.about(b.work().seconds())));
        getChildren().addAll(name, lock(b.work().name(), y), r, range, end);
        for (Node n : new Node[] {name, r}) carry(n, b.work().name());
        // The same by keys: the name takes the focus, and goes up and down.
        name.setId("plan-name-" + row(y));
        name.setFocusTraversable(true);
        name.getStyleClass().add("plan-carried");
        name.setTooltip(Ui.tip("Drag it up or down, or press the arrow keys with Ctrl, to have it made earlier or later"));
        name.setOnKeyPressed(e -> {
            if (!e.isShortcutDown() || e.getCode() != KeyCode.UP && e.getCode() != KeyCode.DOWN) return;
            int at = row(y);
            put(b.work().name(), e.getCode() == KeyCode.UP ? at - 1 : at + 2);
            e.consume();
        });
    }

    /** Whether it keeps its place and its settings; a bar of another project has none. */
    private Node lock(String name, double y) {
        ToggleButton b = new ToggleButton();
        b.setId("plan-lock-" + row(y));
        b.getStyleClass().add("plan-lock");
        b.setSelected(hand.locked(name));
        b.setVisible(hand.has(name));
        b.setAccessibleText("Lock " + name);
        b.setTooltip(Ui.tip("Locked: keeps its place when others are moved, and its size and quality when ways are looked for to be in time"));
        b.setOnAction(e -> hand.lock(name, b.isSelected()));
        b.relocate(LEFT - LOCK - 6, y + 1);
        return b;
    }

    private static int row(double y) {
        return (int) Math.floor((y - TOP) / ROW);
    }

    /** Lets a bar be put elsewhere in the order. */
    private void carry(Node n, String name) {
        n.setOnMousePressed(e -> {
            n.requestFocus();
            carried = true;
        });
        n.setOnMouseDragged(e -> {
            setCursor(Cursor.CLOSED_HAND);
            double y = sceneToLocal(e.getSceneX(), e.getSceneY()).getY();
            mark.setVisible(true);
            double line = TOP + ROW * place(y) - 2;
            mark.setStartX(0);
            mark.setEndX(getWidth() - RIGHT);
            mark.setStartY(line);
            mark.setEndY(line);
        });
        n.setOnMouseReleased(e -> {
            setCursor(null);
            carried = false;
            if (mark.isVisible()) put(name, place(sceneToLocal(e.getSceneX(), e.getSceneY()).getY()));
            mark.setVisible(false);
            fill();
        });
    }

    /** Before which bar a height lies. */
    private int place(double y) {
        return Math.clamp(Math.round((y - TOP) / ROW), 0, bars().size());
    }

    private List<Plan.Bar> bars() {
        Plan p = hand.planProperty().get();
        return p == null ? List.of() : p.bars();
    }

    private void put(String name, int before) {
        List<Plan.Bar> bars = bars();
        int own = 0;
        while (own < bars.size() && !bars.get(own).work().name().equals(name)) own++;
        if (own == bars.size() || before < 0 || before > bars.size() || before == own || before == own + 1) return;
        hand.move(name, before == bars.size() ? null : bars.get(before).work().name());
    }

    private void line(ZonedDateTime t, double h, String style, String text) {
        Line l = new Line(x(t), TOP - 6, x(t), h + 6);
        l.getStyleClass().add(style);
        getChildren().add(l);
        if (text == null) return;
        Label n = Ui.label(text, "plan-due-text");
        // Beside its line, on the side where there is room.
        n.relocate(x(t) > getWidth() - 110 ? x(t) - 84 : x(t) + 4, h - 12);
        getChildren().add(n);
    }
}
