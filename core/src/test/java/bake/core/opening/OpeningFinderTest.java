package bake.core.opening;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Material;
import bake.core.scene.Portal;
import bake.core.scene.Shapes;
import bake.core.compiled.RenderScene;
import java.util.List;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;

/** Openings of small houses: what is found, what is not, and what is wrong with portals. */
class OpeningFinderTest {
    private static final Vec3 INSIDE = new Vec3(3, 2, 1.5);

    /**
     * A house of 6 x 4 x 3 m with walls of 0.3 m: a bare window of 2 x 1.2 m in the south, a roof light of 1 x 1 m, and a partition with a
     * doorway.
     */
    private static TestScene house(boolean glazed) {
        TestScene s = new TestScene();
        int wall = s.material(Material.diffuse("wall", grey(0.7))), glass = s.material(Material.glass("glass", grey(1), 0, 1.52, true));
        s.add(Shapes.box("floor", -0.3, -0.3, -0.3, 6.3, 4.3, 0, wall)).add(Shapes.box("land", -30, -30, -1, 30, 30, -0.3, wall));
        s.add(Shapes.box("west", -0.3, -0.3, 0, 0, 4.3, 3, wall)).add(Shapes.box("east", 6, -0.3, 0, 6.3, 4.3, 3, wall))
                .add(Shapes.box("north", 0, 4, 0, 6, 4.3, 3, wall));
        // South, around the window x 2..4, z 0.9..2.1.
        s.add(Shapes.box("s1", 0, -0.3, 0, 2, 0, 3, wall)).add(Shapes.box("s2", 4, -0.3, 0, 6, 0, 3, wall))
                .add(Shapes.box("s3", 2, -0.3, 0, 4, 0, 0.9, wall)).add(Shapes.box("s4", 2, -0.3, 2.1, 4, 0, 3, wall));
        // Roof, around x 4.5..5.5, y 1.5..2.5.
        s.add(Shapes.box("r1", -0.3, -0.3, 3, 4.5, 4.3, 3.3, wall)).add(Shapes.box("r2", 5.5, -0.3, 3, 6.3, 4.3, 3.3, wall))
                .add(Shapes.box("r3", 4.5, -0.3, 3, 5.5, 1.5, 3.3, wall)).add(Shapes.box("r4", 4.5, 2.5, 3, 5.5, 4.3, 3.3, wall));
        // A partition at x 1.6 with a doorway, and a table.
        s.add(Shapes.box("p1", 1.5, 0, 0, 1.6, 2.8, 3, wall)).add(Shapes.box("p2", 1.5, 2.8, 2.1, 1.6, 4, 3, wall))
                .add(Shapes.box("table", 2.5, 2.5, 0.7, 4, 3.3, 0.74, wall));
        if (glazed) {
            // Two leaves with a gap between them, and a glazed screen indoors.
            s.add(Shapes.quad("g1", 0.97, 1.2, glass), Affine.pointing(new Vec3(2.485, -0.15, 1.5), new Vec3(0, 1, 0)))
                    .add(Shapes.quad("g2", 0.97, 1.2, glass), Affine.pointing(new Vec3(3.515, -0.15, 1.5), new Vec3(0, 1, 0)));
            s.add(Shapes.quad("screen", 1.5, 2, glass), Affine.pointing(new Vec3(3, 3.4, 1), new Vec3(0, 1, 0)));
        }
        return s;
    }

    private static List<Portal> find(RenderScene s) {
        return new OpeningFinder(s, ForkJoinPool.commonPool()).find(List.of(INSIDE), () -> false);
    }

    private static void isTheHouses(List<Portal> found) {
        assertEquals(2, found.size(), () -> found.stream().map(p -> p.name() + " " + p.middle() + " " + p.size()).toList().toString());
        Portal window = found.stream().filter(p -> Math.abs(p.normal().z()) < 0.5).findFirst().orElseThrow(),
                roof = found.stream().filter(p -> p.normal().z() < -0.5).findFirst().orElseThrow();
        assertEquals(2.4, window.size(), 0.35);
        assertEquals(1, window.normal().y(), 1e-6, "into the room");
        assertEquals(0, window.middle().minus(new Vec3(3, 0, 1.5)).length(), 0.35);
        assertEquals(1, roof.size(), 0.2);
        assertEquals(0, roof.middle().minus(new Vec3(5, 2, 3)).length(), 0.35);
    }

    @Test
    void bareHoles() {
        isTheHouses(find(house(false).compile()));
    }

    /** Glass in a hole makes one opening with it, and glass within the house none. */
    @Test
    void glazed() {
        isTheHouses(find(house(true).compile()));
    }

    /** A house whose whole south side is glass: no wall frames it. */
    @Test
    void curtainWall() {
        TestScene s = new TestScene();
        int wall = s.material(Material.diffuse("wall", grey(0.7))), glass = s.material(Material.glass("glass", grey(1), 0, 1.52, true));
        s.add(Shapes.box("floor", -0.3, -0.3, -0.3, 6.3, 4.3, 0, wall)).add(Shapes.box("roof", -0.3, -0.3, 3, 6.3, 4.3, 3.3, wall))
                .add(Shapes.box("land", -30, -30, -1, 30, 30, -0.3, wall));
        s.add(Shapes.box("west", -0.3, -0.3, 0, 0, 4.3, 3, wall)).add(Shapes.box("east", 6, -0.3, 0, 6.3, 4.3, 3, wall))
                .add(Shapes.box("north", 0, 4, 0, 6, 4.3, 3, wall));
        for (int i = 0; i < 4; i++) s.add(Shapes.quad("g" + i, 1.45, 2.9, glass),
                Affine.pointing(new Vec3(0.75 + 1.5 * i, -0.1, 1.5), new Vec3(0, 1, 0)));
        List<Portal> found = find(s.compile());
        double area = found.stream().mapToDouble(Portal::size).sum();
        assertTrue(found.size() >= 1 && area > 15 && area < 19, found.size() + " portals of " + area + " m2");
        for (Portal p : found) assertTrue(p.normal().y() > 0.9);
    }

    @Test
    void noRoomNoOpenings() {
        assertEquals(List.of(), new OpeningFinder(house(false).compile(), ForkJoinPool.commonPool())
                .find(List.of(new Vec3(-10, -10, 1.6)), () -> false), "a camera in the open");
        assertNull(new OpeningFinder(house(false).compile(), ForkJoinPool.commonPool()).find(List.of(INSIDE), () -> true), "stopped");
    }

    @Test
    void faults() {
        OpeningFinder f = new OpeningFinder(house(false).compile(), ForkJoinPool.commonPool());
        Portal window = new Portal("w", List.of(new Vec3(4, 0, 0.9), new Vec3(2, 0, 0.9), new Vec3(2, 0, 2.1), new Vec3(4, 0, 2.1)));
        assertEquals(1, window.normal().y(), 1e-9);
        assertEquals(OpeningFinder.Fault.NONE, f.check(window));
        assertEquals(OpeningFinder.Fault.FACES_OUT, f.check(window.flipped()));
        Portal buried = new Portal("b", List.of(new Vec3(5.9, -0.15, 0.9), new Vec3(4.4, -0.15, 0.9), new Vec3(4.4, -0.15, 2.1),
                new Vec3(5.9, -0.15, 2.1)));
        assertEquals(OpeningFinder.Fault.HIDDEN, f.check(buried));
        Portal doorway = new Portal("d", List.of(new Vec3(1.6, 2.8, 0), new Vec3(1.6, 4, 0), new Vec3(1.6, 4, 2.1),
                new Vec3(1.6, 2.8, 2.1)));
        assertEquals(OpeningFinder.Fault.LEADS_NOWHERE, f.check(doorway));
    }

    /** A place to stand: in the room, at eye height, looking along it. */
    @Test
    void indoors() {
        Indoors.Stand s = Indoors.find(house(true).compile(), ForkJoinPool.commonPool());
        assertTrue(s.eye().x() > 0 && s.eye().x() < 6 && s.eye().y() > 0 && s.eye().y() < 4, s.toString());
        assertEquals(1.5, s.eye().z(), 0.1);
        assertTrue(s.target().minus(s.eye()).length() > 2.5);
        assertNull(Indoors.find(house(false).compile(), ForkJoinPool.commonPool()), "without glass nobody knows");
    }

    /** The opening that a click goes through, and glass where no opening is known. */
    @Test
    void clicks() {
        RenderScene s = house(true).compile();
        List<Portal> found = find(s);
        assertNotNull(OpeningFinder.along(found, INSIDE, new Vec3(0, -1, 0)));
        assertNull(OpeningFinder.along(found, INSIDE, new Vec3(-1, 0, 0)));
        Portal screen = OpeningFinder.glass(s, INSIDE, new Vec3(0, 1, 0));
        assertEquals(3, screen.size(), 0.05);
        assertEquals(-1, screen.normal().y(), 1e-6, "it faces who clicked");
    }
}
