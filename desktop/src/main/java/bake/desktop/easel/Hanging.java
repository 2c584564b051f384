package bake.desktop.easel;

import bake.desktop.parts.Ui;
import bake.desktop.work.CompareHand;
import bake.desktop.work.PrintLight;
import bake.desktop.work.Prints;
import bake.studio.proof.Proof;
import java.nio.IntBuffer;
import java.util.LinkedHashMap;
import java.util.Map;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;

/** The picture on the easel: one that is being made, or hung prints with a wipe between A and B. */
final class Hanging extends Pane {
    private final Prints prints;
    private final CompareHand comparing;
    private final Runnable changed;
    private final ImageView picture = new ImageView(), second = new ImageView();
    private final Rectangle clip = new Rectangle();
    private final Line wipe = new Line();
    private final Label a = Ui.label("", "badge-a"), b = Ui.label("", "badge-b");
    /** The prints that were hung last, by file. */
    private final Map<String, Image> stored = new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Image> eldest) {
            return size() > 6;
        }
    };
    private static final double GAP = 3;
    private double wipeAt = 0.5;
    /** Whether both are seen whole, side by side. */
    private boolean beside;

    /** @param changed is run when a print that was being read is there */
    Hanging(Prints prints, CompareHand comparing, Runnable changed) {
        this.prints = prints;
        this.comparing = comparing;
        this.changed = changed;
        setMouseTransparent(true);
        picture.setId("easel-picture");
        for (ImageView v : new ImageView[] {picture, second}) v.setPreserveRatio(false);
        second.setClip(clip);
        wipe.getStyleClass().add("wipe");
        getChildren().addAll(picture, second, wipe, a, b);
        show(null, 0, 0);
    }

    /** Prints of another project may lie under the same names. */
    void forget() {
        stored.clear();
    }

    /** Shows a picture of these pixels; null for none. */
    void show(int[] argb, int w, int h) {
        picture.setImage(argb == null ? null
                : new WritableImage(new PixelBuffer<>(w, h, IntBuffer.wrap(argb), PixelFormat.getIntArgbPreInstance())));
        beside = false;
        second.setVisible(false);
        wipe.setVisible(false);
        a.setVisible(false);
        b.setVisible(false);
    }

    /** Hangs one print or two; either may be null, not both. */
    void hang(Proof pa, Proof pb) {
        stored(pa != null ? pa : pb, picture);
        a.setVisible(pa != null);
        b.setVisible(pb != null);
        if (pa != null) a.setText("A  proof " + pa.number());
        if (pb != null) b.setText("B  proof " + pb.number());
        boolean both = pa != null && pb != null;
        if (both) stored(pb, second);
        developed(pa, pb);
        CompareHand.Mode mode = comparing.modeProperty().get();
        beside = both && mode == CompareHand.Mode.BESIDE;
        boolean flips = both && mode == CompareHand.Mode.FLIP, differs = both && mode == CompareHand.Mode.DIFFERENCE;
        boolean b2 = comparing.secondProperty().get();
        second.setVisible(both && !differs && (!flips || b2));
        second.setClip(both && mode == CompareHand.Mode.WIPE ? clip : null);
        wipe.setVisible(both && mode == CompareHand.Mode.WIPE);
        if (flips) {
            a.setVisible(!b2);
            b.setVisible(b2);
        }
        CompareHand.Found f = comparing.foundProperty().get();
        if (differs && f != null && f.map() != null) {
            picture.setImage(image(f.map(), f.width(), f.height()));
            a.setText("Difference of " + pa.number() + " and " + pb.number());
            b.setVisible(false);
        }
    }

    /** Prints developed otherwise than they were kept take the place of those. */
    private void developed(Proof pa, Proof pb) {
        PrintLight.Developed d = comparing.light().developedProperty().get();
        if (d == null || d.a() != pa || d.b() != pb) return;
        if (pa != null && d.ofA() != null) picture.setImage(image(d.ofA(), pa.width(), pa.height()));
        if (pb != null && d.ofB() != null) (pa == null ? picture : second).setImage(image(d.ofB(), pb.width(), pb.height()));
    }

    private static Image image(int[] argb, int w, int h) {
        return new WritableImage(new PixelBuffer<>(w, h, IntBuffer.wrap(argb), PixelFormat.getIntArgbPreInstance()));
    }

    /** Shows a stored picture once it has been read; until then what is there stays. */
    private void stored(Proof p, ImageView view) {
        String where = prints.store().picture(p).toUri().toString();
        Image i = stored.get(where);
        if (i == null) {
            i = new Image(where, true);
            i.progressProperty().addListener((o, x, done) -> {
                if (done.doubleValue() >= 1) changed.run();
            });
            stored.put(where, i);
        }
        if (i.getProgress() >= 1) view.setImage(i);
    }

    /** What is shown, or null. */
    Image image() {
        return picture.getImage();
    }

    /** What is shown of B beside or over A, or null. */
    Image secondImage() {
        return second.isVisible() || a.isVisible() && b.isVisible() ? second.getImage() : null;
    }

    /** Whether it shows prints. */
    boolean hangs() {
        return a.isVisible() || b.isVisible();
    }

    /** How many prints lie side by side. */
    int across() {
        return beside ? 2 : 1;
    }

    boolean wipes() {
        return wipe.isVisible();
    }

    /** Where the wipe stands, 0 to 1 from the left. */
    double wipeAt() {
        return wipeAt;
    }

    void wipe(double at) {
        wipeAt = Math.clamp(at, 0, 1);
        requestLayout();
    }

    /** @param smooth whether pixels are blended; not where they are to be seen one by one */
    void lie(ZoomPan.Box on, double roomW, boolean smooth) {
        for (ImageView v : new ImageView[] {picture, second}) {
            v.setSmooth(smooth);
            v.setFitWidth(beside ? on.w() / 2 - GAP : on.w());
            v.setFitHeight(on.h());
            v.relocate(beside && v == second ? on.x() + on.w() / 2 + GAP : on.x(), on.y());
        }
        double k = Math.round(on.w() * wipeAt);
        clip.setX(k);
        clip.setWidth(Math.max(0, on.w() - k));
        clip.setHeight(on.h());
        wipe.setStartX(on.x() + k);
        wipe.setEndX(on.x() + k);
        wipe.setStartY(on.y());
        wipe.setEndY(on.y() + on.h());
        a.autosize();
        a.relocate(Math.max(0, on.x()) + 10, Math.max(0, on.y()) + 10);
        b.autosize();
        b.relocate(Math.min(roomW, on.x() + on.w()) - b.getWidth() - 10, Math.max(0, on.y()) + 10);
    }
}
