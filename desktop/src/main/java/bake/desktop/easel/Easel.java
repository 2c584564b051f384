package bake.desktop.easel;

import bake.core.film.Region;
import bake.desktop.parts.Ui;
import bake.desktop.work.CameraHand;
import bake.desktop.work.Prover;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.live.LiveRender;
import bake.studio.live.Showing;
import bake.studio.proof.Proof;
import java.nio.IntBuffer;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BooleanSupplier;
import javafx.geometry.Pos;
import javafx.scene.Cursor;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.Pane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;

/**
 * Where the picture stands: the live picture, the proof in the making, or hung prints with a wipe between A and B. On
 * the View station the pointer moves the camera; with the region switch on it marks a region.
 */
public final class Easel extends Pane {
    /** The live picture is rendered at most this wide, so that a pass stays short. */
    private static final int LIVE_WIDTH = 600;
    private final Workbench bench;
    private final BooleanSupplier marking;
    private final ImageView picture = new ImageView(), second = new ImageView();
    private final Rectangle clip = new Rectangle(), region = new Rectangle();
    private final Line wipe = new Line();
    private final Label a = Ui.label("", "badge-a"), b = Ui.label("", "badge-b"), notice = Ui.label("", "easel-notice");
    private final VBox empty = new VBox(10);
    private final CameraHand hand;
    private final LightHandles handles;
    /** The prints that were hung last, by file. */
    private final Map<String, Image> stored = new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Image> eldest) {
            return size() > 6;
        }
    };
    private double wipeAt = 0.5, pressX, pressY;
    private boolean wiping;

    private final javafx.scene.control.Button stopOpening = new javafx.scene.control.Button("Stop");
    /** Keeps the time that opening takes up to date. */
    private final javafx.animation.Timeline clock =
            new javafx.animation.Timeline(new javafx.animation.KeyFrame(javafx.util.Duration.millis(500), e -> tell()));

    public Easel(Workbench bench, BooleanSupplier marking, Runnable openFile) {
        this.bench = bench;
        this.marking = marking;
        hand = new CameraHand(bench);
        handles = new LightHandles(bench);
        setId("easel");
        picture.setId("easel-picture");
        getStyleClass().add("easel");
        setFocusTraversable(true);
        setMinSize(200, 120);
        picture.setSmooth(true);
        second.setSmooth(true);
        second.setClip(clip);
        wipe.getStyleClass().add("wipe");
        region.getStyleClass().add("region-mark");
        region.setMouseTransparent(true);
        notice.setWrapText(true);
        empty.setAlignment(Pos.CENTER);
        empty.getChildren().addAll(Ui.label("A project or a model goes here", "empty-title"),
                Ui.label("Drag a project folder or a model (glTF, OBJ, FBX, DAE, STL, PLY, 3DS, IFC) onto the window,", "empty-text"),
                Ui.label("or start with one of these.", "empty-text"),
                new javafx.scene.layout.HBox(10, Ui.button("empty-open", "Open\u2026", null, openFile, "main-action"),
                Ui.button("empty-demo", "Open the demo library", null, () -> bench.open("demo"))));
        ((javafx.scene.layout.HBox) empty.getChildren().getLast()).setAlignment(Pos.CENTER);
        stopOpening.setId("opening-stop");
        stopOpening.setOnAction(e -> bench.stopOpening());
        clock.setCycleCount(javafx.animation.Animation.INDEFINITE);
        getChildren().addAll(picture, second, handles, region, wipe, a, b, notice, stopOpening, empty);
        bench.easel().frameProperty().addListener((o, x, f) -> update());
        bench.easel().failureProperty().addListener((o, x, f) -> tell());
        bench.prover().previewProperty().addListener((o, x, f) -> update());
        bench.prints().aProperty().addListener((o, x, f) -> update());
        bench.prints().bProperty().addListener((o, x, f) -> update());
        bench.openingProperty().addListener((o, x, f) -> update());
        bench.projectProperty().addListener((o, x, f) -> {
            if (x == null || f == null || !x.name().equals(f.name())) stored.clear();
            update();
        });
        bench.stationProperty().addListener((o, x, f) -> update());
        bench.prover().regionProperty().addListener((o, x, f) -> requestLayout());
        setOnMousePressed(e -> {
            requestFocus();
            pressX = e.getX();
            pressY = e.getY();
            wiping = wipe.isVisible() && !marking.getAsBoolean();
            if (cameraMoves()) hand.begin();
        });
        setOnMouseDragged(e -> dragged(e.getX(), e.getY()));
        setOnMouseReleased(e -> hand.end());
        setOnMouseClicked(e -> {
            if (bench.stationProperty().get() != Station.PROVE || bench.prover().caches().shownProperty().get() != Showing.RECORDS) return;
            bench.prover().caches().click((e.getX() - picture.getLayoutX()) / Math.max(1, picture.getFitWidth()),
                    (e.getY() - picture.getLayoutY()) / Math.max(1, picture.getFitHeight()));
        });
        setOnScroll(e -> {
            if (cameraMoves() && e.getDeltaY() != 0) hand.dolly(e.getDeltaY() > 0 ? 1 : -1);
        });
        setOnKeyPressed(e -> {
            if (cameraMoves() && hand.key(e.getCode(), e.isShiftDown())) e.consume();
        });
        update();
    }

    public CameraHand hand() {
        return hand;
    }

    private boolean cameraMoves() {
        return bench.stationProperty().get() == Station.VIEW && !marking.getAsBoolean() && bench.view() != null;
    }

    private void dragged(double x, double y) {
        if (marking.getAsBoolean()) mark(x, y);
        else if (wiping) {
            wipeAt = Math.clamp((x - picture.getLayoutX()) / Math.max(1, picture.getFitWidth()), 0, 1);
            requestLayout();
        } else if (cameraMoves()) hand.drag(x - pressX, y - pressY, picture.getFitWidth());
    }

    private void mark(double x, double y) {
        double w = picture.getFitWidth(), h = picture.getFitHeight();
        double x0 = Math.clamp((Math.min(x, pressX) - picture.getLayoutX()) / w, 0, 1),
                x1 = Math.clamp((Math.max(x, pressX) - picture.getLayoutX()) / w, 0, 1);
        double y0 = Math.clamp((Math.min(y, pressY) - picture.getLayoutY()) / h, 0, 1),
                y1 = Math.clamp((Math.max(y, pressY) - picture.getLayoutY()) / h, 0, 1);
        if (x1 - x0 < 0.02 || y1 - y0 < 0.02) return;
        bench.prover().regionProperty()
                .set(new Region((int) (x0 * 1000), (int) (y0 * 1000), (int) ((x1 - x0) * 1000), (int) ((y1 - y0) * 1000)));
    }

    private void update() {
        boolean none = bench.project() == null;
        empty.setVisible(none && !bench.openingProperty().get());
        Prover.Preview p = bench.prover().previewProperty().get();
        LiveRender.Frame f = bench.easel().frameProperty().get();
        Proof pa = bench.prints().aProperty().get(), pb = bench.prints().bProperty().get();
        boolean proving = bench.stationProperty().get() == Station.PROVE;
        second.setVisible(false);
        wipe.setVisible(false);
        a.setVisible(false);
        b.setVisible(false);
        if (p != null) picture.setImage(image(p.argb(), p.width(), p.height()));
        else if (proving && (pa != null || pb != null)) hang(pa, pb);
        else if (f != null) picture.setImage(image(f.argb(), f.width(), f.height()));
        else picture.setImage(null);
        stopOpening.setVisible(bench.openingProperty().get());
        if (bench.openingProperty().get()) clock.play();
        else clock.stop();
        tell();
    }

    private void tell() {
        notice.setText(bench.reading() != null ? bench.reading().words() : bench.project() == null || picture.getImage() != null ? ""
                : bench.view() == null ? "This project has no view. Start one from a model: Ctrl+N."
                : bench.easel().failureProperty().get() != null ? "Nothing can be shown: " + bench.easel().failureProperty().get()
                : "Preparing the light\u2026");
        notice.setMaxWidth(Math.max(200, getWidth() - 80));
        notice.setVisible(!notice.getText().isEmpty());
        requestLayout();
    }

    private void hang(Proof pa, Proof pb) {
        Proof main = pa != null ? pa : pb;
        stored(main, picture);
        (pa != null ? a : b).setVisible(true);
        if (pa != null) a.setText("A  proof " + pa.number());
        if (pb != null) b.setText("B  proof " + pb.number());
        if (pa == null || pb == null) return;
        stored(pb, second);
        second.setVisible(true);
        wipe.setVisible(true);
        b.setVisible(true);
    }

    /** Shows a stored picture once it has been read; until then what is there stays. */
    private void stored(Proof p, ImageView view) {
        String where = bench.prints().store().picture(p).toUri().toString();
        Image i = stored.get(where);
        if (i == null) {
            i = new Image(where, true);
            i.progressProperty().addListener((o, x, done) -> {
                if (done.doubleValue() >= 1) update();
            });
            stored.put(where, i);
        }
        if (i.getProgress() >= 1) view.setImage(i);
    }

    private static Image image(int[] argb, int w, int h) {
        return new WritableImage(new PixelBuffer<>(w, h, IntBuffer.wrap(argb), PixelFormat.getIntArgbPreInstance()));
    }

    @Override
    protected void layoutChildren() {
        double w = getWidth(), h = getHeight(), pad = 14;
        double aspect = bench.view() == null ? 16.0 / 9 : (double) bench.view().size()[0] / bench.view().size()[1];
        if (picture.getImage() != null && bench.prover().previewProperty().get() == null && a.isVisible()
                && picture.getImage().getHeight() > 0) aspect = picture.getImage().getWidth() / picture.getImage().getHeight();
        double pw = Math.max(16, Math.min(w - 2 * pad, (h - pad) * aspect)), ph = pw / aspect;
        double x = Math.round((w - pw) / 2), y = Math.round((h - ph) / 2);
        fit(picture, x, y, pw, ph);
        fit(second, x, y, pw, ph);
        handles.resizeRelocate(0, 0, w, h);
        handles.fit(x, y, pw, ph);
        double k = Math.round(pw * wipeAt);
        clip.setX(k);
        clip.setWidth(Math.max(0, pw - k));
        clip.setHeight(ph);
        wipe.setStartX(x + k);
        wipe.setEndX(x + k);
        wipe.setStartY(y);
        wipe.setEndY(y + ph);
        a.autosize();
        a.relocate(x + 10, y + 10);
        b.autosize();
        b.relocate(x + pw - b.getWidth() - 10, y + 10);
        notice.autosize();
        notice.relocate(Math.round((w - notice.getWidth()) / 2), Math.round(h / 2 - 12));
        stopOpening.autosize();
        stopOpening.relocate(Math.round((w - stopOpening.getWidth()) / 2), Math.round(h / 2 + 22));
        empty.autosize();
        empty.relocate(Math.round((w - empty.getWidth()) / 2), Math.round((h - empty.getHeight()) / 2));
        Region r = bench.prover().regionProperty().get();
        region.setVisible(r != null && bench.project() != null);
        if (r != null) {
            region.setX(x + r.x() * pw / 1000);
            region.setY(y + r.y() * ph / 1000);
            region.setWidth(r.width() * pw / 1000);
            region.setHeight(r.height() * ph / 1000);
        }
        setCursor(marking.getAsBoolean() ? Cursor.CROSSHAIR : wipe.isVisible() ? Cursor.H_RESIZE : Cursor.DEFAULT);
        double scale = Math.min(1, LIVE_WIDTH / pw);
        bench.easel().resize((int) Math.round((w - 2 * pad) * scale), (int) Math.round((h - pad) * scale));
    }

    private static void fit(ImageView v, double x, double y, double w, double h) {
        v.setFitWidth(w);
        v.setFitHeight(h);
        v.setPreserveRatio(false);
        v.relocate(x, y);
    }
}
