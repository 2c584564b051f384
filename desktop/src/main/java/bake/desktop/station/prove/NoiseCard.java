package bake.desktop.station.prove;

import bake.core.path.LightPart;
import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.NoiseHand;
import bake.studio.noise.NoiseFindings;
import java.nio.IntBuffer;
import java.util.Locale;
import javafx.scene.control.Button;
import javafx.scene.control.ProgressBar;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.VBox;

/** Where the noise is: its worst causes, what was tried against them and what that gained, and a small map. */
final class NoiseCard extends VBox {
    private static final int WORST = 3;
    private final NoiseHand hand;
    private final Button look, stop;
    private final ProgressBar bar = new ProgressBar(0);
    private final VBox found = new VBox(6);

    NoiseCard(ProveWork work) {
        super(7);
        hand = work.noise();
        setId("noise-card");
        getStyleClass().add("card");
        look = Ui.button("noise-look", "Look", "Makes two quick pictures of this view with the settings above, and tries what would help; takes as long as a few tests", hand::find, "small");
        stop = Ui.button("noise-stop", "Stop", null, hand::stop, "small");
        bar.setMaxWidth(Double.MAX_VALUE);
        getChildren().addAll(Ui.row(Ui.label("Where the noise is", "card-title"), Ui.spring(), look, stop), bar, found);
        hand.progressProperty().addListener((o, a, b) -> refresh());
        hand.findingsProperty().addListener((o, a, b) -> fill());
        work.document().projectProperty().addListener((o, a, b) -> again());
        work.prover().presetProperty().addListener((o, a, b) -> again());
        refresh();
        fill();
    }

    private void refresh() {
        Ui.show(bar, hand.busy());
        Ui.show(stop, hand.busy());
        Ui.show(look, !hand.busy());
        if (hand.busy()) bar.setProgress(hand.progressProperty().get());
    }

    /** What is taken already may have changed. */
    private void again() {
        if (hand.findingsProperty().get() != null) fill();
    }

    private void fill() {
        found.getChildren().clear();
        NoiseFindings f = hand.findingsProperty().get();
        if (f == null) {
            found.getChildren().add(Ui.note("Not looked for in this view yet."));
            return;
        }
        int n = 0;
        for (NoiseFindings.Cause c : f.causes()) {
            if (n == WORST || c.share() < 0.01) break;
            found.getChildren().add(cause(f, c, n++));
        }
        StringBuilder rest = new StringBuilder("By light:");
        for (NoiseFindings.Share s : f.sources()) if (s.share() >= 0.02) rest.append(String.format(Locale.ROOT, " %s %.0f %%,", s.name(), 100 * s.share()));
        rest.setLength(rest.length() - 1);
        rest.append(". By its way:");
        for (NoiseFindings.Share s : f.ways()) if (s.share() >= 0.02) rest.append(String.format(Locale.ROOT, " %s %.0f %%,", s.name(), 100 * s.share()));
        rest.setLength(rest.length() - 1);
        rest.append('.');
        found.getChildren().add(Ui.note(rest.toString()));
        found.getChildren().add(Ui.note((f.fireflies() == 0 ? "No stray bright pixels" : f.fireflies() + " stray bright pixels")
                + (f.clamped() > 0.0005 ? String.format(Locale.ROOT, "; the clamp takes %.1f %% of the light.", 100 * f.clamped()) : ".")));
        found.getChildren().add(map(f));
    }

    private VBox cause(NoiseFindings f, NoiseFindings.Cause c, int n) {
        VBox box = new VBox(2, Ui.row(Ui.label(words(c), "line-name"), Ui.spring(), Ui.label(String.format(Locale.ROOT, "%.0f %%", 100 * c.share()), "figure")));
        f.remedies().stream().filter(r -> r.against().equals(c)).findFirst().ifPresent(r -> {
            boolean pays = r.worth(f) < 0.97, taken = hand.taken(r);
            String gain = String.format(Locale.ROOT, "%d paths: error %s to %s, a pass takes %.2f times as long%s", r.paths(), Texts.noise(f.noise()), Texts.noise(r.noise()),
                    r.time(), taken ? "; taken" : pays ? "" : ": it does not pay");
            box.getChildren().add(Ui.note(gain));
            if (pays && !taken) box.getChildren().add(Ui.button("noise-remedy-" + n, c.edges() ? "Take, for the next proofs" : "Take, for this material", null, () -> hand.take(r), "small"));
        });
        return box;
    }

    private static String words(NoiseFindings.Cause c) {
        return c.edges() ? "Edges" : c.material() + ", " + switch (c.way() == null ? LightPart.SEEN : c.way()) {
            case SEEN -> "mostly light that is seen itself";
            case DIRECT -> "mostly direct light";
            case BOUNCED -> "mostly bounced light";
            case REFLECTED -> "mostly reflections";
            case REFRACTED -> "mostly light through it";
        };
    }

    /** Dark where there is little, bright where there is much: twice the mean is white. */
    private static ImageView map(NoiseFindings f) {
        int[] argb = new int[f.map().length];
        for (int i = 0; i < argb.length; i++) {
            int g = Math.clamp((int) (128 * f.map()[i]), 0, 255);
            argb[i] = 0xff000000 | g << 16 | g << 8 | g;
        }
        ImageView v = new ImageView(new WritableImage(new PixelBuffer<>(f.width(), f.height(), IntBuffer.wrap(argb),
                PixelFormat.getIntArgbPreInstance())));
        v.setId("noise-map");
        v.setFitWidth(284);
        v.setPreserveRatio(true);
        v.setAccessibleText("Map of the noise: bright where there is much");
        return v;
    }
}
