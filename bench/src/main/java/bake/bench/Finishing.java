package bake.bench;

import bake.core.finish.ColourTable;
import bake.core.finish.Finish;
import bake.core.finish.Look;
import bake.core.finish.Place;
import bake.core.finish.Seen;
import bake.core.finish.SplineCurve;
import bake.core.finish.ToneCurve;
import bake.core.work.Workers;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;

/**
 * Milliseconds that finishing takes, step by step and all together: the median of several runs.
 *
 * <pre>bake bench finish</pre>
 */
public final class Finishing {
    private static final int RUNS = 5;

    private Finishing() {}

    public static void main(String[] args) throws Exception {
        Look.Tones t = Look.Tones.NONE;
        Look.Colours c = Look.Colours.NONE;
        Look.Optics o = Look.Optics.NONE;
        Look.Drawing d = Look.Drawing.NONE;
        Look.Tones tones = new Look.Tones(-0.3, 0.2, 0.2, SplineCurve.STRAIGHT.with(0.4, 0.5), SplineCurve.STRAIGHT, SplineCurve.STRAIGHT,
                SplineCurve.STRAIGHT);
        Look.Colours colours = new Look.Colours(0.1, 0.2, List.of(1.1, 1.0, 0.9), List.of(0.0, 0.01, 0.0), List.of(1.0, 1.0, 1.1));
        Map<String, Look> looks = new LinkedHashMap<>();
        looks.put("nothing but the tone curve", look(t, c, o, d, null));
        looks.put("tones, curves and colours", look(tones, colours, o, d, null));
        looks.put("a cube of 33", look(t, c, o, d, cube(33)));
        looks.put("vignette", look(t, c, new Look.Optics(0, 0.2, 0.4, 0, 0, 0, 1), d, null));
        looks.put("glow", look(t, c, new Look.Optics(0.1, 0.2, 0, 0, 0, 0, 1), d, null));
        looks.put("sharpen", look(t, c, new Look.Optics(0, 0.2, 0, 0, 0.5, 0, 1), d, null));
        looks.put("grain", look(t, c, new Look.Optics(0, 0.2, 0, 0, 0, 0.3, 1.5), d, null));
        looks.put("fringe", look(t, c, new Look.Optics(0, 0.2, 0, 1, 0, 0, 1), d, null));
        looks.put("outline", look(t, c, o, new Look.Drawing(1, 1.5, 0.3, 0, 6), null));
        looks.put("wash", look(t, c, o, new Look.Drawing(0, 1.5, 0, 1, 6), null));
        looks.put("all steps", look(tones, colours, new Look.Optics(0.1, 0.2, 0.4, 1, 0.5, 0.3, 1.5), new Look.Drawing(1, 1.5, 0.3, 1, 6), cube(33)));
        int[][] sizes = {{1920, 1080}, {3840, 2160}, {3508, 2480}};
        System.out.printf("%-28s %12s %12s %12s%n", "ms", "1920x1080", "3840x2160", "3508x2480/16");
        float[][] light = new float[3][];
        Seen[] seen = new Seen[3];
        for (int i = 0; i < 3; i++) {
            Random r = new Random(i);
            int n = sizes[i][0] * sizes[i][1];
            light[i] = new float[3 * n];
            for (int k = 0; k < light[i].length; k++) light[i][k] = (float) Math.exp(r.nextGaussian());
            float[] v = new float[7 * n];
            for (int k = 0; k < v.length; k++) v[k] = 1 + 0.1f * r.nextFloat();
            seen[i] = new Seen(v, null);
        }
        looks.forEach((name, look) -> {
            Finish f = new Finish(2, look);
            StringBuilder line = new StringBuilder(String.format("%-28s", name));
            for (int i = 0; i < 3; i++) {
                double[] ms = new double[RUNS];
                Place at = Place.whole(sizes[i][0], sizes[i][1]);
                for (int k = 0; k < RUNS; k++) {
                    long start = System.nanoTime();
                    if (i == 2) f.rgb16(light[i], at, seen[i]);
                    else f.argb(light[i], at, seen[i]);
                    ms[k] = (System.nanoTime() - start) / 1e6;
                }
                Arrays.sort(ms);
                line.append(String.format(Locale.ROOT, " %12.0f", ms[RUNS / 2]));
            }
            System.out.println(line);
        });
        shown();
    }

    private static final String ROOM = """
            {"bake": 1, "name": "Room", "materials": [{"name": "wall", "base": [0.7,0.6,0.5], "roughness": 1, "ior": 1}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall"},
                        {"name": "box", "type": "box", "center": [0.2,0,1], "size": [1,1,2], "material": "wall"}],
             "views": [{"name": "One", "camera": {"position": [0,-5,1], "target": [0,0,1], "focal": 24}, "curve": "film", "whiteBalance": 5000,
                        "finish": {"highlights": -0.3, "shadows": 0.2, "contrast": 0.2, "curve": [0,0,0.4,0.5,1,1], "saturation": 0.1, "vibrance": 0.2,
                                   "slope": [1.1,1,0.9], "glow": 0.1, "vignette": 0.4, "fringe": 1, "sharpen": 0.5, "grain": 0.3, "outline": 1,
                                   "wobble": 0.3, "wash": 1, "skyLighten": 0.3}}]}""";

    /** Milliseconds from a change of a finish with all steps to the first picture of it on the easel, and to the whole one. */
    private static void shown() throws Exception {
        Path dir = Files.createTempDirectory("bake-finish");
        Files.writeString(dir.resolve("project.json"), ROOM);
        Project project = ProjectFile.read(dir.resolve("project.json"));
        for (int[] size : new int[][] {{1920, 1080}, {3840, 2160}}) {
            BlockingQueue<LiveRender.Frame> frames = new LinkedBlockingQueue<>();
            try (Workers workers = new Workers(2);
                    LiveRender live = new LiveRender(new SceneAssembly(dir), null, workers, frames::add, Throwable::printStackTrace)) {
                live.patience(2);
                View v = project.views().getFirst();
                live.show(project, v, size[0], size[1]);
                while (frames.take().passes() < 2) Thread.onSpinWait();
                double[] first = new double[3 * RUNS], whole = new double[3 * RUNS];
                for (int k = 0; k < first.length; k++) {
                    Thread.sleep(50);
                    frames.clear();
                    v = v.withFinish(v.finish().withLighten(0.01 * (k + 1)));
                    long asked = System.nanoTime();
                    live.show(project, v, size[0], size[1]);
                    frames.take();
                    first[k] = (System.nanoTime() - asked) / 1e6;
                    while (frames.take().width() != size[0]) Thread.onSpinWait();
                    whole[k] = (System.nanoTime() - asked) / 1e6;
                }
                Arrays.sort(first);
                Arrays.sort(whole);
                System.out.printf(Locale.ROOT, "all steps, changed on an easel of %dx%d: seen after %.0f ms (nine of ten %.0f), whole after %.0f%n",
                        size[0], size[1], first[first.length / 2], first[first.length * 9 / 10], whole[whole.length / 2]);
            }
        }
        Files.delete(dir.resolve("project.json"));
        Files.delete(dir);
    }

    private static Look look(Look.Tones t, Look.Colours c, Look.Optics o, Look.Drawing d, ColourTable lut) {
        return new Look(ToneCurve.FILM, 0, 0, false, 0, 4000, 0, t, c, o, d, Look.Sky.NONE, lut, 1);
    }

    private static ColourTable cube(int n) {
        float[] v = new float[3 * n * n * n];
        for (int i = 0; i < n * n * n; i++) {
            v[3 * i] = (float) Math.sqrt(i % n / (n - 1f));
            v[3 * i + 1] = i / n % n / (n - 1f);
            v[3 * i + 2] = i / n / n / (n - 1f);
        }
        return new ColourTable(n, true, new float[3], new float[] {1, 1, 1}, v);
    }
}
