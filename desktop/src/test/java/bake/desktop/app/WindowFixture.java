package bake.desktop.app;

import bake.desktop.work.Workbench;
import bake.studio.estimate.WorkLog;
import bake.studio.queue.QueueWorker;
import bake.studio.queue.RenderQueue;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ScrollPane;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.util.WaitForAsyncUtils;

/** The real window over a small room in a folder of its own. */
@ExtendWith(ApplicationExtension.class)
abstract class WindowFixture {
    static final String ROOM = """
            {"bake": 1, "name": "Test room", "due": "2031-03-07T12:00",
             "materials": [{"name": "wall", "base": [0.7,0.7,0.7], "roughness": 1, "ior": 1}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall", "layer": "Shell"},
                        {"name": "block", "type": "box", "center": [0,0,0.5], "size": [1,1,1], "material": "wall", "layer": "Things"}],
             "lamps": [{"name": "bulb", "group": "Bulbs", "kind": "sphere", "position": [1,1,2], "diameter": 0.2, "lumens": 90000, "kelvin": 3000}],
             "presets": [{"name": "Quick", "version": 2, "purpose": "test", "setting": "interior", "width": 96, "noiseAim": 0, "timeLimit": 0, "samples": 6, "bounces": 3, "clamp": 0},
                         {"name": "Long", "version": 1, "purpose": "test", "setting": "exterior", "width": 96, "noiseAim": 0.001, "timeLimit": 0, "samples": 0, "bounces": 3, "clamp": 0},
                         {"name": "Small final", "version": 1, "purpose": "final", "setting": "interior", "width": 64, "noiseAim": 0, "timeLimit": 0, "samples": 3, "bounces": 3, "clamp": 0},
                         {"name": "Small outside", "version": 1, "purpose": "final", "setting": "exterior", "width": 64, "noiseAim": 0, "timeLimit": 0, "samples": 3, "bounces": 3, "clamp": 0}],
             "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0.5], "focal": 28}, "size": [64, 40]},
                       {"name": "Two", "setting": "exterior", "camera": {"position": [4,0,1.5], "target": [0,0,0.5]}, "size": [48, 32]}]}""";

    /** Passes after which the easel rests. */
    static final int PATIENCE = 8;

    Path dir;
    Workbench bench;
    MainWindow window;

    /** To be called from the test class' own start method, where the extension looks for it. */
    void show(Stage stage) throws IOException {
        dir = Files.createTempDirectory("bake-window");
        Files.writeString(dir.resolve("project.json"), ROOM);
        bench = new Workbench(Platform::runLater);
        // The queue is worked by a thread here and not by a process.
        bench.finals().queue().use(dir.resolve("queue"), this::workQueue);
        window = new MainWindow(bench, stage, new bake.studio.user.RecentProjects(dir.resolve("recent.json")), null);
        // What is tested is not how fine the picture is.
        bench.easel().spare(PATIENCE, 8);
        stage.setScene(window.scene(1280, 800));
        stage.setX(0);
        stage.setY(0);
        stage.show();
    }

    private volatile QueueWorker worker;

    private void workQueue(Path queue) throws IOException {
        if (worker != null) return;
        QueueWorker w = worker = new QueueWorker(new RenderQueue(queue), 2, new WorkLog(dir.resolve("work.jsonl")), Clock.systemDefaultZone());
        Thread t = new Thread(() -> {
            try {
                w.run(false);
                w.close();
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            } finally {
                worker = null;
            }
        }, "queue worker");
        t.setDaemon(true);
        t.start();
    }

    /** Kills whoever works the queue, as far as a thread can be. */
    void endWorker() throws IOException {
        QueueWorker w = worker;
        if (w != null) w.quit();
        long end = System.nanoTime() + 20_000_000_000L;
        while (worker != null && System.nanoTime() < end) Thread.onSpinWait();
    }

    @BeforeEach
    void quick(FxRobot r) throws ReflectiveOperationException {
        QuickRobot.in(r);
    }

    @AfterEach
    void end() throws IOException {
        endWorker();
        WaitForAsyncUtils.asyncFx(() -> bench.close());
        QuickRobot.settle();
        try (var s = Files.walk(dir)) {
            for (Path p : s.sorted(java.util.Comparator.reverseOrder()).toList()) Files.deleteIfExists(p);
        } catch (IOException e) {
            // an autosave may still be on its way; the folder is temporary
        }
    }

    static void until(String what, BooleanSupplier c) {
        try {
            WaitForAsyncUtils.waitFor(60, TimeUnit.SECONDS, () -> WaitForAsyncUtils.asyncFx(c::getAsBoolean).get());
        } catch (TimeoutException e) {
            throw new AssertionError("waited a minute until " + what);
        }
        QuickRobot.settle();
    }

    /** Waits until something is on the screen, where it can be clicked. */
    static void seen(FxRobot r, String id) {
        until(id + " is seen", () -> r.lookup(id).match(org.testfx.util.NodeQueryUtils.isVisible()).tryQuery().isPresent());
    }

    void open() {
        Platform.runLater(() -> window.take(dir));
        until("the project is open and the easel shows it", () -> bench.easel().frameProperty().get() != null
                && bench.easel().frameProperty().get().passes() > 0);
    }

    /** Scrolls the sheet so that something on it can be clicked. */
    static void intoSight(FxRobot r, Node n) {
        QuickRobot.interact(() -> {
            ScrollPane p = r.lookup(".sheet-scroll").queryAs(ScrollPane.class);
            double y = p.getContent().sceneToLocal(n.localToScene(0, 0)).getY(),
                    room = p.getContent().getBoundsInLocal().getHeight() - p.getHeight();
            p.setVvalue(Math.clamp((y - 40) / room, 0, 1));
            p.layout();
        });
    }

    /** Clicks something that may have to be scrolled to. */
    static void press(FxRobot r, String id) {
        until(id + " is there", () -> r.lookup(id).tryQuery().isPresent());
        intoSight(r, r.lookup(id).query());
        r.clickOn(id);
    }

    /** Presses a button wherever it is, once it can be pressed. */
    static void fire(FxRobot r, String id) {
        until(id + " is there", () -> r.lookup(id).tryQuery().isPresent() && !r.lookup(id).query().isDisabled());
        QuickRobot.interact(() -> r.lookup(id).<ButtonBase>query().fire());
    }

    /** Chooses an item of a menu on the sheet. */
    static void choose(FxRobot r, String menu, String item) {
        until(menu + " is there", () -> r.lookup(menu).tryQuery().isPresent());
        QuickRobot.interact(() -> r.lookup(menu).<MenuButton>query().getItems().stream().filter(i -> i.getText().equals(
                item)).findFirst().orElseThrow().fire());
    }

    /** Where something is on the screen that is at shares of the picture's width and height from its left and top. */
    Point2D at(FxRobot r, double x, double y) {
        Node pane = r.lookup("#light-handles").query();
        Point2D corner = pane.localToScreen(0, 0);
        int[] size = bench.easel().size();
        double w = pane.getLayoutBounds().getWidth(), h = pane.getLayoutBounds().getHeight(), k = Math.min(w / size[0], h / size[1]);
        return corner.add((w - k * size[0]) / 2 + x * k * size[0], (h - k * size[1]) / 2 + y * k * size[1]);
    }

    static String text(FxRobot r, String id) {
        return r.lookup(id).queryAs(Label.class).getText();
    }
}
