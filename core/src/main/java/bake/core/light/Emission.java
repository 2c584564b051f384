package bake.core.light;

import bake.core.math.Frame;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;

/**
 * Rays on which light leaves its sources, for photons (Jensen 1996): chosen so that the mean of {@link #r} and so on over all emissions is
 * the luminous flux of all sources, of what crosses the scene where they are infinitely far. Sun and surroundings shine along lines through
 * a ball around the scene, most of them through its openings where there are any: a line is weighed by the density of all ways to choose it
 * (Veach and Guibas 1995, balance heuristic). One instance per thread.
 */
public final class Emission {
    /** Share of lines that go through openings where there are some. */
    private static final float THROUGH = 0.8f;
    /** Least share of emissions of each kind of source that there is. */
    private static final double LEAST = 0.05;

    private final LightTable lights;
    private final Openings openings;
    private final float cx, cy, cz, radius;
    /** Chances of sun, and of sun or surroundings; the rest is emitters. */
    private final float sun, sky;
    private final LightSample light = new LightSample();
    private final Frame frame = new Frame();
    /** Where the ray begins and its unit direction. */
    public float x, y, z, dx, dy, dz;
    /** Luminous flux by colour that the emission stands for, lm. */
    public float r, g, b;
    /** Source group. */
    public int group;

    /** @param bounds lowest and highest corner of the scene, metres */
    public Emission(LightTable lights, Openings openings, float[] bounds) {
        this.lights = lights;
        this.openings = openings;
        cx = (bounds[0] + bounds[3]) / 2;
        cy = (bounds[1] + bounds[4]) / 2;
        cz = (bounds[2] + bounds[5]) / 2;
        float ex = bounds[3] - cx, ey = bounds[4] - cy, ez = bounds[5] - cz;
        radius = 1.001f * (float) Math.sqrt(ex * ex + ey * ey + ez * ez) + 1e-3f;
        double area = openings.count() > 0 ? openings.area() : Math.PI * radius * radius;
        Vec3 e = lights.sunIlluminance();
        double s = lights.hasSun() ? (0.2126 * e.x() + 0.7152 * e.y() + 0.0722 * e.z()) * area : 0,
                d = lights.dome().dark() ? 0 : Math.max(1e-6, lights.dome().horizontalIlluminance()) * area;
        double l = 4 * lights.emitters().emitted(), sum = s + d + l;
        s = s > 0 ? Math.max(s, LEAST * sum) : 0;
        d = d > 0 ? Math.max(d, LEAST * sum) : 0;
        l = l > 0 ? Math.max(l, LEAST * sum) : 0;
        sum = s + d + l;
        sun = sum > 0 ? (float) (s / sum) : 0;
        sky = sum > 0 ? (float) ((s + d) / sum) : 0;
    }

    /** Chooses a ray; false where this choice gives no light, which counts all the same. */
    public boolean emit(PathSampler random) {
        float kind = random.next1();
        if (kind < sun) {
            random.next2();
            lights.sampleSun(random.u, random.v, light);
            return line(random, sun);
        }
        if (kind < sky) {
            random.next2();
            lights.aim(random.u, random.v, light);
            light.pdf = lights.read(light);
            return line(random, sky - sun);
        }
        return sky < 1 && lights.emitters().emit(random, 1 - sky, this);
    }

    /** A line along which the sampled light comes, from where it enters the ball. */
    private boolean line(PathSampler random, float chance) {
        dx = -light.x;
        dy = -light.y;
        dz = -light.z;
        float all = openings.across(dx, dy, dz), through = all > 0 ? THROUGH : 0, choose = random.next1();
        random.next2();
        if (choose < through) openings.point(dx, dy, dz, choose / through, random.u, random.v, light.rgb);
        else disc(random.u, random.v);
        float px = light.rgb[0], py = light.rgb[1], pz = light.rgb[2];
        float ox = px - cx, oy = py - cy, oz = pz - cz, along = ox * dx + oy * dy + oz * dz,
                off = ox * ox + oy * oy + oz * oz - along * along;
        float density = (off < radius * radius ? (1 - through) / ((float) Math.PI * radius * radius) : 0)
                + (all > 0 ? through * openings.crossed(px, py, pz, dx, dy, dz) / all : 0);
        float back = along + (float) Math.sqrt(Math.max(0, radius * radius - off));
        x = px - back * dx;
        y = py - back * dy;
        z = pz - back * dz;
        float k = 1 / (chance * light.pdf * density);
        r = light.r * k;
        g = light.g * k;
        b = light.b * k;
        group = light.group;
        return k > 0 && k < Float.POSITIVE_INFINITY && r + g + b > 0;
    }

    private void disc(float u, float v) {
        frame.around(dx, dy, dz);
        float s = radius * (float) Math.sqrt(u), phi = 2 * (float) Math.PI * v;
        frame.turn(s * (float) Math.cos(phi), s * (float) Math.sin(phi), 0);
        light.rgb[0] = cx + frame.x;
        light.rgb[1] = cy + frame.y;
        light.rgb[2] = cz + frame.z;
    }

    /** A ray from a place of a surface, spread by the cosine to its normal; {@code flux} is that of a luminance of one. */
    void from(float px, float py, float pz, float nx, float ny, float nz, float flux, PathSampler random) {
        random.next2();
        float sin = (float) Math.sqrt(random.u), cos = (float) Math.sqrt(1 - random.u), phi = 2 * (float) Math.PI * random.v;
        towards(px, py, pz, nx, ny, nz, sin, cos, phi, flux);
    }

    /** A ray that leaves an axis by an angle. */
    void towards(float px, float py, float pz, float nx, float ny, float nz, float sin, float cos, float phi, float flux) {
        frame.around(nx, ny, nz);
        frame.turn(sin * (float) Math.cos(phi), sin * (float) Math.sin(phi), cos);
        x = px;
        y = py;
        z = pz;
        dx = frame.x;
        dy = frame.y;
        dz = frame.z;
        r = g = b = flux;
    }
}
