package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.path.BounceSettings;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.scene.Camera;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import bake.core.scene.Scene;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.core.work.Workers;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javax.imageio.ImageIO;

/**
 * What a picture costs against triangles, lamps and pixels: seconds to compile the scene, of caches before the first pass, and of a pass,
 * with both caches and path traced. Triangles are balls in a closed box; lamps are the reading room by night; pixels are the reading room
 * in the morning.
 *
 * <pre>bake bench costs [PLOT.png]</pre>
 */
public final class Costs {
    private static final int WIDTH = 320, PASSES = 3;

    private Costs() {}

    /** One line of a table: how many of what, and seconds. */
    private record Row(double n, double compile, double caches, double cached, double traced) {}

    public static void main(String[] args) throws Exception {
        List<List<Row>> all = new ArrayList<>();
        try (Workers workers = new Workers(2)) {
            BenchScene room = BenchScene.of("Reading room, morning"), box = BenchScene.of("box");
            row(room.scene(), room.camera(), 160, 120, 0, 0, workers);
            List<Row> rows = new ArrayList<>();
            for (int n : new int[] {100_000, 1_000_000, 5_000_000}) {
                long t = System.nanoTime();
                RenderScene s = RenderScene.compile(balls(box.scene().scene(), n), Workers.COMPILING);
                rows.add(row(s, box.camera(), WIDTH, WIDTH * 3 / 4, n, (System.nanoTime() - t) / 1e9, workers));
            }
            all.add(told("triangles", rows));
            rows = new ArrayList<>();
            for (int n : new int[] {1, 10, 100, 1000}) {
                Scene night = room.scene().scene().withSurroundings(new Surroundings.Plain(Vec3.ZERO)).withLamps(ManyLamps.lamps(n));
                long t = System.nanoTime();
                RenderScene s = RenderScene.compile(night, room.scene(), Workers.COMPILING);
                rows.add(row(s, room.camera(), WIDTH, (int) (WIDTH * room.aspect()), n, (System.nanoTime() - t) / 1e9, workers));
            }
            all.add(told("lamps", rows));
            rows = new ArrayList<>();
            for (double megapixels : new double[] {0.5, 2, 8}) {
                int w = (int) Math.round(Math.sqrt(megapixels * 1e6 / room.aspect()));
                rows.add(row(room.scene(), room.camera(), w, (int) Math.round(w * room.aspect()), megapixels, 0, workers));
            }
            all.add(told("megapixels", rows));
        }
        if (args.length > 0) plot(all, Path.of(args[0]));
        System.exit(0);
    }

    /** The box with balls of about as many triangles as asked for, each a mesh of its own. */
    private static Scene balls(Scene box, int triangles) {
        int n = 8, slices = (int) Math.round(Math.sqrt(triangles / (double) n / 2));
        List<Mesh> meshes = new ArrayList<>(box.meshes());
        List<Instance> in = new ArrayList<>(box.instances());
        for (int k = 0; k < n; k++) {
            meshes.add(Shapes.sphere("ball " + k, 0.2 + 0.02 * k, slices, 0));
            in.add(new Instance("ball " + k, meshes.size() - 1, Affine.translation(0.5 + 0.6 * (k % 4), 0.6 + 1.5 * (k / 4), 2 - 0.1 * k),
                    0));
        }
        return new Scene(meshes, in, box.materials(), box.textures(), box.lamps(), box.surroundings());
    }

    private static Row row(RenderScene s, Camera c, int w, int h, double n, double compile, Workers workers) {
        BounceSettings both = new BounceSettings(BounceSettings.First.IRRADIANCE_CACHE, BounceSettings.Later.RADIANCE_CACHE)
                .withSurroundings(true);
        double[] seconds = new double[4];
        for (int way = 0; way < 2; way++) {
            PathSettings p = new PathSettings(16, 20, 1);
            Film f = Film.merged(w, h, s.lights().groups().size());
            Renderer r = new Renderer(s, c, way == 0 ? p.withBounced(both) : p, f, Region.all(w, h), workers);
            long t = System.nanoTime();
            r.prepare(0, workers, () -> false, share -> {});
            seconds[2 * way] = (System.nanoTime() - t) / 1e9;
            // What is learnt before later passes belongs to what a picture costs.
            t = System.nanoTime();
            int passes = (long) w * h > 1_000_000 ? 1 : PASSES;
            for (int k = 0; k < passes; k++) r.pass(k, workers, () -> false);
            seconds[2 * way + 1] = (System.nanoTime() - t) / 1e9 / passes;
        }
        return new Row(n, compile, seconds[0], seconds[1], seconds[3]);
    }

    private static List<Row> told(String what, List<Row> rows) {
        System.out.printf(Locale.ROOT, "%n| %s | compiled | caches | a pass with caches | a pass traced |%n| --- | --- | --- | --- | --- |%n", what);
        for (Row r : rows) System.out.printf(Locale.ROOT, "| %,.1f | %.2f s | %.1f s | %.2f s | %.2f s |%n", r.n, r.compile, r.caches,
                r.cached, r.traced);
        return rows;
    }

    /** Seconds against number, both as logarithms; one panel a table. */
    private static void plot(List<List<Row>> all, Path file) throws java.io.IOException {
        String[] names = {"triangles", "lamps", "megapixels"};
        int w = 320, h = 300, left = 46, bottom = 40;
        BufferedImage image = new BufferedImage(3 * w, h, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(Color.WHITE);
        g.fillRect(0, 0, 3 * w, h);
        for (int k = 0; k < 3; k++) {
            List<Row> rows = all.get(k);
            double low = Math.log10(rows.getFirst().n), high = Math.log10(rows.getLast().n);
            int x0 = k * w + left, wide = w - left - 16, tall = h - bottom - 16;
            g.setColor(new Color(0xdddddd));
            for (int d = -2; d <= 3; d++) {
                int y = 16 + (int) (tall * (3 - d) / 5.0);
                g.drawLine(x0, y, x0 + wide, y);
                g.setColor(Color.DARK_GRAY);
                g.drawString(d < 0 ? String.format(Locale.ROOT, "%." + -d + "f s", Math.pow(10, d)) : (int) Math.pow(10, d) + " s",
                        k * w + 4, y + 4);
                g.setColor(new Color(0xdddddd));
            }
            for (int line = 0; line < 3; line++) {
                g.setColor(new Color(new int[] {0x1f6f5c, 0xb5651d, 0x4a4e8f}[line]));
                g.setStroke(new BasicStroke(2));
                int px = 0, py = 0;
                for (int i = 0; i < rows.size(); i++) {
                    Row r = rows.get(i);
                    double s = line == 0 ? r.caches : line == 1 ? r.cached : r.traced;
                    int x = x0 + (int) (wide * (Math.log10(r.n) - low) / (high - low)),
                            y = 16 + (int) (tall * (3 - Math.log10(Math.max(0.01, s))) / 5);
                    if (i > 0) g.drawLine(px, py, x, y);
                    g.fillOval(x - 3, y - 3, 6, 6);
                    px = x;
                    py = y;
                }
                if (k == 0) g.drawString(new String[] {"caches", "a pass with caches", "a pass traced"}[line], x0 + 8, 30 + 15 * line);
            }
            g.setStroke(new BasicStroke(1));
            g.setColor(Color.DARK_GRAY);
            for (Row r : rows) {
                String n = r.n >= 1e6 ? (int) (r.n / 1e6) + "M" : r.n >= 1000 ? (int) (r.n / 1000) + "k" : r.n < 1 ? "0.5" : "" + (int) r.n;
                g.drawString(n, x0 + (int) (wide * (Math.log10(r.n) - low) / (high - low)) - 8, h - bottom + 16);
            }
            g.drawString(names[k], x0 + wide / 2 - 20, h - 8);
        }
        ImageIO.write(image, "png", file.toFile());
    }
}
