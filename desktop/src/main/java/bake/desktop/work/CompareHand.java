package bake.desktop.work;

import bake.core.compare.Flip;
import bake.studio.proof.Differences;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javax.imageio.ImageIO;

/** How two hung prints are looked at, and what differs between them. Holds no control. */
public final class CompareHand {
    /** Ways to look at two prints. */
    public enum Mode { WIPE, FLIP, BESIDE, DIFFERENCE }

    /**
     * What differs between A and B.
     *
     * @param lines in words
     * @param flip mean perceived difference, 0 to 1; NaN where the prints have two sizes
     * @param map the difference pixel by pixel, 0xFFRRGGBB, or null
     */
    public record Found(Proof a, Proof b, List<Differences.Difference> lines, double flip, int[] map, int width, int height) {}

    private final Workbench bench;
    private final Executor background;
    private final ObjectProperty<Mode> mode = new SimpleObjectProperty<>(Mode.WIPE);
    private final BooleanProperty second = new SimpleBooleanProperty();
    private final ObjectProperty<Found> found = new SimpleObjectProperty<>();
    private final PrintLight light;
    private int asked;

    CompareHand(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        light = new PrintLight(bench, background);
        bench.prints().aProperty().addListener((o, a, b) -> look());
        bench.prints().bProperty().addListener((o, a, b) -> look());
    }

    public ObjectProperty<Mode> modeProperty() {
        return mode;
    }

    /** The light of the prints. */
    public PrintLight light() {
        return light;
    }

    /** Hangs the next newer (1) or older (-1) proof of the same view in place of A. */
    public void walk(int by) {
        Proof a = bench.prints().aProperty().get(), b = bench.prints().bProperty().get();
        if (a == null) return;
        List<Proof> stack = bench.prints().all().stream().filter(p -> p.view().name().equals(a.view().name()) && p != b).toList();
        int at = stack.indexOf(a) - by;
        if (at >= 0 && at < stack.size()) bench.prints().aProperty().set(stack.get(at));
    }

    /** Whether B is shown instead of A while one flips. */
    public BooleanProperty secondProperty() {
        return second;
    }

    /** What differs; null until it is known, and while not two prints hang. */
    public ObjectProperty<Found> foundProperty() {
        return found;
    }

    private void look() {
        Proof a = bench.prints().aProperty().get(), b = bench.prints().bProperty().get();
        ProofStore store = bench.prints().store();
        int number = ++asked;
        found.set(null);
        second.set(false);
        if (a == null || b == null || store == null) return;
        background.execute(() -> {
            try {
                Found f = between(store, a, b);
                bench.later(() -> {
                    if (number == asked) found.set(f);
                });
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    private static Found between(ProofStore store, Proof a, Proof b) throws IOException {
        List<Differences.Difference> lines = Differences.between(Differences.State.of(a, store.project(a)),
                Differences.State.of(b, store.project(b)));
        BufferedImage x = ImageIO.read(store.picture(a).toFile()), y = ImageIO.read(store.picture(b).toFile());
        if (x == null || y == null || x.getWidth() != y.getWidth() || x.getHeight() != y.getHeight())
            return new Found(a, b, lines, Double.NaN, null, 0, 0);
        int w = x.getWidth(), h = x.getHeight();
        float[] f = Flip.map(x.getRGB(0, 0, w, h, null, 0, w), y.getRGB(0, 0, w, h, null, 0, w), w, h, Flip.PIXELS_PER_DEGREE);
        int[] map = new int[f.length];
        for (int i = 0; i < map.length; i++) map[i] = heat(f[i]);
        return new Found(a, b, lines, Flip.mean(f), map, w, h);
    }

    /** Black for no difference by red and orange to white for the greatest: its lightness rises evenly. */
    static int heat(double v) {
        double t = Math.clamp(v, 0, 1);
        int r = (int) Math.round(255 * Math.min(1, 2.4 * t)), g = (int) Math.round(255 * Math.clamp((t - 0.3) * 1.9, 0, 1)),
                b = (int) Math.round(255 * Math.clamp((t - 0.7) / 0.3, 0, 1));
        return 0xff000000 | r << 16 | g << 8 | b;
    }
}
