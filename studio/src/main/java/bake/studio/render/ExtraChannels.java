package bake.studio.render;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Seen;
import bake.core.meters.FirstHits;
import bake.core.path.LightPart;
import bake.formats.FormatException;
import bake.formats.picture.IdMatte;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;

/** Planes of what a file holds beside the picture. */
final class ExtraChannels {
    /** Depth of nothing, metres, as compositors take it for far away. */
    private static final float FAR = 1e10f;
    /** Names of channels have 31 letters at most. */
    private static final int LONGEST = 18;

    private static final Map<Channel, FirstHits.Kind> MATTES = Map.of(Channel.MATERIALS, FirstHits.Kind.MATERIAL, Channel.OBJECTS,
            FirstHits.Kind.OBJECT, Channel.LAYERS, FirstHits.Kind.LAYER, Channel.SOURCES, FirstHits.Kind.SOURCE);

    private ExtraChannels() {}

    /**
     * Checks that a picture has room for them.
     *
     * @throws FormatException when it would not fit into the memory as a whole
     */
    static void check(RenderJob.Order o, List<Channel> wanted, int groups) throws FormatException {
        if (wanted.isEmpty()) return;
        if (bytes(wanted, groups) * o.region().width() * o.region().height() > 2 * BandedRender.filmBytes())
            throw new FormatException(o.view(), "channels", "with them a picture of " + o.width() + "x" + o.height()
                    + " does not fit into the memory; make it smaller, or leave some out");
    }

    /** Memory that a pixel takes with channels beside the picture, bytes. */
    static long bytes(List<Channel> wanted, int groups) {
        long each = 4 * 4 + Film.bytesPerPixel((wanted.contains(Channel.LIGHTS) ? groups : 2) * (wanted.contains(Channel.PARTS)
                ? LightPart.COUNT : 1));
        for (Channel c : wanted) each += 4L * c.floats(groups);
        return each + (looks(wanted) ? asked(wanted, 1).bytes() : 0);
    }

    /** Whether any comes from looks of its own. */
    private static boolean looks(List<Channel> wanted) {
        return wanted.stream().anyMatch(c -> switch (c) {
            case DEPTH, POSITION, NORMAL, FACING, UV, SHADOW, OCCLUSION, MATERIALS, OBJECTS, LAYERS, SOURCES -> true;
            case LIGHTS, PARTS, CLEAN, COLOUR, NOISE, SAMPLES -> false;
        });
    }

    private static FirstHits.Asked asked(List<Channel> wanted, float reach) {
        Set<FirstHits.Kind> kinds = EnumSet.noneOf(FirstHits.Kind.class);
        MATTES.forEach((c, k) -> {
            if (wanted.contains(c)) kinds.add(k);
        });
        return new FirstHits.Asked(kinds, wanted.contains(Channel.OCCLUSION) ? reach : 0, wanted.contains(Channel.SHADOW));
    }

    /** Adds planes, and what the file says of them. */
    static void add(RenderJob job, List<Channel> wanted, SortedMap<String, float[]> planes, Map<String, String> notes) {
        RenderJob.Order o = job.order();
        Region r = o.region();
        Film f = job.film();
        int n = r.width() * r.height();
        if (o.split() != Film.Split.NONE) light(job.scene(), f, r, o.split(), wanted, planes);
        if (wanted.contains(Channel.CLEAN)) clean(job, planes);
        if (wanted.contains(Channel.COLOUR) && f.hasFeatures()) {
            float[][] p = {new float[n], new float[n], new float[n]};
            float[] v = new float[7];
            for (int i = 0; i < n; i++) {
                f.features(r.x() + i % r.width(), r.y() + i / r.width(), v);
                for (int c = 0; c < 3; c++) p[c][i] = v[c];
            }
            three("albedo", "RGB", p, planes);
        }
        if (wanted.contains(Channel.NOISE) || wanted.contains(Channel.SAMPLES)) {
            float[] noise = new float[n], samples = new float[n];
            for (int i = 0; i < n; i++) {
                int x = r.x() + i % r.width(), y = r.y() + i / r.width();
                double v = f.variance(x, y);
                noise[i] = Double.isFinite(v) ? (float) Math.sqrt(v) : 0;
                samples[i] = f.samples(x, y);
            }
            if (wanted.contains(Channel.NOISE)) planes.put("noise.Y", noise);
            if (wanted.contains(Channel.SAMPLES)) planes.put("samples.Y", samples);
        }
        if (!looks(wanted)) return;
        FirstHits h = FirstHits.of(job.scene(), o.camera(), EngineSettings.paths(o.preset(), o.seed()).filter(), o.width(), o.height(), r,
                o.seed(), asked(wanted, (float) EngineSettings.occlusion(o.preset()).metres()), job.workers(), () -> false);
        hits(h, new Lens(o.camera(), o.width(), o.height()), wanted, planes);
        for (Channel c : MATTES.keySet()) if (wanted.contains(c)) mattes(c, h, n, planes, notes);
    }

    /** All that the picture can be finished from again. */
    private static void clean(RenderJob job, SortedMap<String, float[]> planes) {
        RenderJob.Order o = job.order();
        int n = o.region().width() * o.region().height();
        float[] light = PictureOutput.light(job.film(), job.finish(), null, o.region(), o.preset().denoise());
        float[][] p = new float[3][n];
        for (int i = 0; i < 3 * n; i++) p[i % 3][i / 3] = light[i];
        three("clean", "RGB", p, planes);
        Seen seen = Seen.of(job.film(), o.region());
        planes.put("seen.open", seen.open());
        if (seen.values() == null) return;
        String[] names = {"R", "G", "B", "X", "Y", "W", "Z"};
        for (int k = 0; k < 7; k++) {
            float[] plane = new float[n];
            for (int i = 0; i < n; i++) plane[i] = seen.values()[7 * i + k];
            planes.put("seen.guide." + names[k], plane);
        }
    }

    /** The planes of a film that keeps light apart, one name a plane or a sum of several. */
    private static void light(RenderScene scene, Film f, Region r, Film.Split split, List<Channel> wanted, SortedMap<String,
            float[]> planes) {
        List<String> groups = scene.lights().groups();
        int parts = split.parts() ? LightPart.COUNT : 1, sources = split.sources() ? groups.size() : 1;
        if (wanted.contains(Channel.LIGHTS) && split.sources()) for (int g = 0; g < sources; g++) {
            // Dots part layers in names of channels.
            String plain = groups.get(g).strip().replaceAll("[^A-Za-z0-9_-]+", "_"), name = "light." + plain.substring(0, Math.min(plain.length(), LONGEST));
            String free = name;
            for (int k = 2; planes.containsKey(free + ".R"); k++) free = name + "_" + k;
            three(free, "RGB", sum(f, r, g, sources, parts), planes);
        }
        if (wanted.contains(Channel.PARTS) && split.parts()) for (LightPart p : LightPart.values())
            three(p.word(), "RGB", sum(f, r, p.ordinal() * sources, 1, sources), planes);
    }

    /** The sum of {@code n} planes of a film from one on. */
    private static float[][] sum(Film f, Region r, int first, int step, int n) {
        int pixels = r.width() * r.height();
        float[][] p = {new float[pixels], new float[pixels], new float[pixels]};
        float[] c = new float[3];
        for (int k = 0; k < n; k++)
            for (int i = 0; i < pixels; i++) {
                f.mean(r.x() + i % r.width(), r.y() + i / r.width(), first + k * step, c);
                for (int j = 0; j < 3; j++) p[j][i] += c[j];
            }
        return p;
    }

    private static void hits(FirstHits h, Lens lens, List<Channel> wanted, SortedMap<String, float[]> planes) {
        if (wanted.contains(Channel.DEPTH)) {
            float[] z = h.mean(0, FAR);
            planes.put("Z", z);
            planes.put("depth.Y", fromNearToFar(z));
        }
        if (wanted.contains(Channel.POSITION)) three("P", "XYZ", new float[][] {h.mean(1, 0), h.mean(2, 0), h.mean(3, 0)}, planes);
        if (wanted.contains(Channel.OCCLUSION)) planes.put("occlusion.Y", h.open());
        if (wanted.contains(Channel.SHADOW)) planes.put("shadow.Y", h.lit());
        if (wanted.contains(Channel.UV)) {
            planes.put("uv.X", h.mean(7, 0));
            planes.put("uv.Y", h.mean(8, 0));
        }
        if (!wanted.contains(Channel.NORMAL) && !wanted.contains(Channel.FACING)) return;
        float[][] n = {h.mean(4, 0), h.mean(5, 0), h.mean(6, 0)};
        if (wanted.contains(Channel.NORMAL)) three("N", "XYZ", n, planes);
        if (wanted.contains(Channel.FACING)) three("facing", "XYZ", facing(n, lens), planes);
    }

    private static float[] fromNearToFar(float[] z) {
        float near = FAR, far = 0;
        for (float v : z) if (v < FAR) {
            near = Math.min(near, v);
            far = Math.max(far, v);
        }
        float[] out = new float[z.length];
        for (int i = 0; i < z.length; i++) out[i] = z[i] >= FAR ? 1 : far > near ? (z[i] - near) / (far - near) : 0;
        return out;
    }

    /** Normals along the camera's right, its up, and back to it. */
    private static float[][] facing(float[][] n, Lens lens) {
        float[][] out = new float[3][n[0].length];
        float[] v = new float[3];
        for (int i = 0; i < n[0].length; i++) {
            lens.facing(n[0][i], n[1][i], n[2][i], v);
            for (int c = 0; c < 3; c++) out[c][i] = v[c];
        }
        return out;
    }

    private static void mattes(Channel c, FirstHits h, int n, SortedMap<String, float[]> planes, Map<String, String> notes) {
        FirstHits.Kind k = MATTES.get(c);
        String name = k.name().charAt(0) + k.name().substring(1).toLowerCase(Locale.ROOT);
        IdMatte.add("Crypto" + name, h.names(k), n, FirstHits.SHARES, new IdMatte.Shares() {
            @Override
            public int thing(int pixel, int rank) {
                return h.thing(k, pixel, rank);
            }

            @Override
            public float share(int pixel, int rank) {
                return h.share(k, pixel, rank);
            }
        }, planes, notes);
    }

    private static void three(String layer, String names, float[][] p, SortedMap<String, float[]> planes) {
        for (int c = 0; c < 3; c++) planes.put(layer + "." + names.charAt(c), p[c]);
    }
}
