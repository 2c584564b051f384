package bake.core.light;

import bake.core.geometry.Geometry;
import bake.core.geometry.LampShapes;
import bake.core.geometry.Ray;
import bake.core.geometry.ScalarTracer;
import bake.core.geometry.Tracer;
import bake.core.math.PathSampler;
import bake.core.scene.Portal;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.ForkJoinPool;

/**
 * Daylight through glass: the panes of a model as places to aim at when the surroundings are sampled indoors, where
 * most of the dome is hidden. A pane is chosen by its size, its distance and whether it can be seen, then a point on it;
 * the density is exact, so the mean does not change.
 *
 * <p>The choice belongs to the cell of a coarse grid that one stands in. A cell is filled by test rays when it is first
 * asked for; what it holds depends on the model alone, so it does not matter who asks first.
 */
public final class Openings {
    private static final int MOST = 256, GRID = 36, TESTS = 8, MOST_IN_CELL = 16, LOOKS = 2;
    /** How far from panes their grid reaches, metres: to the depth of rooms, to the floor under a roof light, and to a ceiling. */
    private static final float MARGIN = 12, BELOW = 6, ABOVE = 4;
    /** Share of what bounces out in the open that is sent through panes, and by how little of the sky a place counts as out in the open. */
    private static final float INWARD = 0.5f, ROOM = 0.6f;
    /** Glass within this distance of a portal's plane is looked at through the portal, metres. */
    private static final float NEAR = 0.4f;

    /** Most pieces that all panes together are cut into. */
    private static final int MOST_PIECES = 1000, MOST_CUTS = 4;

    private final List<Pane> panes;
    private final int cuts;
    private final Tracer tracer;
    private final float[] low = new float[3], cell = new float[3];
    private final Cell[] cells;

    /**
     * What a place sees of the panes.
     *
     * @param share chance with which panes, and not the whole dome, should be sampled
     * @param panes which, their {@code numbers} among all, and {@code sums}, their running chances
     */
    private record Cell(float share, Pane[] panes, int[] numbers, float[] sums) {
        private static final Cell NONE = new Cell(0, new Pane[0], new int[0], new float[0]);

        float chance(int k) {
            return k == 0 ? sums[0] : sums[k] - sums[k - 1];
        }
    }

    private Openings(List<Pane> panes, Tracer tracer) {
        this.panes = panes;
        this.tracer = tracer;
        cuts = panes.isEmpty() ? 1 : Math.clamp((int) Math.sqrt(MOST_PIECES / (double) panes.size()), 1, MOST_CUTS);
        cells = new Cell[panes.isEmpty() ? 0 : GRID * GRID * GRID];
        if (!panes.isEmpty()) span();
    }

    /** A model without panes. */
    public static Openings none() {
        return new Openings(List.of(), null);
    }

    /** The openings of a model: its portals, and glass in sheets where no portal is. */
    public static Openings find(List<Portal> portals, Geometry geometry, SurfaceTable surfaces, ForkJoinPool pool) {
        return of(portals, Pane.find(geometry, surfaces), geometry, surfaces, pool);
    }

    /** Portals alone, whatever there is of glass. */
    public static Openings of(List<Portal> portals, Geometry geometry, SurfaceTable surfaces, ForkJoinPool pool) {
        return of(portals, List.of(), geometry, surfaces, pool);
    }

    private static Openings of(List<Portal> portals, List<Pane> glass, Geometry geometry, SurfaceTable surfaces, ForkJoinPool pool) {
        List<Pane> all = new ArrayList<>();
        for (Portal p : portals) all.addAll(Pane.of(p));
        int drawn = all.size();
        for (Pane g : glass) {
            boolean covered = false;
            for (int k = 0; k < drawn; k++) covered |= all.get(k).covers(g, NEAR);
            if (!covered) all.add(g);
        }
        if (all.isEmpty()) return none();
        all.sort((a, b) -> Float.compare(b.area(), a.area()));
        // Without lamp bodies: moving a lamp must not change where daylight is looked for. One box at a time: these are few
        // rays, asked for when nothing is warm yet.
        return new Openings(all.subList(0, Math.min(MOST, all.size())),
                new ScalarTracer(geometry, new LampShapes(List.of()), surfaces, pool));
    }

    /** How many panes are aimed at. */
    public int count() {
        return panes.size();
    }

    /** Which opening, counted from 0, a way of looking aims at; -1 for the one that looks at everything. */
    public int opening(int way) {
        return way == 0 ? -1 : (way - 1) / (cuts * cuts);
    }

    /** Area of all openings, square metres. */
    float area() {
        float sum = 0;
        for (Pane p : panes) sum += p.area();
        return sum;
    }

    /** The same as it looks along a direction. */
    float across(float dx, float dy, float dz) {
        float sum = 0;
        for (Pane p : panes) sum += p.across(dx, dy, dz);
        return sum;
    }

    /** A point of an opening, evenly chosen among all that is seen along a direction. */
    void point(float dx, float dy, float dz, float choose, float u1, float u2, float[] out) {
        float left = choose * across(dx, dy, dz);
        Pane last = null;
        for (Pane p : panes) {
            float a = p.across(dx, dy, dz);
            if (!(a > 0)) continue;
            last = p;
            if (left < a) break;
            left -= a;
        }
        float d = last.aim(0, 0, 0, u1, u2, out);
        for (int k = 0; k < 3; k++) out[k] *= d;
    }

    /** How many openings a line through a place crosses. */
    int crossed(float px, float py, float pz, float dx, float dy, float dz) {
        int n = 0;
        for (Pane p : panes) if (p.crossed(px, py, pz, dx, dy, dz)) n++;
        return n;
    }

    private void span() {
        for (int k = 0; k < 3; k++) {
            float lo = Float.POSITIVE_INFINITY, hi = Float.NEGATIVE_INFINITY;
            for (Pane p : panes) {
                lo = Math.min(lo, p.least(k));
                hi = Math.max(hi, p.most(k));
            }
            low[k] = lo - (k == 2 ? BELOW : MARGIN);
            cell[k] = (hi + (k == 2 ? ABOVE : MARGIN) - low[k]) / GRID;
        }
    }

    private Cell at(float px, float py, float pz, Ray ray) {
        if (cells.length == 0) return Cell.NONE;
        int x = (int) Math.floor((px - low[0]) / cell[0]), y = (int) Math.floor((py - low[1]) / cell[1]),
                z = (int) Math.floor((pz - low[2]) / cell[2]);
        if (x < 0 || y < 0 || z < 0 || x >= GRID || y >= GRID || z >= GRID) return Cell.NONE;
        return at(x, y, z, ray);
    }

    private Cell at(int x, int y, int z, Ray ray) {
        int i = (z * GRID + y) * GRID + x;
        Cell c = cells[i];
        // Records are published whole; two threads that fill a cell at once fill it alike.
        if (c == null) cells[i] = c = make(x, y, z, ray);
        return c;
    }

    /** Tells rooms from open air, and finds the panes that matter from a cell. */
    private Cell make(int x, int y, int z, Ray ray) {
        PathSampler random = new PathSampler();
        float[] from = new float[3];
        int open = 0;
        for (int s = 0; s < TESTS; s++) {
            random.start(x + GRID * y, z, s, 17);
            place(random, x, y, z, from);
            random.next2();
            float up = random.u;
            double t = 2 * Math.PI * random.v, w = Math.sqrt(1 - up * up);
            ray.set(from[0], from[1], from[2], (float) (w * Math.cos(t)), (float) (w * Math.sin(t)), up, Float.POSITIVE_INFINITY);
            if (!tracer.closest(ray)) open++;
        }
        float share = Math.clamp(0.9f - 3f * open / TESTS, 0.04f, 0.9f);
        float[] weights = new float[panes.size()];
        float mx = low[0] + (x + 0.5f) * cell[0], my = low[1] + (y + 0.5f) * cell[1], mz = low[2] + (z + 0.5f) * cell[2];
        for (int i = 0; i < weights.length; i++) weights[i] = panes.get(i).weight(mx, my, mz);
        Integer[] best = new Integer[weights.length];
        Arrays.setAll(best, i -> i);
        Arrays.sort(best, (a, b) -> Float.compare(weights[b], weights[a]));
        int n = Math.min(MOST_IN_CELL, best.length);
        Pane[] chosen = new Pane[n];
        int[] numbers = new int[n];
        float[] sums = new float[n];
        float sum = 0;
        for (int k = 0; k < n; k++) {
            chosen[k] = panes.get(best[k]);
            numbers[k] = best[k];
            sums[k] = sum += weights[best[k]] * seen(chosen[k], k, x, y, z, random, from, ray);
        }
        for (int k = 0; k < n; k++) sums[k] /= sum;
        return new Cell(share, chosen, numbers, sums);
    }

    private void place(PathSampler random, int x, int y, int z, float[] out) {
        random.next2();
        out[0] = low[0] + (x + random.u) * cell[0];
        out[1] = low[1] + (y + random.v) * cell[1];
        out[2] = low[2] + (z + random.next1()) * cell[2];
    }

    /** How much of a pane is seen from a cell; never nothing, since few looks may all miss. */
    private float seen(Pane pane, int k, int x, int y, int z, PathSampler random, float[] from, Ray ray) {
        int seen = 0;
        float[] d = new float[3];
        for (int s = 0; s < LOOKS; s++) {
            random.start(x + GRID * y, z + GRID * k, s, 23);
            place(random, x, y, z, from);
            random.next2();
            float reach = pane.aim(from[0], from[1], from[2], random.u, random.v, d);
            ray.set(from[0], from[1], from[2], d[0], d[1], d[2], reach * 0.995f);
            if (tracer.open(ray)) seen++;
        }
        return (0.15f + seen) / (0.15f + LOOKS);
    }

    /**
     * Chance with which panes, and not the whole dome, should be sampled from a place; 0 to 0.9.
     *
     * @param ray may be used for test rays
     */
    public float share(float px, float py, float pz, Ray ray) {
        return at(px, py, pz, ray).share;
    }

    /** The cell of a place, or that of the grid's edge nearest to it. */
    private Cell nearest(float px, float py, float pz, Ray ray) {
        return at(Math.clamp((int) ((px - low[0]) / cell[0]), 0, GRID - 1), Math.clamp((int) ((py - low[1]) / cell[1]), 0, GRID - 1),
                Math.clamp((int) ((pz - low[2]) / cell[2]), 0, GRID - 1), ray);
    }

    /** Chance with which light that bounces at a place should be sent through a pane: half of it out in the open, in rooms none. */
    public float inward(float px, float py, float pz, Ray ray) {
        return cells.length == 0 ? 0 : INWARD * Math.clamp((ROOM - nearest(px, py, pz, ray).share) / ROOM, 0, 1);
    }

    /** Chooses a direction through a pane, from whichever side, into {@code out}. */
    public void through(float px, float py, float pz, float choose, float u1, float u2, float[] out, Ray ray) {
        Cell c = nearest(px, py, pz, ray);
        int k = 0;
        while (k < c.sums.length - 1 && choose >= c.sums[k]) k++;
        c.panes[k].aim(px, py, pz, u1, u2, out);
    }

    /** Density per steradian with which {@link #through} gives a direction. */
    public float throughPdf(float px, float py, float pz, float dx, float dy, float dz, Ray ray) {
        Cell c = nearest(px, py, pz, ray);
        float sum = 0;
        for (int k = 0; k < c.panes.length; k++) sum += c.chance(k) * c.panes[k].perSteradianBothWays(px, py, pz, dx, dy, dz);
        return sum;
    }

    /** The ways that one may aim at the surroundings: at all of them (number 0), or at a piece of a pane. */
    public int targets() {
        return 1 + panes.size() * cuts * cuts;
    }

    /**
     * A choice among the ways, in proportion to what each has proved to be worth.
     *
     * @param worth of each way, from place {@code o} on; none is negative
     */
    public Aim aim(float[] weights, int o) {
        return PaneAim.of(panes, cuts, weights, o);
    }

    /**
     * Chooses a direction through a pane into the sample's x, y, z, and tells which way that was; -1 where the pane faces away and
     * everything is to be aimed at.
     */
    public int sample(float px, float py, float pz, float choose, float u1, float u2, LightSample out, Ray ray) {
        Cell c = at(px, py, pz, ray);
        int k = 0;
        while (k < c.sums.length - 1 && choose >= c.sums[k]) k++;
        if (!c.panes[k].faces(px, py, pz)) return -1;
        c.panes[k].aim(px, py, pz, u1, u2, out.rgb);
        out.x = out.rgb[0];
        out.y = out.rgb[1];
        out.z = out.rgb[2];
        return 1 + (c.numbers[k] * cuts + Math.min(cuts - 1, (int) (u2 * cuts))) * cuts + Math.min(cuts - 1, (int) (u1 * cuts));
    }

    /** Density per steradian of a direction among those that lie in the piece of a pane that one aimed at. */
    public float perPiece(int way, float px, float py, float pz, float dx, float dy, float dz) {
        return panes.get((way - 1) / (cuts * cuts)).perSteradian(px, py, pz, dx, dy, dz) * cuts * cuts;
    }

    /**
     * Density per steradian with which {@link #sample} gives a direction: the sum over all panes that lie in it.
     *
     * @param whole that of aiming at everything, which is done where the chosen pane faces away
     */
    public float pdf(float px, float py, float pz, float dx, float dy, float dz, float whole, Ray ray) {
        Cell c = at(px, py, pz, ray);
        float sum = 0;
        for (int k = 0; k < c.panes.length; k++) {
            float q = c.panes[k].faces(px, py, pz) ? c.panes[k].perSteradian(px, py, pz, dx, dy, dz) : whole;
            if (q > 0) sum += c.chance(k) * q;
        }
        return sum;
    }
}
