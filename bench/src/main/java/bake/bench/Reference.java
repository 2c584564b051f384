package bake.bench;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.work.Workers;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * Path traced pictures that others are judged by, in two halves of their own seeds, so that what noise they have left is known.
 *
 * <pre>bake bench reference FOLDER SECONDS WIDTH THREADS [SCENE...]</pre>
 */
public record Reference(int width, int height, float[][] halves) {
    /** Far more than any path that matters; nothing is clamped. */
    private static final int BOUNCES = 256;

    public static void main(String[] args) throws Exception {
        Path folder = Path.of(args[0]);
        double seconds = Double.parseDouble(args[1]);
        int width = Integer.parseInt(args[2]);
        Files.createDirectories(folder);
        List<String> names = args.length > 4 ? List.of(args).subList(4, args.length) : BenchScene.NAMES;
        try (Workers workers = new Workers(Integer.parseInt(args[3]))) {
            for (String n : names) {
                BenchScene s = BenchScene.of(n);
                Reference r = render(s, width, seconds, workers);
                r.write(file(folder, s.name(), width));
                System.out.printf("%-24s %dx%d: error of the displayed mean %.3f %%%n", s.name(), r.width, r.height,
                        100 * new Judge(r, s.camera()).noise());
            }
        }
        System.exit(0);
    }

    static Path file(Path folder, String name, int width) {
        return folder.resolve(name.replaceAll("\\W+", "-") + "-" + width + ".ref");
    }

    private static Reference render(BenchScene s, int width, double seconds, Workers workers) {
        Film[] f = {s.film(width), s.film(width)};
        Renderer[] r = new Renderer[2];
        for (int k = 0; k < 2; k++) r[k] = new Renderer(s.scene(), s.camera(), new PathSettings(BOUNCES, 0, 1000 + k), f[k], f[k].kept(),
                workers);
        long end = System.nanoTime() + (long) (seconds * 1e9);
        for (int pass = 0; System.nanoTime() < end; pass++) for (Renderer one : r) one.pass(pass, workers, () -> false);
        float[][] out = new float[2][];
        for (int k = 0; k < 2; k++) out[k] = pixels(f[k]);
        return new Reference(f[0].kept().width(), f[0].kept().height(), out);
    }

    /** Means by colour, cd/m2. */
    static float[] pixels(Film f) {
        Region r = f.kept();
        float[] out = new float[3 * r.width() * r.height()], c = new float[3];
        for (int i = 0; i < out.length; i += 3) {
            f.mean(r.x() + i / 3 % r.width(), r.y() + i / 3 / r.width(), null, c);
            System.arraycopy(c, 0, out, i, 3);
        }
        return out;
    }

    void write(Path file) throws IOException {
        try (DataOutputStream o = new DataOutputStream(Files.newOutputStream(file))) {
            o.writeInt(width);
            o.writeInt(height);
            for (float[] h : halves) {
                ByteBuffer b = ByteBuffer.allocate(4 * h.length);
                b.asFloatBuffer().put(h);
                o.write(b.array());
            }
        }
    }

    static Reference read(Path file) throws IOException {
        try (DataInputStream in = new DataInputStream(Files.newInputStream(file))) {
            int w = in.readInt(), h = in.readInt();
            float[][] halves = new float[2][3 * w * h];
            for (float[] half : halves) ByteBuffer.wrap(in.readNBytes(4 * half.length)).asFloatBuffer().get(half);
            return new Reference(w, h, halves);
        }
    }
}
