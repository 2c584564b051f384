package bake.core.outlook;

import bake.core.light.Dome;
import bake.core.scene.Outlook;

/**
 * A panorama laid out on the inside of a room: floor, upright wall, half a ball on top. A look goes on to that room, and what it meets
 * there is looked up as it was seen from the tripod. From the tripod's own lens the panorama is as it was taken.
 */
final class Grounding implements Sight {
    private final Dome dome;
    private final float cx, cy, cz, radius, tripod, soft, wall;

    Grounding(Dome dome, Outlook.Ground g) {
        this.dome = dome;
        cx = (float) g.x();
        cy = (float) g.y();
        cz = (float) g.z();
        radius = (float) g.radius();
        tripod = (float) g.tripod();
        soft = (float) Math.clamp(g.softness(), 0, 1);
        wall = (float) (g.stretch() * g.radius());
    }

    @Override
    public void radiance(float ox, float oy, float oz, float dx, float dy, float dz, float px, float py, float[] out) {
        float x = ox - cx, y = oy - cy, z = oz - cz, far = side(x, y, z, dx, dy, dz);
        if (!(far > 0)) { // from outside, and past it
            dome.read(dx, dy, dz, out);
            return;
        }
        float hx = x + far * dx, hy = y + far * dy, hz = z + far * dz;
        // Beyond the rim the floor goes on below the wall for as long as it takes to blend the one into the other.
        if (dz < 0 && z > 0) {
            float t = -z / dz, fx = x + t * dx, fy = y + t * dy, rho = (float) Math.sqrt(fx * fx + fy * fy) / radius, w = blend(rho);
            hx = fx + w * (hx - fx);
            hy = fy + w * (hy - fy);
            hz = w * hz;
        } else if (hz < 0) hz = 0;
        hz -= tripod;
        float l = 1 / (float) Math.sqrt(Math.max(1e-12f, hx * hx + hy * hy + hz * hz));
        dome.read(hx * l, hy * l, hz * l, out);
    }

    /**
     * Share of the wall for a point of the floor, by its distance from the middle in radii: 0 within the rim, 1 outside, without a kink.
     */
    private float blend(float rho) {
        if (rho >= 1) return 1;
        float t = soft > 0 ? (rho - (1 - soft)) / soft : 0;
        return t <= 0 ? 0 : t * t * (3 - 2 * t);
    }

    /** Distance to where the look leaves wall and ball; not above 0 when it never does. */
    private float side(float x, float y, float z, float dx, float dy, float dz) {
        float a = dx * dx + dy * dy, b = x * dx + y * dy, c = x * x + y * y - radius * radius;
        if (a > 1e-12f) {
            float d = b * b - a * c;
            if (d < 0) return -1;
            float t = (-b + (float) Math.sqrt(d)) / a;
            if (z + t * dz <= wall) return t;
        }
        // Above the wall: a ball around the middle of its upper rim.
        float h = z - wall, bb = b + h * dz, d = bb * bb - (x * x + y * y + h * h - radius * radius);
        return d < 0 ? -1 : -bb + (float) Math.sqrt(d);
    }

    @Override
    public float white() {
        return (float) (dome.horizontalIlluminance() / Math.PI);
    }
}
