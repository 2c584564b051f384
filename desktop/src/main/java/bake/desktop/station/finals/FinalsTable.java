package bake.desktop.station.finals;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.Finals;
import bake.desktop.work.Small;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.QueueStatus;
import java.nio.IntBuffer;
import java.nio.file.Path;
import java.util.Locale;
import javafx.collections.ListChangeListener;
import javafx.collections.MapChangeListener;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ProgressBar;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;

/** A line for each picture of the delivery: how it looks so far, how large and how good it is to be, and how it stands. */
final class FinalsTable extends GridPane {
    private static final String[] HEADS = {"", "", "View", "Pixels", "Preset", "State", "", ""};
    private static final double[] LEAST = {26, 58, 96, 96, 100, 106, 50, 60}, WANTED = {26, 58, 160, 110, 150, 180, 150, 60};
    private static final double SMALL_WIDTH = 54, SMALL_HEIGHT = 38;
    private static final double[] SCALES = {2, 1, 0.8, 0.5, 0.25};
    private final Finals finals;

    FinalsTable(Finals finals) {
        this.finals = finals;
        setHgap(12);
        setVgap(2);
        // Narrow windows cut names and notes short, not the figures and not the window.
        setMinWidth(0);
        for (int i = 0; i < LEAST.length; i++) {
            ColumnConstraints c = new ColumnConstraints(LEAST[i], WANTED[i], Double.MAX_VALUE);
            if (i == 2) c.setHgrow(Priority.ALWAYS);
            getColumnConstraints().add(c);
        }
        finals.rows().addListener((ListChangeListener<Finals.Row>) c -> fill());
        finals.queue().seenProperty().addListener((o, a, b) -> fill());
        finals.tryOut().sheetProperty().addListener((o, a, b) -> fill());
        finals.queue().smalls().addListener((MapChangeListener<Integer, Small>) c -> fill());
        fill();
    }

    private void fill() {
        // An open menu is not taken away from under the pointer; what changed meanwhile is seen when it closes.
        if (getChildren().stream().anyMatch(n -> n instanceof MenuButton m && m.isShowing())) return;
        Ui.refill(this, this::refill);
    }

    private void refill() {
        getChildren().clear();
        var rows = finals.rows();
        if (rows.isEmpty()) return;
        for (int c = 0; c < HEADS.length; c++) add(head(HEADS[c]), c, 0);
        for (int i = 0; i < rows.size(); i++) line(rows.get(i), i);
    }

    private static Label head(String t) {
        Label l = Ui.label(t, "table-head");
        l.setMaxWidth(Double.MAX_VALUE);
        return l;
    }

    private void line(Finals.Row r, int n) {
        CheckBox on = new CheckBox();
        on.setId("finals-" + n);
        on.setAccessibleText("Make " + r.view());
        on.setSelected(!r.picture().off());
        on.setDisable(r.queued());
        on.setOnAction(e -> finals.choose(r, on.isSelected()));
        QueueStatus s = finals.status(r);
        Label state = Ui.label(state(r, s), "table-cell", "state-" + style(r));
        state.setId("state-" + n);
        addRow(n + 1, on, small(r), cell(r.view(), "table-cell"), size(r, n), preset(r, n), state, progress(r, s), action(r, n));
    }

    /** How it looks so far, or a frame of its shape. */
    private Node small(Finals.Row r) {
        double k = Math.min(SMALL_WIDTH / r.picture().width(), SMALL_HEIGHT / r.picture().height());
        StackPane p = new StackPane();
        p.getStyleClass().add("finals-small");
        p.setMinSize(k * r.picture().width(), k * r.picture().height());
        p.setMaxSize(k * r.picture().width(), k * r.picture().height());
        Small s = looks(r);
        if (s == null) return p;
        ImageView i = new ImageView(new WritableImage(new PixelBuffer<>(s.width(), s.height(), IntBuffer.wrap(s.argb()),
                PixelFormat.getIntArgbPreInstance())));
        i.setFitWidth(k * r.picture().width());
        i.setFitHeight(k * r.picture().height());
        i.setAccessibleText(r.view() + ", as far as it is");
        p.getChildren().add(i);
        return p;
    }

    /** As far as it is, or else as it was tried small. */
    private Small looks(Finals.Row r) {
        Small s = r.entry() == null ? null : finals.queue().smalls().get(r.entry().job().id());
        return s != null ? s : finals.tryOut().sheetProperty().get().stream().filter(t -> t.view().equals(r.view()) && t.argb() != null)
                .map(t -> new Small(t.argb(), t.width(), t.height())).findFirst().orElse(null);
    }

    private Node size(Finals.Row r, int n) {
        String now = Texts.size(r.picture().width(), r.picture().height());
        // A preset that sets a width leaves nothing to scale.
        if (r.queued() || r.picture().preset().width() > 0) return cell(now, "table-figure");
        MenuButton m = menu("finals-size-" + n, now, "How large it is made, against the view's own size");
        m.getStyleClass().add("table-figure");
        for (double k : SCALES) m.getItems().add(item(String.format(Locale.ROOT, "%.0f %%  %s", 100 * k, Texts.size((int) Math.round(
                r.picture().view().size()[0] * k), (int) Math.round(r.picture().view().size()[1] * k))), () ->
                finals.changeView(r.view(), i -> i.withScale(k == 1 ? null : k))));
        return m;
    }

    private Node preset(Finals.Row r, int n) {
        if (r.queued()) return cell(r.picture().preset().name(), "table-cell");
        MenuButton m = menu("finals-preset-" + n, r.picture().preset().name(), "With which settings it is made");
        m.getItems().add(item("what suits the view", () -> finals.changeView(r.view(), i -> i.withPreset(null))));
        for (String p : finals.presets()) m.getItems().add(item(p, () -> finals.changeView(r.view(), i -> i.withPreset(p))));
        return m;
    }

    private static MenuButton menu(String id, String text, String help) {
        MenuButton m = new MenuButton(text);
        m.setId(id);
        m.getStyleClass().add("table-menu");
        m.setMaxWidth(Double.MAX_VALUE);
        m.setMinWidth(0);
        m.setTooltip(Ui.tip(help));
        return m;
    }

    private static MenuItem item(String text, Runnable action) {
        MenuItem i = new MenuItem(text);
        i.setOnAction(e -> action.run());
        return i;
    }

    private static Node progress(Finals.Row r, QueueStatus s) {
        if (s != null) {
            ProgressBar b = new ProgressBar(s.passes() == 0 ? s.prepared() : s.fraction());
            b.setMaxWidth(Double.MAX_VALUE);
            return b;
        }
        String note = note(r);
        Label n = cell(note, r.entry() != null && r.entry().state() == QueueEntry.State.FAILED ? "error-text" : "table-figure");
        n.setTooltip(note.isEmpty() ? null : Ui.tip(note));
        return n;
    }

    /** The one thing that can be done about a line. */
    private Node action(Finals.Row r, int n) {
        if (r.entry() == null) return new Label();
        int id = r.entry().job().id();
        return switch (r.entry().state()) {
            case WAITING -> Ui.button("finals-first-" + n, "First", "Makes it before all others that wait", () -> finals.queue().tell(q -> q.move(id,
                    q.entries().stream().filter(e -> e.state() == QueueEntry.State.WAITING).findFirst().map(e -> e.job().id()).orElse(0))), "small");
            case FAILED, CANCELLED -> Ui.button("finals-again-" + n, "Again", "Tries it once more", () -> finals.queue().tell(q -> {
                q.again(id);
                finals.queue().goOn();
            }), "small");
            default -> new Label();
        };
    }

    private static Label cell(String t, String style) {
        Label l = Ui.label(t, "table-cell", style);
        l.setMaxWidth(Double.MAX_VALUE);
        return l;
    }

    private static String note(Finals.Row r) {
        if (r.entry() == null) return r.estimate() == null || r.picture().off() ? "" : "about " + Texts.about(r.estimate().seconds());
        QueueEntry e = r.entry();
        if (!e.note().isEmpty()) return e.note();
        if (e.state() == QueueEntry.State.DONE) return String.join(", ", e.job().files().stream().map(f -> Path.of(f).getFileName().toString()).toList());
        return r.estimate() == null ? "" : "about " + Texts.about(r.estimate().seconds());
    }

    private static String style(Finals.Row r) {
        return r.entry() == null ? "waiting" : r.entry().state().name().toLowerCase(Locale.ROOT);
    }

    private static String state(Finals.Row r, QueueStatus s) {
        if (r.entry() == null) return r.picture().off() ? "left out" : "not in the queue";
        QueueEntry e = r.entry();
        return switch (e.state()) {
            case WAITING -> e.tries() > 0 ? "waiting, tried " + e.tries() : "waiting";
            case RENDERING -> s == null ? "waiting" : !s.state().equals("rendering") ? s.state() : s.passes() == 0 ? "caching bounced light"
                    : (s.noise() > 0 ? Texts.aimed(r.picture().preset()) + " " + Texts.noise(s.noise()) : "pass " + s.passes())
                    + (s.left() < 0 ? "" : ", " + Texts.time(s.left()) + " left");
            case DONE -> "done " + Texts.time(e.seconds()) + ", " + Texts.noise(e.noise());
            default -> e.state().word();
        };
    }
}
