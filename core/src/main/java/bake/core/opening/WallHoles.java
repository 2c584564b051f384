package bake.core.opening;

import bake.core.math.Vec3;
import java.util.ArrayList;
import java.util.List;

/** Holes in a wall: parts of its plane that it does not cover, with a room on this side and the open on the other. */
final class WallHoles {
    private static final double CELL = 0.06, LEAST = 0.15;
    private static final int MOST_CELLS = 260;
    /** How far before and behind the plane one looks from, metres. */
    static final double BEFORE = 0.25, BEHIND = 0.35, DEEPER = 0.7;

    private final Openness open;

    WallHoles(Openness open) {
        this.open = open;
    }

    List<Rectangle> in(Plane p) {
        double cell = Math.max(CELL, Math.max(p.u1 - p.u0, p.v1 - p.v0) / MOST_CELLS);
        int across = (int) Math.ceil((p.u1 - p.u0) / cell), down = (int) Math.ceil((p.v1 - p.v0) / cell);
        List<Rectangle> out = new ArrayList<>();
        if (across < 2 || down < 2) return out;
        boolean[] free = p.cover(across, down, cell);
        boolean any = false;
        for (int i = 0; i < free.length; i++) any |= free[i] = !free[i];
        if (!any) return out;
        for (int[] group : Plane.groups(free, across)) {
            if (group.length * cell * cell < LEAST) continue;
            Rectangle r = hole(p, group, across, down, cell);
            if (r != null) out.add(r);
        }
        return out;
    }

    private Rectangle hole(Plane p, int[] group, int across, int down, double cell) {
        boolean[] clear = new boolean[across * down];
        boolean border = false;
        int tried = 0, passed = 0;
        for (int c : group) {
            int i = c % across, j = c / across;
            border |= i == 0 || j == 0 || i == across - 1 || j == down - 1;
            tried++;
            Vec3 at = p.at(p.u0 + (i + 0.5) * cell, p.v0 + (j + 0.5) * cell);
            if (open.open(at.plus(p.n.times(BEFORE)), p.n.times(-1), BEFORE + BEHIND)) {
                clear[c] = true;
                passed++;
            }
        }
        if (passed * cell * cell < LEAST) return null;
        // A hole with wall all around is taken whole, even where a curtain or a beam stands before some of it.
        if (!border && passed > 0.35 * tried) {
            Rectangle whole = around(p, group, across, cell);
            if (whole.area() < 1.5 * tried * cell * cell) return whole;
        }
        Rectangle best = null;
        for (int[] g : Plane.groups(leadsOut(p, clear, across, down, cell), across)) {
            Rectangle r = around(p, g, across, cell);
            if (r.area() >= LEAST && g.length * cell * cell > 0.6 * r.area() && (best == null || r.area() > best.area())) best = r;
        }
        return best;
    }

    /** Of clear cells those with a room before and the open behind; looked at in coarser steps. */
    private boolean[] leadsOut(Plane p, boolean[] clear, int across, int down, double cell) {
        boolean[] out = new boolean[clear.length];
        int step = Math.max(1, (int) Math.round(0.3 / cell));
        for (int j = 0; j < down; j += step)
            for (int i = 0; i < across; i += step) {
                boolean any = false;
                for (int b = j; b < Math.min(down, j + step); b++) for (int a = i; a < Math.min(across, i + step); a++)
                    any |= clear[b * across + a];
                if (!any) continue;
                Vec3 at = p.at(p.u0 + (i + step / 2.0) * cell, p.v0 + (j + step / 2.0) * cell);
                if (!OpeningFinder.between(open, at, p.n, List.of(), 16)) continue;
                for (int b = j; b < Math.min(down, j + step); b++) for (int a = i; a < Math.min(across, i + step); a++)
                    out[b * across + a] = clear[b * across + a];
            }
        return out;
    }

    private static Rectangle around(Plane p, int[] cells, int across, double cell) {
        int i0 = Integer.MAX_VALUE, j0 = Integer.MAX_VALUE, i1 = 0, j1 = 0;
        for (int c : cells) {
            i0 = Math.min(i0, c % across);
            i1 = Math.max(i1, c % across + 1);
            j0 = Math.min(j0, c / across);
            j1 = Math.max(j1, c / across + 1);
        }
        return new Rectangle(p.at(p.u0 + i0 * cell, p.v0 + j0 * cell), p.u, p.v, p.n, (i1 - i0) * cell, (j1 - j0) * cell);
    }
}
