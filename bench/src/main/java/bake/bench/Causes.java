package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.path.LightPart;
import bake.core.work.Workers;
import bake.demo.DemoProject;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.noise.NoiseFinder;
import bake.studio.noise.NoiseFindings;
import bake.studio.preset.Presets;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Whether what is said of a view's noise is so: shares by source and by way against those that many pictures with other random numbers
 * have, and what remedies gain against what they gain in the proofs that they are for.
 *
 * <p>{@code ./bake bench causes PICTURES [PROJECT#VIEW]...} (default: five views of the demo). A part alone is the picture with all
 * others as they are in the mean of all pictures.
 */
public final class Causes {
    private static final int WIDTH = 640, PASSES = 3;

    private Causes() {}

    public static void main(String[] args) throws Exception {
        int pictures = Integer.parseInt(args[0]);
        List<String> views = new ArrayList<>(List.of(args).subList(1, args.length));
        if (views.isEmpty()) views.addAll(List.of("demo#Reading room, morning", "demo#Reading room, evening", "demo#Study nook",
                "demo#Court, noon", "demo#Entrance, dusk"));
        try (Workers workers = new Workers(Runtime.getRuntime().availableProcessors())) {
            for (String s : views) view(s, pictures, workers);
        }
    }

    private static void view(String which, int pictures, Workers workers) throws Exception {
        String[] part = which.split("#", 2);
        Path file = part[0].equals("demo") ? DemoProject.ensure(DemoProject.home(), LocalDate.now()) : ProjectFile.locate(Path.of(part[0]));
        Project p = ProjectFile.read(file);
        View v = part.length < 2 ? p.currentView() : p.view(part[1]);
        Preset q = Presets.suiting(p, v, false);
        Project seen = Presets.seen(p, q);
        SceneAssembly assembly = new SceneAssembly(file.getParent());
        long begin = System.nanoTime();
        NoiseFindings f = new NoiseFinder(assembly, workers, () -> false).find(seen, v, q, d -> { });
        System.out.printf(Locale.ROOT, "%s: found in %.0f s, noise %.2f %%, %d stray pixels%n", v.name(), (System.nanoTime() - begin) / 1e9,
                f.noise(), f.fireflies());
        for (NoiseFindings.Cause c : f.causes().subList(0, Math.min(5, f.causes().size())))
            System.out.printf(Locale.ROOT, "  cause %s %s %.1f %% of %.1f %% of the picture%n", c.material(), c.way(), 100 * c.share(),
                    100 * c.area());
        shares(assembly, seen, v, q, f, pictures, workers);
        gains(assembly, seen, v, q, f, workers);
    }

    private static RenderJob job(SceneAssembly assembly, Project p, View v, Preset q, int width, long seed, RenderJob known,
            Film.Split split, Workers workers) throws Exception {
        int height = Math.max(8, width * v.size()[1] / v.size()[0]);
        RenderScene scene = RenderScene.compile(assembly.scene(p, v), null, Workers.COMPILING, HierarchyCache.shared());
        RenderJob j = new RenderJob(scene, new RenderJob.Order(v.name(), v.camera().camera(), v.look(), q, width, height, null, seed,
                split), workers);
        if (known != null) j.knowing(known);
        j.run(g -> { });
        return j;
    }

    /** Prints, for each source and way: share said, share among many pictures, and share of the part alone. */
    private static void shares(SceneAssembly assembly, Project p, View v, Preset q, NoiseFindings f, int pictures, Workers workers)
            throws Exception {
        Preset small = q.withLimits(0, 0, PASSES).withDenoise(false).withAdaptive(null);
        List<float[][]> films = new ArrayList<>();
        RenderJob first = null;
        for (int s = 0; s < pictures; s++) {
            RenderJob j = job(assembly, p, v, small, WIDTH, 100 + s, first, Film.Split.BOTH, workers);
            if (first == null) first = j;
            films.add(planes(j));
        }
        List<String> groups = first.scene().lights().groups();
        int n = groups.size(), planes = n * LightPart.COUNT, pixels = films.getFirst()[0].length;
        double[] with = new double[planes], groupAlone = new double[n], partAlone = new double[LightPart.COUNT];
        double all = 0;
        for (int i = 0; i < pixels; i++) {
            double[] mean = new double[planes];
            double level = 0;
            for (float[][] one : films) for (int k = 0; k < planes; k++) mean[k] += one[k][i] / films.size();
            for (double m : mean) level += m;
            double shown = first.finish().displayed(level);
            for (float[][] one : films) {
                double whole = 0;
                double[] byGroup = new double[n], byPart = new double[LightPart.COUNT];
                for (int k = 0; k < planes; k++) {
                    double d = one[k][i] - mean[k];
                    whole += d;
                    byGroup[k % n] += d;
                    byPart[k / n] += d;
                }
                double slope = whole == 0 ? 0 : (first.finish().displayed(level + whole) - shown) / whole, w = slope * slope;
                all += w * whole * whole;
                for (int k = 0; k < planes; k++) with[k] += w * (one[k][i] - mean[k]) * whole;
                for (int k = 0; k < n; k++) groupAlone[k] += w * byGroup[k] * byGroup[k];
                for (int k = 0; k < LightPart.COUNT; k++) partAlone[k] += w * byPart[k] * byPart[k];
            }
        }
        double worst = 0;
        for (int g = 0; g < n; g++) {
            double share = 0;
            for (int k = g; k < planes; k += n) share += with[k] / all;
            worst = Math.max(worst, say(groups.get(g), f.sources(), share, groupAlone[g] / sum(groupAlone)));
        }
        for (LightPart part : LightPart.values()) {
            double share = 0;
            for (int k = 0; k < n; k++) share += with[part.ordinal() * n + k] / all;
            worst = Math.max(worst, say(part.word(), f.ways(), share, partAlone[part.ordinal()] / sum(partAlone)));
        }
        System.out.printf(Locale.ROOT, "  worst difference of a share %.1f points%n", 100 * worst);
    }

    private static double say(String name, List<NoiseFindings.Share> said, double share, double alone) {
        double s = said.stream().filter(x -> x.name().equals(name)).mapToDouble(NoiseFindings.Share::share).findFirst().orElse(0);
        if (Math.max(s, Math.max(share, alone)) > 0.01)
            System.out.printf(Locale.ROOT, "  %s: said %.1f %%, many pictures %.1f %%, alone %.1f %%%n", name, 100 * s, 100 * share,
                    100 * alone);
        return Math.max(Math.abs(s - share), Math.abs(s - alone));
    }

    private static double sum(double[] a) {
        double s = 0;
        for (double x : a) s += x;
        return s;
    }

    private static float[][] planes(RenderJob j) {
        Film f = j.film();
        int n = j.scene().lights().groups().size() * LightPart.COUNT, w = j.order().width(), h = j.order().height();
        float[][] out = new float[n][w * h];
        float[] c = new float[3];
        for (int k = 0; k < n; k++) for (int i = 0; i < w * h; i++) {
            f.mean(i % w, i / w, k, c);
            out[k][i] = 0.2126f * c[0] + 0.7152f * c[1] + 0.0722f * c[2];
        }
        return out;
    }

    private static double delivered(RenderJob j) {
        return j.delivered() == null ? Double.NaN : j.delivered().percent();
    }

    /** Prints what each remedy is said to gain, and what it gains in a proof of the preset's own size. */
    private static void gains(SceneAssembly assembly, Project p, View v, Preset q, NoiseFindings f, Workers workers) throws Exception {
        Preset proof = q.withLimits(0, 0, PASSES);
        RenderJob first = job(assembly, p, v, proof, WIDTH, 1, null, Film.Split.NONE, workers);
        // The first one has learnt during its passes: what helps is judged beside one that knows as much.
        RenderJob before = job(assembly, p, v, proof, WIDTH, 1, first, Film.Split.NONE, workers);
        for (NoiseFindings.Remedy r : f.remedies()) {
            Project with = r.against().edges() ? p : NoiseFinder.with(p, r.against().material(), r.paths());
            RenderJob j = job(assembly, with, v, r.against().edges() ? proof.withEdges(r.paths()) : proof, WIDTH, 1, first,
                    Film.Split.NONE, workers);
            double said = 1 - r.noise() / f.noise(), raw = 1 - j.rawNoise() / before.rawNoise();
            System.out.printf(Locale.ROOT, "  remedy %s %s: said %.2f to %.2f %% (gain %.1f %%), time %.2f; proof %.2f to %.2f %% (gain %.1f %%), "
                    + "time %.2f; of the delivered picture %.2f to %.2f %% (gain %.1f %%)%n", r.against().material(), r.against().way(), f.noise(), r.noise(),
                    100 * said, r.time(), before.rawNoise(), j.rawNoise(), 100 * raw, j.phases().passes() / before.phases().passes(),
                    delivered(before), delivered(j), 100 * (1 - delivered(j) / delivered(before)));
        }
    }
}
