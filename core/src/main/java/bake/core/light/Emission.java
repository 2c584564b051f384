package bake.core.light;

import bake.core.math.Frame;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;

/**
 * Rays on which light leaves its sources, for photons (Jensen 1996): chosen so that the mean of {@link #r} and so on over all emissions is
 * the luminous flux of all sources, of what crosses the scene where they are infinitely far. Sun and surroundings shine along lines through
 * balls around the eye, each four times as wide as the one within it and the last one around the scene, so that a small house on a wide
 * ground gets its light; most lines go through openings where there are any. A line is weighed by the density of all ways to choose it
 * (Veach and Guibas 1995, balance heuristic). One instance per thread.
 */
public final class Emission {
    /** Share of lines that go through openings where there are some. */
    private static final float THROUGH = 0.6f;
    /** Least share of emissions of each kind of source that there is. */
    private static final double LEAST = 0.05;

    private final LightTable lights;
    private final Openings openings;
    /** Radius of the smallest ball, metres, and what each is to the one within it. */
    private static final float NEAR = 15, WIDER = 4;
    private final float cx, cy, cz, radius;
    private final float[] balls;
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
    /** What the flux is to that of most emissions of the kind: lines that do not go through openings are few and heavy. */
    public float heaviness;

    /**
     * @param bounds lowest and highest corner of the scene, metres
     * @param eye what light is wanted around, metres
     */
    public Emission(LightTable lights, Openings openings, float[] bounds, Vec3 eye) {
        this.lights = lights;
        this.openings = openings;
        cx = (float) eye.x();
        cy = (float) eye.y();
        cz = (float) eye.z();
        double far = 0;
        for (int k = 0; k < 8; k++) far = Math.max(far, Math.hypot(Math.hypot(bounds[k % 2 * 3] - cx, bounds[k / 2 % 2 * 3 + 1] - cy),
                bounds[k / 4 * 3 + 2] - cz));
        radius = 1.001f * (float) far + 1e-3f;
        int n = 1 + Math.max(0, (int) Math.ceil(Math.log(radius / NEAR) / Math.log(WIDER)));
        balls = new float[n];
        for (int k = n - 1; k >= 0; k--) balls[k] = k == n - 1 ? radius : NEAR * (float) Math.pow(WIDER, k);
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
        heaviness = 1;
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
        else disc(ball((choose - through) / (1 - through)), random.u, random.v);
        float px = light.rgb[0], py = light.rgb[1], pz = light.rgb[2];
        float ox = px - cx, oy = py - cy, oz = pz - cz, along = ox * dx + oy * dy + oz * dz,
                off = ox * ox + oy * oy + oz * oz - along * along;
        float density = (1 - through) * discs(off) + (all > 0 ? through * openings.crossed(px, py, pz, dx, dy, dz) / all : 0);
        float back = along + (float) Math.sqrt(Math.max(0, radius * radius - off));
        x = px - back * dx;
        y = py - back * dy;
        z = pz - back * dz;
        float k = 1 / (chance * light.pdf * density);
        if (all > 0) heaviness = Math.max(1, through / (all * density));
        r = light.r * k;
        g = light.g * k;
        b = light.b * k;
        group = light.group;
        return k > 0 && k < Float.POSITIVE_INFINITY && r + g + b > 0;
    }

    /** Half of the lines go through the smallest ball, the others through one of all. */
    private float ball(float choose) {
        return choose < 0.5f ? balls[0] : balls[Math.min(balls.length - 1, (int) ((2 * choose - 1) * balls.length))];
    }

    /** Lines of all balls per square metre across them, of a line so far from the eye, its square. */
    private float discs(float off) {
        float sum = 0;
        for (int k = 0; k < balls.length; k++)
            if (off < balls[k] * balls[k]) sum += ((k == 0 ? 0.5f : 0) + 0.5f / balls.length) / ((float) Math.PI * balls[k] * balls[k]);
        return sum;
    }

    private void disc(float ball, float u, float v) {
        frame.around(dx, dy, dz);
        float s = ball * (float) Math.sqrt(u), phi = 2 * (float) Math.PI * v;
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
