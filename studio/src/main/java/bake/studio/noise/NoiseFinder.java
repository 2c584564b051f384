package bake.studio.noise;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.DeliveredError;
import bake.core.meters.FirstHits;
import bake.core.path.LightPart;
import bake.core.work.Workers;
import bake.formats.project.EffortSpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.noise.NoiseFindings.Cause;
import bake.studio.noise.NoiseFindings.Remedy;
import bake.studio.noise.NoiseFindings.Share;
import bake.studio.render.EngineSettings;
import bake.studio.render.NoiseFall;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;

/**
 * Finds where noise comes from: two quick pictures with other random numbers, whose light is kept apart by source and by its way. What they
 * differ by is noise; the part of each plane in it is its covariance with the whole, so that all parts add up. Pixels are told apart by the
 * material that they show alone, or as edges. The worst causes are then tried with more paths.
 */
public final class NoiseFinder {
    /**
     * Pixels across, at least and at most. Pictures are as large as the proofs that they are to tell of: at a third of the size twice as
     * many pixels show more than one thing, and edges get the blame.
     */
    private static final int LEAST = 200, MOST = 640, PASSES = 2;
    private static final int TRIED = 3, MOST_PATHS = 16;
    /** Share of a pixel that one material has to fill to stand for it; share of noise below which a cause is not worth a remedy. */
    private static final double ALONE = 0.97, WORTH = 0.06;
    /** A stray pixel is off by so many times what is usual around it, and by such a share of white, were there that many passes. */
    private static final float FIREFLY = 8, STRAY = 0.25f;
    private static final double AMONG = 8;

    private final SceneAssembly assembly;
    private final Workers workers;
    private final BooleanSupplier stop;
    private RenderScene compiled;

    /** @param stop gives up */
    public NoiseFinder(SceneAssembly assembly, Workers workers, BooleanSupplier stop) {
        this.assembly = assembly;
        this.workers = workers;
        this.stop = stop;
    }

    /** @return null when it was stopped */
    public NoiseFindings find(Project project, View v, Preset preset, DoubleConsumer done) throws IOException {
        int own = preset.width() > 0 ? preset.width() : v.size()[0], w = Math.clamp(own, LEAST, MOST),
                h = Math.max(8, w * v.size()[1] / v.size()[0]);
        Preset p = preset.withLimits(0, 0, PASSES).withAdaptive(null);
        RenderJob a = job(project, v, p, w, h, 1, null, Film.Split.BOTH);
        if (a == null) return null;
        done.accept(0.35);
        RenderJob b = job(project, v, p, w, h, 2, a, Film.Split.BOTH);
        if (b == null) return null;
        done.accept(0.55);
        Found f = new Found(a, b, w, h, FirstHits.of(compiled, v.camera().camera(), EngineSettings.paths(p, 1).filter(), w, h, Region.all(w,
                h), 1, new FirstHits.Asked(EnumSet.of(FirstHits.Kind.MATERIAL), 0, false), workers, stop));
        // Remedies are judged beside a picture that knows as much, with the same random numbers.
        RenderJob same = job(project, v, p, w, h, 1, a, Film.Split.NONE);
        if (same == null) return null;
        double noise = noise(same, p), pass = same.phases().passes() / PASSES;
        List<Remedy> tried = new ArrayList<>();
        for (Cause c : f.causes) {
            if (tried.size() == TRIED || c.share() < WORTH) break;
            int paths = paths(project, p, c);
            // Of what lies behind nothing is asked but its edges.
            if (paths == 0 || !c.edges() && compiled.scene().materials().stream().noneMatch(m -> m.name().equals(c.material()))) continue;
            Project other = c.edges() ? project : with(project, c.material(), paths);
            RenderJob t = job(other, v, c.edges() ? p.withEdges(paths) : p, w, h, 1, a, Film.Split.NONE);
            if (t == null) return null;
            tried.add(new Remedy(c, paths, noise(t, p), t.phases().passes() / PASSES / pass));
            done.accept(0.55 + 0.15 * tried.size());
        }
        return new NoiseFindings(noise, p.denoise() ? NoiseFall.DENOISED : NoiseFall.ROOT, f.causes, f.sources,
                f.ways, f.fireflies, a.clampedShare(), tried, w, h, f.map);
    }

    /** What is wrong with the picture as it would be delivered; of one that is not denoised, its noise. NaN where that cannot be told. */
    private static double noise(RenderJob j, Preset p) {
        DeliveredError e = j.delivered();
        if (p.denoise()) return e == null ? Double.NaN : e.percent();
        return j.finish().noise(j.film(), j.order().region());
    }

    /** Four times as many paths as there are now; 0 where there are as many as can be. */
    private static int paths(Project project, Preset p, Cause c) {
        int now = c.edges() ? p.edges() == null ? 1 : p.edges() : project.efforts().stream().filter(e -> e.of().equals("material")
                && e.name().equals(c.material()) && e.samples() != null).mapToInt(EffortSpec::samples).findFirst().orElse(1);
        return now >= MOST_PATHS ? 0 : Math.min(MOST_PATHS, 4 * now);
    }

    /** The project with more paths for a material. */
    public static Project with(Project project, String material, int paths) {
        List<EffortSpec> all = new ArrayList<>(project.efforts());
        int at = -1;
        for (int i = 0; i < all.size(); i++) if (all.get(i).of().equals("material") && all.get(i).name().equals(material)) at = i;
        EffortSpec e = (at < 0 ? new EffortSpec("material", material) : all.get(at)).withSamples(paths);
        if (at < 0) all.add(e);
        else all.set(at, e);
        return project.withEfforts(List.copyOf(all));
    }

    private RenderJob job(Project project, View v, Preset p, int w, int h, long seed, RenderJob known, Film.Split split)
            throws IOException {
        if (stop.getAsBoolean()) return null;
        synchronized (assembly) {
            compiled = RenderScene.compile(assembly.scene(project, v), compiled, Workers.COMPILING, HierarchyCache.shared());
        }
        RenderJob j = new RenderJob(compiled, new RenderJob.Order(v.name(), v.camera().camera(), v.look(), p, w, h, null, seed, split),
                workers);
        if (known != null) j.knowing(known);
        j.run(g -> {
            if (stop.getAsBoolean()) j.stop();
        });
        return stop.getAsBoolean() || j.progress().passes() < PASSES ? null : j;
    }

    /** What the difference of two pictures says. */
    private static final class Found {
        final List<Cause> causes = new ArrayList<>();
        final List<Share> sources = new ArrayList<>(), ways = new ArrayList<>();
        final float[] map;
        int fireflies;

        Found(RenderJob a, RenderJob b, int w, int h, FirstHits hits) {
            List<String> groups = a.scene().lights().groups();
            int n = groups.size(), parts = LightPart.COUNT;
            List<String> materials = new ArrayList<>(hits == null ? List.of() : hits.names(FirstHits.Kind.MATERIAL));
            int nothing = materials.size();
            materials.add("surroundings");
            double[] byGroup = new double[n], byPart = new double[parts], area = new double[materials.size() + 1];
            double[][] byMaterial = new double[materials.size() + 1][parts];
            float[] x = new float[3], y = new float[3];
            double[] plane = new double[n * parts];
            map = new float[w * h];
            float[] stray = new float[w * h];
            double total = 0;
            for (int i = 0; i < w * h; i++) {
                int px = i % w, py = i / w;
                a.film().mean(px, py, null, x);
                b.film().mean(px, py, null, y);
                double lx = luminance(x), ly = luminance(y), whole = 0;
                for (int k = 0; k < plane.length; k++) {
                    a.film().mean(px, py, k, x);
                    b.film().mean(px, py, k, y);
                    plane[k] = luminance(x) - luminance(y);
                    whole += plane[k];
                }
                double s = a.finish().displayed(ly + whole) - a.finish().displayed(ly);
                total += s * s;
                map[i] = (float) Math.abs(s);
                float most = hits == null ? 0 : hits.share(FirstHits.Kind.MATERIAL, i, 0);
                int m = most == 0 ? nothing : most < ALONE ? materials.size() : hits.thing(FirstHits.Kind.MATERIAL, i, 0);
                double low = Math.min(lx, ly);
                // Where things end colours differ by as much without any stray light.
                if (m != materials.size())
                    stray[i] = (float) (a.finish().displayed(low + Math.abs(lx - ly) * PASSES / AMONG) - a.finish().displayed(low));
                area[m] += 1.0 / (w * h);
                for (int k = 0; k < plane.length; k++) {
                    double c = whole == 0 ? 0 : s * s * plane[k] / whole;
                    byPart[k / n] += c;
                    byGroup[k % n] += c;
                    byMaterial[m][k / n] += c;
                }
            }
            if (!(total > 0)) return;
            for (int g = 0; g < n; g++) if (byGroup[g] != 0) sources.add(new Share(groups.get(g), byGroup[g] / total));
            for (LightPart p : LightPart.values()) ways.add(new Share(p.word(), byPart[p.ordinal()] / total));
            for (int m = 0; m < materials.size(); m++) {
                double[] ways = byMaterial[m];
                LightPart most = Arrays.stream(LightPart.values()).max(Comparator.comparingDouble(q -> ways[q.ordinal()])).orElseThrow();
                double share = Arrays.stream(ways).sum();
                if (share != 0) causes.add(new Cause(materials.get(m), most, share / total, area[m]));
            }
            causes.add(new Cause(null, null, Arrays.stream(byMaterial[materials.size()]).sum() / total, area[materials.size()]));
            causes.sort(Comparator.comparingDouble(Cause::share).reversed());
            sources.sort(Comparator.comparingDouble(Share::share).reversed());
            fireflies = fireflies(stray, w, h);
            double mean = Math.sqrt(total / (w * h));
            for (int i = 0; i < map.length; i++) map[i] /= (float) mean;
        }

        private static double luminance(float[] c) {
            return 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
        }

        /** Pixels far beyond the median of those around them. */
        private static int fireflies(float[] map, int w, int h) {
            int count = 0;
            float[] near = new float[25];
            for (int y = 2; y < h - 2; y++)
                for (int x = 2; x < w - 2; x++) {
                    for (int k = 0; k < 25; k++) near[k] = map[(y + k / 5 - 2) * w + x + k % 5 - 2];
                    float own = near[12];
                    Arrays.sort(near);
                    if (own > FIREFLY * near[12] && own > STRAY) count++;
                }
            return count;
        }
    }
}
