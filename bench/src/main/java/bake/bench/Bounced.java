package bake.bench;

import bake.core.denoise.Denoiser;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.path.BounceSettings;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.work.Workers;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;

/**
 * Error against time of the ways to compute bounced light, against references that {@link Reference} made.
 *
 * <pre>bake bench bounced FOLDER WIDTH SECONDS WAY[,WAY...] [SCENE...]</pre>
 *
 * Ways: traced, plain (traced, bounces not exchanged), later (radiance cache for later bounces), both (and irradiance cache for the first),
 * sky (and the surroundings in it), photons (photon map gathered by records), gather (records gathered with path tracing), direct (photon
 * map seen as it is). With the properties "crop" (x,y,width,height) of a large picture, "clamp", "rays" of a record, "near" field,
 * "photons", "seed", "pictures" (a folder). Errors are of the displayed picture, in percent of white: pixel by pixel, in means of 8 x 8,
 * and pixel by pixel after denoising. Then the mean luminance over the reference's, and the share of blocks of 16 x 16 within 3 %.
 */
public final class Bounced {
    private Bounced() {}

    public static void main(String[] args) throws Exception {
        Path folder = Path.of(args[0]);
        int width = Integer.parseInt(args[1]);
        double seconds = Double.parseDouble(args[2]);
        List<String> names = args.length > 4 ? List.of(args).subList(4, args.length) : BenchScene.NAMES;
        try (Workers workers = new Workers(2)) {
            for (String n : names) {
                BenchScene s = BenchScene.of(n);
                Judge judge = new Judge(Reference.read(Reference.file(folder, s.name(), width)), s.camera());
                System.out.printf(Locale.ROOT, "%s, reference %.2f %%%n", s.name(), 100 * judge.noise());
                for (String way : args[3].split(",")) run(s, judge, width, seconds, way, workers);
            }
        }
        System.exit(0);
    }

    private static String caches(bake.core.solve.Caches c) {
        return (c.cells() == null ? "" : String.format(Locale.ROOT, "   %d cells, %.0f MB", c.cells().cells(), c.cells().bytes() / 1e6))
                + (c.records() == null ? "" : String.format(Locale.ROOT, "   %d records, %.0f MB", c.records().records(),
                c.records().bytes() / 1e6));
    }

    static PathSettings settings(String way, long seed) {
        PathSettings p = new PathSettings(64, Double.parseDouble(System.getProperty("clamp", "20")), seed);
        return switch (way) {
            case "traced" -> p;
            case "plain" -> p.withExchange(false);
            case "later" -> p.withBounced(cached(BounceSettings.First.PATH_TRACING, BounceSettings.Later.RADIANCE_CACHE));
            case "sky" -> p.withBounced(cached(BounceSettings.First.IRRADIANCE_CACHE, BounceSettings.Later.RADIANCE_CACHE)
                    .withSurroundings(true));
            case "both" -> p.withBounced(cached(BounceSettings.First.IRRADIANCE_CACHE, BounceSettings.Later.RADIANCE_CACHE));
            case "photons" -> p.withBounced(cached(BounceSettings.First.IRRADIANCE_CACHE, BounceSettings.Later.PHOTON_MAP));
            case "gather" -> p.withBounced(cached(BounceSettings.First.IRRADIANCE_CACHE, BounceSettings.Later.PATH_TRACING));
            case "direct" -> p.withBounced(cached(BounceSettings.First.PHOTON_MAP, BounceSettings.Later.PHOTON_MAP));
            default -> throw new IllegalArgumentException("no way " + way);
        };
    }

    private static BounceSettings cached(BounceSettings.First first, BounceSettings.Later later) {
        return new BounceSettings(first, later).withRays(Integer.getInteger("rays", 288))
                .withNearField(Double.parseDouble(System.getProperty("near", "0")))
                .withPhotons(Integer.getInteger("photons", BounceSettings.PHOTONS));
    }

    private static void picture(BenchScene s, Film f, Judge judge, String way) throws java.io.IOException {
        String folder = System.getProperty("pictures");
        if (folder == null) return;
        float[] rgb = Reference.pixels(f);
        write(new bake.core.finish.Finish(s.camera().saturation(), bake.core.finish.Look.PLAIN).argb(rgb, bake.core.finish.Place.whole(f.width(), f.height()), null), f, folder, s.name() + " " + way);
        write(judge.differencePicture(rgb), f, folder, s.name() + " " + way + " difference");
    }

    private static void write(int[] argb, Film f, String folder, String name) throws java.io.IOException {
        Region r = f.kept();
        var image = new java.awt.image.BufferedImage(r.width(), r.height(), java.awt.image.BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, r.width(), r.height(), argb, 0, r.width());
        javax.imageio.ImageIO.write(image, "png", Path.of(folder, name.replaceAll("\\W+", "-") + ".png").toFile());
    }

    private static void run(BenchScene s, Judge judge, int width, double seconds, String way, Workers workers) throws java.io.IOException {
        Film warm = s.film(width);
        Renderer w = new Renderer(s.scene(), s.camera(), settings(way, 99), warm, warm.kept(), workers);
        // A cropped picture's prepass is that of the whole, and long enough to warm up in.
        if (System.getProperty("crop") == null) for (int k = 0; k < 4; k++) w.pass(k, workers, () -> false);
        Film f = s.film(width);
        Renderer r = new Renderer(s.scene(), s.camera(), settings(way, Long.getLong("seed", 1)), f, f.kept(), workers);
        double used = 0, next = 0.5, prepass = 0;
        for (int pass = 0; used < seconds; pass++) {
            long t = System.nanoTime();
            r.prepare(pass, workers, () -> false, share -> {});
            prepass += (System.nanoTime() - t) / 1e9;
            r.pass(pass, workers, () -> false);
            used += (System.nanoTime() - t) / 1e9;
            if (used < next) continue;
            next = Math.max(used, 2 * next);
            float[] rgb = Reference.pixels(f), clean = Denoiser.run(f, null, f.kept(), s.camera().saturation());
            System.out.printf(Locale.ROOT, "  %-8s %7.2f s (%.1f before passes) %5d passes %6.2f   %6.2f  %6.2f  %6.2f   mean %.4f  blocks %3.0f %%   %.1f rays a path%s%n", way, used, prepass, pass + 1, new bake.core.finish.Finish(s.camera().saturation(), bake.core.finish.Look.PLAIN).noise(f, f.kept()), 100 * judge.error(rgb, 1), 100 * judge.error(rgb, 8), 100 * judge.error(clean, 1),
                    judge.mean(rgb), 100 * judge.within(rgb, 16, 0.03), r.rays() / (double) f.samples(), caches(r.caches()));
        }
        picture(s, f, judge, way);
    }
}
