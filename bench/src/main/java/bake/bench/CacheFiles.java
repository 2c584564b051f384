package bake.bench;

import bake.core.cache.IrradianceCache;
import bake.core.cache.RecordSamples;
import bake.core.film.Film;
import bake.core.math.Vec3;
import bake.core.path.BounceSettings;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.solve.Caches;
import bake.core.work.Workers;
import bake.formats.light.CacheFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;

/**
 * How long a million irradiance records take to load and how much memory they hold, and what a second view of a room saves by the caches of
 * the first.
 *
 * <pre>bake bench cache-files [WIDTH]</pre>
 */
public final class CacheFiles {
    private CacheFiles() {}

    public static void main(String[] args) throws Exception {
        for (int groups : new int[] {3, 12}) million(groups);
        int width = args.length > 0 ? Integer.parseInt(args[0]) : 480;
        BenchScene first = BenchScene.of("Reading room, morning");
        try (Workers workers = new Workers(2)) {
            prepass(first, first, Caches.NONE, 160, workers);
            // The second camera is in the same light: the first view's, a step to the side and turned.
            var c = first.camera();
            BenchScene aside = new BenchScene("aside", first.scene(), c.at(c.position().plus(new Vec3(0.6, 0.4, 0)),
                    c.target().plus(new Vec3(-1, 0, 0))), first.aspect());
            Renderer[] made = new Renderer[1];
            double one = prepass(first, first, Caches.NONE, width, workers, made);
            double alone = prepass(aside, aside, Caches.NONE, width, workers),
                    kept = prepass(aside, aside, made[0].caches(), width, workers);
            System.out.printf(Locale.ROOT, "first view %.1f s before its first pass; a second one %.1f s alone and %.1f s with the caches of the first: %.0f %%%n", one, alone, kept, 100 * kept / alone);
        }
        System.exit(0);
    }

    private static double prepass(BenchScene s, BenchScene view, Caches from, int width, Workers workers) {
        return prepass(s, view, from, width, workers, new Renderer[1]);
    }

    private static double prepass(BenchScene s, BenchScene view, Caches from, int width, Workers workers, Renderer[] made) {
        BounceSettings both = new BounceSettings(BounceSettings.First.IRRADIANCE_CACHE, BounceSettings.Later.RADIANCE_CACHE)
                .withSurroundings(true);
        Film f = view.film(width);
        Renderer r = made[0] = new Renderer(s.scene(), view.camera(), new PathSettings(16, 20, 1).withBounced(both), f, f.kept(), workers);
        if (!from.empty()) r.begin(from);
        long t = System.nanoTime();
        r.prepare(0, workers, () -> false, share -> {});
        return (System.nanoTime() - t) / 1e9;
    }

    private static void million(int groups) throws Exception {
        int n = 1_000_000;
        SplittableRandom random = new SplittableRandom(1);
        RecordSamples s = new RecordSamples(3 * groups);
        float[] light = new float[3 * groups];
        for (int i = 0; i < n; i++) {
            for (int c = 0; c < light.length; c++) light[c] = (float) random.nextDouble(100);
            // Floors of a large building, about as dense as those of a picture.
            s.add((float) random.nextDouble(40), (float) random.nextDouble(40), 3 * random.nextInt(4), 0, 0, 1,
                    (float) random.nextDouble(0.03, 0.12), new float[6], light);
        }
        IrradianceCache c = new IrradianceCache(3 * groups);
        c.merge(new RecordSamples[] {s});
        Path file = Files.createTempDirectory("bake-bench").resolve("a.cache");
        CacheFile.write(file, c, Map.of());
        double best = Double.POSITIVE_INFINITY;
        long bytes = 0;
        for (int k = 0; k < 4; k++) {
            long t = System.nanoTime();
            bytes = CacheFile.read(file).records().bytes();
            best = Math.min(best, (System.nanoTime() - t) / 1e9);
        }
        System.out.printf(Locale.ROOT, "%,d records of %d source groups: %.0f MB on disk, read in %.2f s, %.0f bytes of memory a record%n",
                n, groups, Files.size(file) / 1e6, best, bytes / (double) n);
        Files.delete(file);
    }
}
