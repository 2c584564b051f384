package bake.desktop.work;

import bake.core.finish.Finish;
import bake.formats.picture.ExrFile;
import bake.formats.picture.Raster;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import java.io.IOException;
import java.nio.file.Files;
import java.util.concurrent.Executor;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;

/**
 * The scene light of hung prints: what a pixel has in cd/m2, and the prints shown some stops brighter or darker, or both by the exposure of
 * A. It is the light as it was rendered, before any denoiser. Holds no control.
 */
public final class PrintLight {
    /** Most stops up and down. */
    public static final int MOST_STOPS = 8;
    /** Larger prints are not read for this. */
    private static final long MOST_PIXELS = 9_000_000;

    /** Light of A and B; either may be null where it is not known. */
    public record Light(Proof a, Proof b, Raster ofA, Raster ofB) {}

    /** Pictures of A and B, 0xFFRRGGBB. */
    public record Developed(Proof a, Proof b, int[] ofA, int[] ofB) {}

    private final Workbench bench;
    private final Executor background;
    private final IntegerProperty stops = new SimpleIntegerProperty();
    private final BooleanProperty same = new SimpleBooleanProperty();
    private final ObjectProperty<Light> light = new SimpleObjectProperty<>();
    private final ObjectProperty<Developed> developed = new SimpleObjectProperty<>();
    private int asked;

    PrintLight(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
        bench.prints().aProperty().addListener((o, a, b) -> read());
        bench.prints().bProperty().addListener((o, a, b) -> read());
        stops.addListener((o, a, b) -> develop());
        same.addListener((o, a, b) -> develop());
    }

    /** By how many stops the prints are shown brighter than they are, {@value #MOST_STOPS} up and down. */
    public IntegerProperty stopsProperty() {
        return stops;
    }

    /** Whether B is shown by the exposure and the tones of A. */
    public BooleanProperty sameProperty() {
        return same;
    }

    /** The light of what hangs; null until it was read. */
    public ObjectProperty<Light> lightProperty() {
        return light;
    }

    /** What is shown in place of the prints, or null for the prints themselves. */
    public ObjectProperty<Developed> developedProperty() {
        return developed;
    }

    public void step(int by) {
        stops.set(Math.clamp(stops.get() + by, -MOST_STOPS, MOST_STOPS));
    }

    private void read() {
        Proof a = bench.prints().aProperty().get(), b = bench.prints().bProperty().get();
        ProofStore store = bench.prints().store();
        int number = ++asked;
        light.set(null);
        developed.set(null);
        if (a == null && b == null || store == null) {
            stops.set(0);
            return;
        }
        background.execute(() -> {
            Light l = new Light(a, b, raster(store, a), raster(store, b));
            bench.later(() -> {
                if (number != asked) return;
                light.set(l);
                develop();
            });
        });
    }

    /** Null where there is none of the whole print, or where it cannot be read. */
    private static Raster raster(ProofStore store, Proof p) {
        if (p == null || (long) p.width() * p.height() > MOST_PIXELS || !Files.isRegularFile(store.light(p))) return null;
        try {
            Raster r = ExrFile.read(store.light(p));
            return r.width() == p.width() && r.height() == p.height() ? r : null;
        } catch (IOException e) {
            return null; // a print without its light is still a print
        }
    }

    private void develop() {
        Light l = light.get();
        if (l == null || stops.get() == 0 && !same.get()) {
            developed.set(null);
            return;
        }
        if (l.ofA == null && l.ofB == null) {
            bench.notices().say("The light of these prints is not known: of a region only its part is kept, and large prints are not read.");
            return;
        }
        int by = stops.get();
        Proof first = l.a == null ? l.b : l.a;
        boolean alike = same.get();
        int number = asked;
        background.execute(() -> {
            Developed d = new Developed(l.a, l.b, l.ofA == null ? null : shown(l.ofA, l.a, by), l.ofB == null ? null
                    : shown(l.ofB, alike ? first : l.b, by));
            bench.later(() -> {
                if (number == asked && by == stops.get() && alike == same.get()) developed.set(d);
            });
        });
    }

    private static int[] shown(Raster r, Proof by, int stops) {
        float k = (float) Math.pow(2, stops);
        float[] rgb = r.rgb().clone();
        for (int i = 0; i < rgb.length; i++) rgb[i] *= k;
        return new Finish(by.view().camera().camera().saturation(), by.view().look()).argb(rgb,
                bake.core.finish.Place.whole(r.width(), r.height()), null);
    }
}
