package bake.core.opening;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.math.Vec3;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.List;

/** Sheets of glass, put together to the rectangles that they fill in one plane. */
final class Glazing {
    private static final double GAP = 0.2, SAME = 0.12, LEAST = 0.15;
    private static final int MOST = 20_000;

    private Glazing() {}

    static List<Rectangle> find(Geometry g, SurfaceTable surfaces) {
        List<Rectangle> out = new ArrayList<>();
        Vec3[] c = new Vec3[3];
        int n = 0;
        for (int item = 0; item < g.items(); item++) {
            Blas b = g.blas(item);
            for (int p = 0; p < b.places() && n < MOST; p++) {
                if (b.materials()[p] < 0 || !surfaces.isPane(b.materials()[p])) continue;
                Plane.corners(g, item, p, c);
                Vec3 cross = c[1].minus(c[0]).cross(c[2].minus(c[0]));
                if (!(cross.length() > 0.002)) continue;
                n++;
                add(out, rectangle(c, cross.normalized()));
            }
        }
        // Joining may bring together what was apart before.
        for (int before = out.size() + 1; out.size() < before; ) {
            before = out.size();
            List<Rectangle> again = new ArrayList<>();
            for (Rectangle r : out) add(again, r);
            out = again;
        }
        out.removeIf(r -> r.area() < LEAST);
        return out;
    }

    private static Rectangle rectangle(Vec3[] c, Vec3 normal) {
        // One of the two ways to face, always the same.
        Vec3 n = normal.z() + 1e-3 * normal.y() + 1e-6 * normal.x() < 0 ? normal.times(-1) : normal;
        Vec3 u = Math.abs(n.z()) < 0.9 ? Vec3.UP.cross(n).normalized() : longest(c), v = n.cross(u);
        return bounds(c[0], u, v, n, c);
    }

    private static Vec3 longest(Vec3[] c) {
        // Of a rectangle's half the two shorter edges are its sides.
        Vec3 best = c[1].minus(c[0]);
        double most = 0;
        for (int k = 0; k < 3; k++) {
            Vec3 e = c[(k + 1) % 3].minus(c[k]), f = c[(k + 2) % 3].minus(c[(k + 1) % 3]);
            double right = 1 - Math.abs(e.normalized().dot(f.normalized()));
            if (right > most) {
                most = right;
                best = e;
            }
        }
        return best.normalized();
    }

    private static Rectangle bounds(Vec3 o, Vec3 u, Vec3 v, Vec3 n, Vec3... points) {
        double a0 = 1e30, a1 = -1e30, b0 = 1e30, b1 = -1e30;
        for (Vec3 p : points) {
            double a = p.minus(o).dot(u), b = p.minus(o).dot(v);
            a0 = Math.min(a0, a);
            a1 = Math.max(a1, a);
            b0 = Math.min(b0, b);
            b1 = Math.max(b1, b);
        }
        return new Rectangle(o.plus(u.times(a0)).plus(v.times(b0)), u, v, n, a1 - a0, b1 - b0);
    }

    private static void add(List<Rectangle> all, Rectangle r) {
        for (int i = 0; i < all.size(); i++) {
            Rectangle o = all.get(i);
            if (o.n().dot(r.n()) < 0.999 || Math.abs(r.origin().minus(o.origin()).dot(o.n())) > SAME) continue;
            Rectangle both = bounds(o.origin(), o.u(), o.v(), o.n(), o.at(0, 0), o.at(o.width(), o.height()), r.at(0, 0),
                    r.at(r.width(), 0), r.at(0, r.height()), r.at(r.width(), r.height()));
            // Neighbours with a frame between them at most, which make a rectangle together.
            double gapU = both.width() - o.width() - extent(r, o.u()), gapV = both.height() - o.height() - extent(r, o.v());
            boolean beside = gapU < GAP && both.height() < Math.max(o.height(), extent(r, o.v())) + 0.02, above = gapV < GAP
                    && both.width() < Math.max(o.width(), extent(r, o.u())) + 0.02;
            if (gapU < 0.001 && gapV < 0.001 || beside || above) {
                all.set(i, both);
                return;
            }
        }
        all.add(r);
    }

    private static double extent(Rectangle r, Vec3 along) {
        return Math.abs(r.u().dot(along)) * r.width() + Math.abs(r.v().dot(along)) * r.height();
    }
}
