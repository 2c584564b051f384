package bake.desktop.app;

import java.lang.reflect.Field;
import javafx.geometry.Point2D;
import org.testfx.api.FxRobot;
import org.testfx.api.FxRobotContext;
import org.testfx.robot.BaseRobot;
import org.testfx.robot.Motion;
import org.testfx.robot.MouseRobot;
import org.testfx.robot.MoveRobot;
import org.testfx.robot.impl.ClickRobotImpl;
import org.testfx.robot.impl.DragRobotImpl;
import org.testfx.service.query.PointQuery;

/**
 * Moves the robot's pointer in a few steps. The library's own takes up to fifty, waits for the window after each, and so spends a second on
 * every click; what is under the pointer and what is dragged are the same.
 */
final class QuickPointer implements MoveRobot {
    private static final int STEPS = 2;
    private final BaseRobot base;
    private final MouseRobot mouse;

    private QuickPointer(FxRobotContext c) {
        base = c.getBaseRobot();
        mouse = c.getMouseRobot();
    }

    /** Has a robot move, click and drag that way. */
    static void in(FxRobot r) throws ReflectiveOperationException {
        FxRobotContext c = r.robotContext();
        MoveRobot quick = new QuickPointer(c);
        set(c, "moveRobot", quick);
        set(c, "clickRobot", new ClickRobotImpl(c.getMouseRobot(), quick, c.getSleepRobot()));
        set(c, "dragRobot", new DragRobotImpl(c.getMouseRobot(), quick));
    }

    private static void set(FxRobotContext c, String field, Object value) throws ReflectiveOperationException {
        Field f = FxRobotContext.class.getDeclaredField(field);
        f.setAccessible(true);
        f.set(c, value);
    }

    @Override
    public void moveTo(PointQuery query, Motion motion) {
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
