package bake.studio.render;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Seen;
import bake.core.meters.FirstHits;
import bake.core.path.LightPart;
import bake.formats.FormatException;
import bake.formats.picture.IdMatte;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;

/** Planes of what a file holds beside the picture. */
final class ExtraChannels {
    /** Depth of nothing, metres, as compositors take it for far away. */
    private static final float FAR = 1e10f;
    /** Names of channels have 31 letters at most. */
    private static final int LONGEST = 18;

    private ExtraChannels() {}

    /**
     * Checks that a picture has room for them.
     *
     * @throws FormatException when it would not fit into the memory as a whole
     */
    static void check(RenderJob.Order o, List<Channel> wanted, int groups) throws FormatException {
        if (wanted.isEmpty()) return;
        int floats = 4;
        for (Channel c : wanted) floats += switch (c) {
            case LIGHTS -> 3 * groups;
            case PARTS -> 3 * LightPart.COUNT;
            case CLEAN -> 10;
            case DEPTH, NOISE, SAMPLES, OCCLUSION -> 1;
            case POSITION, NORMAL, COLOUR -> 3;
            case MATERIALS, OBJECTS -> 3 + 2 * FirstHits.SHARES;
        };
        long each = 4L * floats + Film.bytesPerPixel((wanted.contains(Channel.LIGHTS) ? groups : 2) * (wanted.contains(Channel.PARTS)
                ? LightPart.COUNT : 1))
                + (wanted.stream().anyMatch(ExtraChannels::hits) ? FirstHits.BYTES : 0);
        if (each * o.region().width() * o.region().height() > 2 * BandedRender.filmBytes())
            throw new FormatException(o.view(), "channels", "with them a picture of " + o.width() + "x" + o.height()
                    + " does not fit into the memory; make it smaller, or leave some out");
    }

    /** Whether a channel comes from looks of its own. */
    private static boolean hits(Channel c) {
        return switch (c) {
            case DEPTH, POSITION, NORMAL, OCCLUSION, MATERIALS, OBJECTS -> true;
            default -> false;
        };
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
        if (wanted.stream().anyMatch(ExtraChannels::hits))
            hits(FirstHits.of(job.scene(), o.camera(), RenderJob.paths(o.preset(), o.seed()).filter(), o.width(), o.height(), r, o.seed(),
                wanted.contains(Channel.OCCLUSION) ? (float) RenderJob.occlusion(o.preset()).metres() : 0, job.workers(), () -> false),
                        wanted, n, planes, notes);
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

    private static void hits(FirstHits h, List<Channel> wanted, int n, SortedMap<String, float[]> planes, Map<String, String> notes) {
        if (wanted.contains(Channel.DEPTH)) planes.put("Z", h.mean(0, FAR));
        if (wanted.contains(Channel.POSITION)) three("P", "XYZ", new float[][] {h.mean(1, 0), h.mean(2, 0), h.mean(3, 0)}, planes);
        if (wanted.contains(Channel.OCCLUSION)) planes.put("occlusion.Y", h.open());
        if (wanted.contains(Channel.NORMAL)) three("N", "XYZ", new float[][] {h.mean(4, 0), h.mean(5, 0), h.mean(6, 0)}, planes);
        if (wanted.contains(Channel.MATERIALS)) mattes("CryptoMaterial", h, FirstHits.Kind.MATERIAL, n, planes, notes);
        if (wanted.contains(Channel.OBJECTS)) mattes("CryptoObject", h, FirstHits.Kind.OBJECT, n, planes, notes);
    }

    private static void mattes(String set, FirstHits h, FirstHits.Kind k, int n, SortedMap<String, float[]> planes, Map<String,
            String> notes) {
        IdMatte.add(set, h.names(k), n, FirstHits.SHARES, new IdMatte.Shares() {
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
