package bake.core.meters;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.PixelFilter;
import bake.core.film.Region;
import bake.core.geometry.Ray;
import bake.core.light.LightSample;
import bake.core.math.Frame;
import bake.core.math.PathSampler;
import bake.core.path.DirectLight;
import bake.core.scene.Camera;
import bake.core.surface.SurfacePoint;
import bake.core.work.Workers;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;

/**
 * What the pixels of a picture show first, glass as glass: how far it is, where it lies, how it is turned, where on its texture, which
 * materials, objects, layers and source groups share each pixel, and how much of the sun's and the lamps' light arrives there. A few looks
 * a pixel, spread like the picture's own.
 */
public final class FirstHits {
    /** What a pixel can be divided among. */
    public enum Kind {
        MATERIAL, OBJECT, LAYER,
        /** What gives light itself, by its source group; all else belongs to none. */
        SOURCE
    }

    /** Looks a pixel, and how many of a kind a pixel can be shared by; with more the least are left out. */
    public static final int LOOKS = 16, SHARES = 6;
    private static final int RAYS = 4;
    /** Means of a pixel: depth, place, normal, texture coordinates. */
    private static final int SUMS = 9;
    private static final int TILE = 32, MOST_PASSED = 64;
    private static final long OWN = 0x5bd1e995L;
    /** What the bodies of lamps are made of, and the layer that they are on. */
    private static final String LAMP = "lamp", LAMPS = "lamps";

    /**
     * What is asked for.
     *
     * @param kinds what pixels are divided among
     * @param reach up to where things shut a place in, metres; 0 where that is not asked for
     * @param shadow whether light is looked for
     */
    public record Asked(Set<Kind> kinds, float reach, boolean shadow) {
        /** Memory that a pixel takes, bytes. */
        public int bytes() {
            return 1 + 4 * SUMS + (reach > 0 ? 1 : 0) + (shadow ? 8 : 0) + kinds.size() * SHARES * 5;
        }
    }

    private final RenderScene scene;
    private final Region region;
    private final int width, height;
    private final Lens lens;
    private final PixelFilter filter;
    /** By pixel of the region: looks that met something; sums over them of depth, place and normal. */
    private final byte[] met;
    /** Those of them from which nothing near was met in a direction by chance; null where that was not looked for. */
    private final byte[] free;
    private final Asked asked;
    private final float[] sums;
    /** Light that sun and lamps would send to what is met, and what of it arrives; null where that was not looked for. */
    private final float[] sent, arrived;
    /** By kind: {@link #SHARES} a pixel, numbers of names and looks that met them; and the names. */
    private final int[][] what = new int[Kind.values().length][];
    private final byte[][] looks = new byte[Kind.values().length][];
    private final String[][] names = new String[Kind.values().length][];
    private final int[][] numberOf = new int[Kind.values().length][];

    private FirstHits(RenderScene scene, Camera camera, PixelFilter filter, int width, int height, Region region, Asked asked) {
        this.asked = asked;
        this.scene = scene;
        this.region = region;
        this.width = width;
        this.height = height;
        this.filter = filter;
        lens = new Lens(camera, width, height);
        int n = region.width() * region.height();
        met = new byte[n];
        free = asked.reach() > 0 ? new byte[n] : null;
        sums = new float[SUMS * n];
        sent = asked.shadow() ? new float[n] : null;
        arrived = asked.shadow() ? new float[n] : null;
        for (Kind k : asked.kinds()) {
            what[k.ordinal()] = new int[SHARES * n];
            looks[k.ordinal()] = new byte[SHARES * n];
        }
        var s = scene.scene();
        number(Kind.MATERIAL, s.materials().stream().map(m -> m.name()).toList(), List.of(LAMP));
        number(Kind.OBJECT, s.meshes().stream().map(m -> m.name()).toList(), s.lamps().stream().map(l -> l.name()).toList());
        int layers = 1 + s.instances().stream().mapToInt(i -> i.layer()).max().orElse(0);
        number(Kind.LAYER, IntStream.range(0, layers).mapToObj(i -> i < s.layers().size() ? s.layers().get(i) : "layer " + i).toList(),
                List.of(LAMPS));
        number(Kind.SOURCE, scene.lights().groups(), List.of());
    }

    /** Things of one name are one thing; lamps come after all others. */
    private void number(Kind k, List<String> all, List<String> lamps) {
        Map<String, Integer> numbers = new LinkedHashMap<>();
        int[] of = new int[all.size() + lamps.size()];
        for (int i = 0; i < of.length; i++) {
            String name = i < all.size() ? all.get(i) : lamps.get(i - all.size());
            of[i] = numbers.computeIfAbsent(name, x -> numbers.size());
        }
        numberOf[k.ordinal()] = of;
        names[k.ordinal()] = numbers.keySet().toArray(String[]::new);
    }

    /**
     * Looks at a region of a picture.
     *
     * @return null when it was stopped
     */
    public static FirstHits of(RenderScene scene, Camera camera, PixelFilter filter, int width, int height, Region region, long seed,
            Asked asked, Workers workers, BooleanSupplier stop) {
        FirstHits f = new FirstHits(scene, camera, filter, width, height, region.within(width, height), asked);
        Looker[] lookers = new Looker[workers.threads()];
        for (int i = 0; i < lookers.length; i++) lookers[i] = f.new Looker(seed ^ OWN);
        boolean[] stopped = new boolean[lookers.length];
        int across = (f.region.width() + TILE - 1) / TILE, down = (f.region.height() + TILE - 1) / TILE;
        workers.run(across * down, (worker, tile) -> {
            if (stopped[worker] || stop.getAsBoolean()) {
                stopped[worker] = true;
                return;
            }
            int x0 = tile % across * TILE, y0 = tile / across * TILE;
            for (int y = y0; y < Math.min(y0 + TILE, f.region.height()); y++)
                for (int x = x0; x < Math.min(x0 + TILE, f.region.width()); x++) lookers[worker].pixel(x, y);
        });
        for (boolean s : stopped) if (s) return null;
        return f;
    }

    /** Names of a kind, in the order of their numbers. */
    public List<String> names(Kind k) {
        return List.of(names[k.ordinal()]);
    }

    /** Share of a pixel, counted row by row in the region, that the thing of a rank fills, 0 to 1; the largest share has rank 0. */
    public float share(Kind k, int pixel, int rank) {
        return looks[k.ordinal()][SHARES * pixel + rank] / (float) LOOKS;
    }

    /** Number of the thing of a rank; -1 where there is none. */
    public int thing(Kind k, int pixel, int rank) {
        return looks[k.ordinal()][SHARES * pixel + rank] == 0 ? -1 : what[k.ordinal()][SHARES * pixel + rank];
    }

    /** Share of each pixel that shows something. */
    public float[] cover() {
        float[] out = new float[met.length];
        for (int i = 0; i < out.length; i++) out[i] = met[i] / (float) LOOKS;
        return out;
    }

    /**
     * How open each pixel is: of the directions around its normal, by their irradiance, the share in which nothing is
     * near (Zhukov, Iones and
     * Kronin 1998, with a step for their falloff); 1 where a pixel shows nothing.
     */
    public float[] open() {
        float[] out = new float[met.length];
        for (int i = 0; i < out.length; i++) out[i] = met[i] == 0 ? 1 : free[i] / (float) (RAYS * met[i]);
        return out;
    }

    /** Of the light that sun and lamps would send to what each pixel shows if nothing stood in between, the share that arrives; else 1. */
    public float[] lit() {
        float[] out = new float[met.length];
        for (int i = 0; i < out.length; i++) out[i] = sent[i] > 0 ? Math.min(1, arrived[i] / sent[i]) : 1;
        return out;
    }

    /**
     * A plane of means over what is met, not over what is not.
     *
     * @param value 0 depth along the view, metres; 1 to 3 place, metres; 4 to 6 normal on the side that is seen;
     *     7 and 8 texture coordinates
     * @param nothing where a pixel shows nothing
     */
    public float[] mean(int value, float nothing) {
        float[] out = new float[met.length];
        for (int i = 0; i < out.length; i++) out[i] = met[i] == 0 ? nothing : sums[SUMS * i + value] / met[i];
        return out;
    }

    /** Looks at single pixels; one for each thread. */
    private final class Looker {
        private final long seed;
        private final PathSampler random = new PathSampler();
        private final Ray ray = new Ray();
        private final SurfacePoint at = new SurfacePoint();
        private final float[] r = new float[6];
        private final Frame frame = new Frame();
        private final DirectLight direct = new DirectLight(null, scene);
        private final int[] things = new int[LOOKS];
        private final int[][] found = new int[Kind.values().length][LOOKS];

        Looker(long seed) {
            this.seed = seed;
        }

        void pixel(int x, int y) {
            int i = y * region.width() + x, n = 0, open = 0;
            for (int k = 0; k < LOOKS; k++) {
                random.startPixel(region.x() + x, region.y() + y, k, seed);
                random.next2();
                float fx = region.x() + x + 0.5f + filter.offset(random.u), fy = region.y() + y + 0.5f + filter.offset(random.v);
                random.next2();
                lens.ray(fx / width, fy / height, random.u, random.v, r);
                int lamp = look();
                if (lamp == NOTHING) continue;
                var s = scene.scene();
                if (lamp >= 0) {
                    found[Kind.MATERIAL.ordinal()][n] = numberOf[Kind.MATERIAL.ordinal()][s.materials().size()];
                    found[Kind.OBJECT.ordinal()][n] = numberOf[Kind.OBJECT.ordinal()][s.meshes().size() + lamp];
                    found[Kind.LAYER.ordinal()][n] = numberOf[Kind.LAYER.ordinal()][numberOf[Kind.LAYER.ordinal()].length - 1];
                    found[Kind.SOURCE.ordinal()][n] = numberOf[Kind.SOURCE.ordinal()][scene.lights().emitters().lampGroup(lamp)];
                    add(i, ray.ox + ray.t * ray.dx, ray.oy + ray.t * ray.dy, ray.oz + ray.t * ray.dz, -ray.dx, -ray.dy, -ray.dz, 0, 0);
                } else {
                    var placed = s.instances().get(scene.geometry().instance(ray.item, ray.prim));
                    found[Kind.MATERIAL.ordinal()][n] = numberOf[Kind.MATERIAL.ordinal()][at.material];
                    found[Kind.OBJECT.ordinal()][n] = numberOf[Kind.OBJECT.ordinal()][placed.mesh()];
                    found[Kind.LAYER.ordinal()][n] = numberOf[Kind.LAYER.ordinal()][placed.layer()];
                    found[Kind.SOURCE.ordinal()][n] = at.emitR + at.emitG + at.emitB > 0
                            ? numberOf[Kind.SOURCE.ordinal()][scene.lights().glowGroup()] : -1;
                    float side = at.nx * r[3] + at.ny * r[4] + at.nz * r[5] > 0 ? -1 : 1;
                    add(i, at.px, at.py, at.pz, side * at.nx, side * at.ny, side * at.nz, at.textureS, at.textureT);
                    if (sent != null) light(i);
                    if (free != null) open += open(side);
                }
                n++;
            }
            met[i] = (byte) n;
            if (free != null) free[i] = (byte) open;
            for (Kind k : asked.kinds()) share(k.ordinal(), i, found[k.ordinal()], n);
        }

        /** Looks for the sun once, and for a lamp or a glowing surface. */
        private void light(int i) {
            LightSample l = direct.light;
            if (scene.lights().hasSun()) {
                random.next2();
                scene.lights().sampleSun(random.u, random.v, l);
                came(i, l);
            }
            if (scene.lights().emitters().count() == 0) return;
            l.from(at.nx, at.ny, at.nz);
            random.next2();
            if (scene.lights().emitters().sample(at.px, at.py, at.pz, random.next1(), random.u, random.v, l)) came(i, l);
        }

        private void came(int i, LightSample l) {
            float cos = at.nx * l.x + at.ny * l.y + at.nz * l.z;
            if (!(cos > 0 && l.pdf > 0)) return;
            float k = cos / l.pdf;
            sent[i] += k * (0.2126f * l.r + 0.7152f * l.g + 0.0722f * l.b);
            if (at.gx * l.x + at.gy * l.y + at.gz * l.z > 0 && direct.arrives(at))
                arrived[i] += k * (0.2126f * l.r * direct.shadow.tr + 0.7152f * l.g * direct.shadow.tg + 0.0722f * l.b * direct.shadow.tb);
        }

        /** Of some rays from the surface, how many meet nothing near. */
        private int open(float side) {
            int out = 0;
            frame.around(side * at.nx, side * at.ny, side * at.nz);
            for (int k = 0; k < RAYS; k++) {
                random.next2();
                float sin = (float) Math.sqrt(random.u), phi = 2 * (float) Math.PI * random.v;
                frame.turn(sin * (float) Math.cos(phi), sin * (float) Math.sin(phi), (float) Math.sqrt(1 - random.u));
                if (!(frame.x * at.gx + frame.y * at.gy + frame.z * at.gz > 0)) continue;
                float e = at.offset;
                ray.set(at.px + e * at.gx, at.py + e * at.gy, at.pz + e * at.gz, frame.x, frame.y, frame.z, asked.reach());
                ray.skipLamp = -1;
                if (scene.tracer().open(ray)) out++;
            }
            return out;
        }

        private void add(int i, float x, float y, float z, float nx, float ny, float nz, float u, float v) {
            double[] p = lens.project(x, y, z);
            int o = SUMS * i;
            sums[o] += p == null ? 0 : (float) p[2];
            sums[o + 1] += x;
            sums[o + 2] += y;
            sums[o + 3] += z;
            sums[o + 4] += nx;
            sums[o + 5] += ny;
            sums[o + 6] += nz;
            sums[o + 7] += u;
            sums[o + 8] += v;
        }

        /** Counts alike, and keeps those with most. */
        private void share(int kind, int pixel, int[] of, int n) {
            System.arraycopy(of, 0, things, 0, n);
            Arrays.sort(things, 0, n);
            for (int a = 0; a < n; ) {
                int b = a;
                while (b < n && things[b] == things[a]) b++;
                if (things[a] >= 0) keep(kind, SHARES * pixel, things[a], b - a);
                a = b;
            }
        }

        private void keep(int kind, int from, int thing, int count) {
            int[] w = what[kind];
            byte[] l = looks[kind];
            int at = from + SHARES;
            while (at > from && l[at - 1] < count) at--;
            if (at == from + SHARES) return;
            System.arraycopy(w, at, w, at + 1, from + SHARES - 1 - at);
            System.arraycopy(l, at, l, at + 1, from + SHARES - 1 - at);
            w[at] = thing;
            l[at] = (byte) count;
        }

        private static final int NOTHING = -2, SURFACE = -1;

        /** Number of the lamp that is met, or one of the above. */
        private int look() {
            ray.width = ray.spread = 0;
            ray.set(r[0], r[1], r[2], r[3], r[4], r[5], Float.POSITIVE_INFINITY);
            for (int passed = 0; passed < MOST_PASSED; passed++) {
                if (!scene.tracer().closest(ray)) return NOTHING;
                int lamp = ray.item - scene.tracer().firstLamp();
                if (lamp >= 0) {
                    int l = scene.tracer().lamps().lamp(lamp);
                    if (scene.lights().emitters().seen(l, true)) return l;
                    float t = ray.t * 1.00001f + 1e-5f;
                    ray.set(ray.ox + t * ray.dx, ray.oy + t * ray.dy, ray.oz + t * ray.dz, ray.dx, ray.dy, ray.dz, Float.POSITIVE_INFINITY);
                    continue;
                }
                at.load(scene.geometry(), scene.surfaces(), ray);
                boolean hole = scene.surfaces().isSoft(at.material)
                        && scene.surfaces().coverage(scene.geometry().blas(ray.item), at.material, ray.prim, ray.u, ray.v) < 0.5f;
                if (!hole) return SURFACE;
                float e = -at.offset;
                ray.set(at.px + e * at.gx, at.py + e * at.gy, at.pz + e * at.gz, ray.dx, ray.dy, ray.dz, Float.POSITIVE_INFINITY);
            }
            return NOTHING;
        }
    }
}
