package bake.core.opening;

import bake.core.geometry.LampShapes;
import bake.core.geometry.Tracer;
import bake.core.math.Vec3;
import bake.core.scene.Portal;
import bake.core.compiled.RenderScene;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.ForkJoinPool;
import java.util.function.BooleanSupplier;

/**
 * Finds the openings of a building through which daylight comes: holes in walls and ceilings, glazed or not, and sheets of glass that no
 * wall frames, with a room on one side and the open on the other. What is seen only through another opening, such as the inner glass of a
 * lobby, is none.
 */
public final class OpeningFinder {
    /** Least share of directions that lead out behind an opening, how much less open the room must be, and how open it may be at all. */
    private static final double OUT = 0.12, IN = 0.6, ROOM = 0.3;
    private static final int RAYS = 48;

    private final RenderScene scene;
    private final Tracer tracer;

    public OpeningFinder(RenderScene scene, ForkJoinPool pool) {
        this.scene = scene;
        // Without the bodies of lamps.
        tracer = Tracer.of(scene.geometry(), new LampShapes(List.of()), scene.surfaces(), pool);
    }

    /** Candidates with how well they lead out. */
    private record Found(Rectangle rectangle, double out) {
        double score() {
            return out * rectangle.area();
        }
    }

    /**
     * Portals on all openings of the rooms around some places, facing into them, largest first; null when it was stopped.
     *
     * @param inside places in the rooms, metres, such as cameras; those in the open count for nothing
     */
    public List<Portal> find(List<Vec3> inside, BooleanSupplier stop) {
        Room room = new Room(tracer, inside);
        if (room.isEmpty()) return List.of();
        List<Plane> planes = Plane.find(scene.geometry(), scene.surfaces(), room);
        List<Found> all = Collections.synchronizedList(new ArrayList<>());
        planes.parallelStream().forEach(p -> {
            if (stop.getAsBoolean()) return;
            Openness open = new Openness(tracer);
            if (!p.indoors(q -> open.of(q.plus(p.n.times(WallHoles.BEFORE)), p.n, RAYS / 2, List.of()) < ROOM)) return;
            for (Rectangle r : new WallHoles(open).in(p)) judge(open, room, r, all);
        });
        Openness open = new Openness(tracer);
        for (Rectangle r : Glazing.find(scene.geometry(), scene.surfaces())) {
            judge(open, room, r, all);
            judge(open, room, r.flipped(), all);
        }
        if (stop.getAsBoolean()) return null;
        List<Found> sorted = new ArrayList<>(all);
        sorted.sort(Comparator.comparingDouble(Found::score).reversed().thenComparing(f -> f.rectangle.middle().x())
                .thenComparing(f -> f.rectangle.middle().y()).thenComparing(f -> f.rectangle.middle().z()));
        List<Rectangle> taken = new ArrayList<>();
        List<Portal> out = new ArrayList<>();
        for (Found f : sorted) {
            if (stop.getAsBoolean()) return null;
            Rectangle r = f.rectangle;
            boolean known = false;
            for (Rectangle t : taken) known |= r.coveredBy(t, 1.2) > 0.5 || t.coveredBy(r, 1.2) > 0.5;
            if (known || !between(open, r, out)) continue;
            taken.add(r);
            out.add(r.portal((Math.abs(r.n().z()) > 0.7 ? "Roof light " : "Opening ") + (out.size() + 1)));
        }
        return out;
    }

    private void judge(Openness open, Room room, Rectangle r, List<Found> into) {
        double out = 0, in = 0;
        int n = 0;
        boolean ours = false;
        for (double[] p : SPREAD) ours = ours
                || room.sees(open, r.at(p[0] * r.width(), p[1] * r.height()).plus(r.n().times(WallHoles.BEFORE)));
        if (!ours) return;
        for (double[] p : SPREAD) {
            Vec3 at = r.at(p[0] * r.width(), p[1] * r.height());
            out += behind(open, at, r.n(), RAYS / 2, List.of());
            in += open.of(at.plus(r.n().times(WallHoles.BEFORE)), r.n(), RAYS / 2, List.of());
            n++;
        }
        if (out / n >= OUT && in < IN * out && in / n < ROOM) into.add(new Found(r, out / n));
    }

    private static final double[][] SPREAD = {{0.5, 0.5}, {0.2, 0.25}, {0.8, 0.25}, {0.2, 0.75}, {0.8, 0.75}};

    private static boolean between(Openness open, Rectangle r, List<Portal> but) {
        double out = 0;
        for (double[] p : SPREAD) out += behind(open, r.at(p[0] * r.width(), p[1] * r.height()), r.n(), RAYS, but);
        return out / SPREAD.length >= OUT;
    }

    /** Whether there is a room before a place of a wall and the open behind it. */
    static boolean between(Openness open, Vec3 at, Vec3 n, List<Portal> but, int rays) {
        double out = behind(open, at, n, rays, but);
        return out >= OUT && open.of(at.plus(n.times(WallHoles.BEFORE)), n, rays, List.of()) < Math.min(ROOM, IN * out);
    }

    /** How open it is behind a wall: as seen from within its thickness, or from beyond it. */
    private static double behind(Openness open, Vec3 at, Vec3 n, int rays, List<Portal> but) {
        double best = 0;
        for (double d : new double[] {WallHoles.BEHIND, WallHoles.DEEPER}) {
            if (!open.open(at.plus(n.times(0.02)), n.times(-1), d + 0.02)) break;
            best = Math.max(best, open.of(at.minus(n.times(d)), n.times(-1), rays, but));
        }
        return best;
    }

    /** The opening that a ray goes through first, or null. */
    public static Portal along(List<Portal> openings, Vec3 from, Vec3 direction) {
        Portal best = null;
        double least = Double.POSITIVE_INFINITY;
        for (Portal p : openings) {
            if (!Rectangle.meets(p, from, direction)) continue;
            double t = p.middle().minus(from).dot(p.normal()) / direction.dot(p.normal());
            if (t < least) {
                least = t;
                best = p;
            }
        }
        return best;
    }

    /** A portal on the sheets of glass that a ray goes through first, facing where it comes from; null where there is none. */
    public static Portal glass(RenderScene scene, Vec3 from, Vec3 direction) {
        List<Portal> all = new ArrayList<>();
        for (Rectangle r : Glazing.find(scene.geometry(), scene.surfaces()))
            all.add((r.n().dot(direction) < 0 ? r : r.flipped()).portal("Opening"));
        return along(all, from, direction);
    }

    /** What is wrong with a portal, or nothing. */
    public enum Fault {
        NONE, FACES_OUT, HIDDEN, LEADS_NOWHERE
    }

    /** Looks at a portal: whether it faces a room, is not buried in a wall, and has the open behind it. */
    public Fault check(Portal p) {
        Openness open = new Openness(tracer);
        Vec3 n = p.normal(), m = p.middle();
        double in = 0, out = 0;
        int k = 0, shut = 0;
        for (Vec3 c : p.corners()) {
            // A little towards the middle, since corners touch frames.
            Vec3 at = m.plus(c.minus(m).times(0.55));
            for (Vec3 q : List.of(at, m)) {
                k++;
                // From the other side, so that a wall that the portal lies on is met.
                boolean before = open.open(q.minus(n.times(0.005)), n, WallHoles.BEFORE + 0.005),
                        behind = open.open(q.plus(n.times(0.005)), n.times(-1), WallHoles.BEFORE + 0.005);
                if (!before || !behind) shut++;
                in += open.of(q.plus(n.times(before ? WallHoles.BEFORE : 0.01)), n, RAYS, List.of());
                out += open.of(q.minus(n.times(behind ? WallHoles.BEHIND : 0.01)), n.times(-1), RAYS, List.of());
            }
        }
        if (shut >= 0.9 * k) return Fault.HIDDEN;
        if (out / k >= OUT && in < IN * out) return Fault.NONE;
        if (in / k >= OUT && out < IN * in) return Fault.FACES_OUT;
        return Fault.LEADS_NOWHERE;
    }
}
