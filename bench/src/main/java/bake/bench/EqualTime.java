package bake.bench;

import java.io.File;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * Variance at equal time of this engine against one of another checkout, built beside it. Both run in turns in one Java,
 * pass by pass, whichever has used less time so far, so that both meet the same hours of a shared machine.
 *
 * <pre>bake bench equal-time OTHER_CHECKOUT [SECONDS [WIDTH [VIEW...]]]</pre>
 *
 * Each engine makes two pictures with different seeds, A and B; half the mean of ((A - B) / M)^2 over pixels, where M is the
 * mean of all four pictures with a floor of a twentieth of its own mean under it, is the relative variance of one. The second figure is
 * that of the displayed picture: half the mean squared difference after the tone curve, which counts no firefly for more
 * than white.
 */
public final class EqualTime {
    private EqualTime() {}

    public static void main(String[] args) throws Exception {
        Path other = Path.of(args[0]);
        double seconds = args.length > 1 ? Double.parseDouble(args[1]) : 20;
        int width = args.length > 2 ? Integer.parseInt(args[2]) : 240;
        String own = System.getProperty("java.class.path");
        String bench = Stream.of(own.split(File.pathSeparator)).filter(p -> p.contains("bench")).findFirst().orElseThrow();
        List<String> theirs = new ArrayList<>(List.of(bench));
        for (String module : List.of("core", "formats", "demo", "studio"))
            theirs.add(other + "/" + module + "/target/" + module + "-0.1.0.jar");
        for (String p : own.split(File.pathSeparator)) if (!p.matches(".*/(core|formats|demo|studio|bench)-0\\.1\\.0\\.jar")) theirs.add(p);
        for (String p : theirs) if (!Files.exists(Path.of(p)))
            throw new IllegalArgumentException(p + " is missing: build " + other + " first");
        ClassLoader now = loader(List.of(own.split(File.pathSeparator))), then = loader(theirs);
        List<String> views = List.of(args).subList(Math.min(3, args.length), args.length);
        if (views.isEmpty()) views = List.of(((String) engine(now, "", 0, 0).apply("views")).split("\n"));
        System.out.printf("%-24s %23s %31s %31s%n", "view", "passes other/this", "relative variance other/this", "displayed other/this");
        for (String v : views) compare(v, then, now, width, seconds);
        System.exit(0);
    }

    private static ClassLoader loader(List<String> paths) throws Exception {
        URL[] urls = new URL[paths.size()];
        for (int i = 0; i < urls.length; i++) urls[i] = Path.of(paths.get(i)).toUri().toURL();
        return new URLClassLoader(urls, ClassLoader.getPlatformClassLoader());
    }

    @SuppressWarnings("unchecked")
    private static Function<String, Object> engine(ClassLoader l, String view, int width, long seed) throws Exception {
        return (Function<String, Object>) l.loadClass("bake.bench.EqualTimeEngine").getConstructor(String.class, int.class, long.class)
                .newInstance(view, width, seed);
    }

    private static void compare(String view, ClassLoader then, ClassLoader now, int width, double seconds) throws Exception {
        List<Function<String, Object>> e = List.of(engine(then, view, width, 1), engine(now, view, width, 1), engine(then, view, width, 2),
                engine(now, view, width, 2));
        for (var x : e) for (int k = 0; k < 6; k++) x.apply("warm");
        double[] used = new double[4];
        int[] passes = new int[4];
        while (true) {
            int next = 0;
            for (int k = 1; k < 4; k++) if (used[k] < used[next]) next = k;
            if (used[next] >= seconds) break;
            used[next] += (double) e.get(next).apply("pass");
            passes[next]++;
        }
        float[][] a = new float[4][], d = new float[4][];
        for (int k = 0; k < 4; k++) {
            a[k] = (float[]) e.get(k).apply("luminance");
            d[k] = (float[]) e.get(k).apply("displayed");
        }
        float[] all = new float[a[0].length];
        for (float[] one : a) for (int i = 0; i < all.length; i++) all[i] += one[i] / 4;
        double r0 = relative(a[0], a[2], all), r1 = relative(a[1], a[3], all), s0 = displayed(d[0], d[2]), s1 = displayed(d[1], d[3]);
        System.out.printf(Locale.ROOT, "%-24s %8d %8d %5.2f %12.5f %12.5f %5.2f %12.6f %12.6f %5.2f   means %.4f %.4f%n", view,
                passes[0] + passes[2], passes[1] + passes[3],
                (passes[1] + passes[3]) / (double) (passes[0] + passes[2]), r0, r1, r0 / r1, s0, s1, s0 / s1, mean(d[0], d[2]),
                mean(d[1], d[3]));
    }

    private static double mean(float[] a, float[] b) {
        double s = 0;
        for (int i = 0; i < a.length; i++) s += a[i] + b[i];
        return s / (2 * a.length);
    }

    private static double relative(float[] a, float[] b, float[] all) {
        double floor = 0.05 * mean(all, all), sum = 0;
        for (int i = 0; i < a.length; i++) sum += Math.pow((a[i] - b[i]) / (all[i] + floor), 2) / 2;
        return sum / a.length;
    }

    private static double displayed(float[] a, float[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) sum += Math.pow(a[i] - b[i], 2) / 2;
        return sum / a.length;
    }
}
