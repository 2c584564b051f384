package bake.studio.first;

import bake.core.compiled.RenderScene;
import bake.core.math.Vec3;
import bake.core.opening.Indoors;
import bake.core.scene.Camera;
import bake.core.work.Workers;
import java.util.HashSet;
import java.util.Set;

/** Finds a room of a model and where to look at it from. */
final class Rooms {
    /** How far a place must be closed in to be a room; eye height and least height of a room, metres (common practice, no source). */
    static final double CLOSED = 0.8;
    private static final double EYE = 1.5, LOWEST = 1.9, NARROW = 1.2, TABLE = 1.2, HIGHEST = 40, WALL = 0.35, FOCAL = 20;
    private static final int WAYS = 16, GRID = 7, LEVELS = 3;

    /** Least share of what stands around a place in a room that shows its outside; within a solid only backs are seen. */
    private static final double OUTSIDES = 0.3;

    private final Set<Long> things = new HashSet<>();
    private final RenderScene scene;
    private final Survey survey;
    private final Extent model;

    Rooms(RenderScene scene, Survey survey, Extent model) {
        this.scene = scene;
        this.survey = survey;
        this.model = model;
    }

    /** The best look into the best room, glazed ones first; null where there is none. */
    Camera best() {
        Vec3 largest = largest();
        Indoors.Stand glazed = Indoors.find(scene, Workers.COMPILING);
        if (glazed != null) {
            Vec3 middle = glazed.eye().plus(glazed.target()).times(0.5);
            Survey.Around around = survey.around(middle);
            Camera c = around.outsides() < OUTSIDES ? null : looking(middle);
            things.addAll(around.things());
            if (c != null) return c;
        }
        return largest == null ? null : looking(largest);
    }

    /** What is seen from within any room. */
    Set<Long> things() {
        return things;
    }

    /** The middle of the largest room on a grid through the model, at eye height; null where all is open or solid. */
    private Vec3 largest() {
        double[] s = model.box().size();
        Vec3 low = model.middle().minus(new Vec3(s[0] / 2, s[1] / 2, s[2] / 2)), best = null;
        double most = 0;
        for (int k = 0; k < LEVELS; k++)
            for (int j = 0; j < GRID; j++)
                for (int i = 0; i < GRID; i++) {
                    Vec3 p = standing(low.plus(new Vec3((i + 0.5) / GRID * s[0], (j + 0.5) / GRID * s[1], (k + 0.5) / LEVELS * s[2])));
                    if (p == null || survey.enclosed(p) < CLOSED) continue;
                    Survey.Around around = survey.around(p);
                    if (around.outsides() < OUTSIDES) continue;
                    things.addAll(around.things());
                    double size = 0;
                    for (int w = 0; w < WAYS; w++) size += Math.pow(Math.min(25, survey.free(p, way(w))), 2);
                    if (size > most) {
                        most = size;
                        best = p;
                    }
                }
        return best;
    }

    private static Vec3 way(int k) {
        double a = 2 * Math.PI * k / WAYS;
        return new Vec3(Math.cos(a), Math.sin(a), 0);
    }

    /** At eye height over the floor below a place; null where nobody can stand. */
    private Vec3 standing(Vec3 p) {
        double down = floor(p), up = survey.free(p, Vec3.UP), tall = down + up;
        if (tall < LOWEST || tall > HIGHEST) return null;
        for (int k = 0; k < WAYS / 2; k++) if (survey.free(p, way(k)) + survey.free(p, way(k + WAYS / 2)) < NARROW) return null;
        return new Vec3(p.x(), p.y(), p.z() - down + Math.min(EYE, 0.6 * tall));
    }

    /** How far below a place the floor is; tables are none: what lies lowest around counts. */
    private double floor(Vec3 p) {
        double down = survey.free(p, Vec3.UP.times(-1));
        for (int k = 0; k < WAYS; k += 4) {
            Vec3 q = p.plus(way(k).times(Math.min(TABLE, 0.8 * survey.free(p, way(k)))));
            double d = survey.free(q, Vec3.UP.times(-1));
            if (d < down + TABLE) down = Math.max(down, d);
        }
        return down;
    }

    /** The look around a place that shows most, from as far back as the room allows. */
    private Camera looking(Vec3 middle) {
        Camera best = null;
        double most = 0;
        for (int k = 0; k < WAYS; k++) {
            double behind = survey.free(middle, way(k).times(-1));
            if (behind > HIGHEST) behind = 0;
            Vec3 eye = middle.minus(way(k).times(Math.max(0, behind - WALL)));
            if (survey.enclosed(eye) < CLOSED * 0.8) continue;
            Camera c = Camera.of(eye, eye.plus(way(k)), FOCAL);
            Survey.Seen seen = survey.look(c);
            // Something large close to the lens hides the room.
            double worth = seen.entropy() * Math.min(1, seen.near() / 0.7);
            if (worth <= most) continue;
            most = worth;
            best = c.withFocus(false, Math.clamp(survey.free(eye, way(k)) / 2, 1, 10));
        }
        return best;
    }
}
