package bake.desktop.app;

import java.lang.reflect.Field;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.geometry.Point2D;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.testfx.api.FxRobot;
import org.testfx.api.FxRobotContext;
import org.testfx.robot.BaseRobot;
import org.testfx.robot.KeyboardRobot;
import org.testfx.robot.Motion;
import org.testfx.robot.MouseRobot;
import org.testfx.robot.MoveRobot;
import org.testfx.robot.impl.ClickRobotImpl;
import org.testfx.robot.impl.DragRobotImpl;
import org.testfx.robot.impl.ScrollRobotImpl;
import org.testfx.robot.impl.TypeRobotImpl;

/**
 * A robot that waits for what it does and no longer: after each move, button or key for the window to have taken it and laid itself
 * out. The library's own sleeps at least a twentieth of a second each time and moves the pointer in up to fifty steps; what is under the
 * pointer, what is dragged and what is typed are the same.
 */
final class QuickRobot {
    private static final int STEPS = 2;

    private QuickRobot() {}

    /** Has a robot move, click, drag and type that way. */
    static void in(FxRobot r) throws ReflectiveOperationException {
        FxRobotContext c = r.robotContext();
        if (c.getMouseRobot() instanceof Mouse) return;
        MouseRobot mouse = new Mouse(c.getMouseRobot());
        KeyboardRobot keys = new Keys(c.getKeyboardRobot());
        MoveRobot move = new Pointer(c.getBaseRobot(), mouse);
        set(c, "mouseRobot", mouse);
        set(c, "keyboardRobot", keys);
        set(c, "moveRobot", move);
        set(c, "clickRobot", new ClickRobotImpl(mouse, move, c.getSleepRobot()));
        set(c, "dragRobot", new DragRobotImpl(mouse, move));
        set(c, "scrollRobot", new ScrollRobotImpl(mouse));
        set(c, "typeRobot", new TypeRobotImpl(keys, c.getSleepRobot()));
    }

    private static void set(FxRobotContext c, String field, Object value) throws ReflectiveOperationException {
        Field f = FxRobotContext.class.getDeclaredField(field);
        f.setAccessible(true);
        f.set(c, value);
    }

    /** Does something on the window's thread and waits until it shows. */
    static void interact(Runnable what) {
        FutureTask<Void> t = new FutureTask<>(what, null);
        Platform.runLater(t);
        try {
            t.get(60, TimeUnit.SECONDS);
        } catch (java.util.concurrent.ExecutionException e) {
            if (e.getCause() instanceof Error x) throw x;
            if (e.getCause() instanceof RuntimeException x) throw x;
            throw new AssertionError(e.getCause());
        } catch (InterruptedException | java.util.concurrent.TimeoutException e) {
            throw new AssertionError("the window did not answer for a minute", e);
        }
        settle();
    }

    /** Waits until what was asked of the window so far is done and has been laid out. */
    static void settle() {
        // What is shown anew is laid out in one frame and what leans on its size in the next.
        frames(2);
    }

    private static void frames(int n) {
        CountDownLatch done = new CountDownLatch(1);
        Platform.runLater(() -> new AnimationTimer() {
            private int left = n;

            @Override
            public void handle(long now) {
                if (--left > 0) return;
                stop();
                // Timers run before a frame's layout, this after it.
                Platform.runLater(() -> Platform.runLater(done::countDown));
            }
        }.start());
        try {
            if (!done.await(60, TimeUnit.SECONDS)) throw new AssertionError("no frame for a minute");
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    private record Pointer(BaseRobot base, MouseRobot mouse) implements MoveRobot {
        @Override
        public void moveTo(org.testfx.service.query.PointQuery query, Motion motion) {
            steps(base.retrieveMouse(), query.query());
            // What was aimed at may have moved on the way.
            mouse.move(query.query());
        }

        @Override
        public void moveBy(double x, double y, Motion motion) {
            Point2D from = base.retrieveMouse();
            steps(from, from.add(x, y));
            mouse.move(from.add(x, y));
        }

        private void steps(Point2D from, Point2D to) {
            for (int k = 1; k < STEPS; k++) mouse.move(from.interpolate(to, k / (double) STEPS));
        }
    }

    private record Mouse(MouseRobot own) implements MouseRobot {
        @Override
        public void press(MouseButton... buttons) {
            try {
                own.pressNoWait(buttons);
            } catch (RuntimeException e) {
                // The windowless platform has no active window for a moment after something that popped up has gone.
                interact(() -> javafx.stage.Window.getWindows().stream().filter(w -> w instanceof javafx.stage.Stage).findFirst()
                        .ifPresent(javafx.stage.Window::requestFocus));
                own.pressNoWait(buttons);
            }
            settle();
        }

        @Override
        public void pressNoWait(MouseButton... buttons) {
            own.pressNoWait(buttons);
        }

        @Override
        public Set<MouseButton> getPressedButtons() {
            return own.getPressedButtons();
        }

        @Override
        public void release(MouseButton... buttons) {
            own.releaseNoWait(buttons);
            settle();
        }

        @Override
        public void releaseNoWait(MouseButton... buttons) {
            own.releaseNoWait(buttons);
        }

        @Override
        public void move(Point2D location) {
            own.moveNoWait(location);
            frames(1);
        }

        @Override
        public void moveNoWait(Point2D location) {
            own.moveNoWait(location);
        }

        @Override
        public void scroll(int amount) {
            own.scrollNoWait(amount);
            settle();
        }

        @Override
        public void scrollNoWait(int amount) {
            own.scrollNoWait(amount);
        }
    }

    private record Keys(KeyboardRobot own) implements KeyboardRobot {
        @Override
        public void press(KeyCode... keys) {
            own.pressNoWait(keys);
            settle();
        }

        @Override
        public void pressNoWait(KeyCode... keys) {
            own.pressNoWait(keys);
        }

        @Override
        public Set<KeyCode> getPressedKeys() {
            return own.getPressedKeys();
        }

        @Override
        public void release(KeyCode... keys) {
            own.releaseNoWait(keys);
            settle();
        }

        @Override
        public void releaseNoWait(KeyCode... keys) {
            own.releaseNoWait(keys);
        }
    }
}
