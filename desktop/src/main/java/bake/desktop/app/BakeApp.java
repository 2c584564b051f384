package bake.desktop.app;

import bake.desktop.work.Reading;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.formats.picture.DisplayPicture;
import bake.studio.live.Showing;
import bake.studio.user.Preferences;
import bake.studio.user.RecentProjects;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import javafx.animation.PauseTransition;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import javafx.stage.Stage;
import javafx.util.Duration;

/** The application: one window over one {@link Workbench}. */
public final class BakeApp extends Application {
    private MainWindow window;

    /** The first project, whose reading begins before the toolkit does. */
    static Reading reading;

    private Workbench bench;

    @Override
    public void start(Stage stage) {
        Arguments a = Arguments.parse(getParameters().getRaw().toArray(String[]::new));
        bench = new Workbench(Platform::runLater);
        Mishaps.tell(bench.notices()::complain);
        boolean shooting = a.shot() != null;
        // Pictures for papers always look the same.
        window = new MainWindow(bench, stage, new RecentProjects(), shooting ? null : Preferences.file());
        window.looks().eveningProperty().set(a.evening() || window.looks().eveningProperty().get());
        if (a.textSize() != 100) window.looks().larger(a.textSize() - 100);
        Scene scene = window.scene(a.width(), a.height());
        stage.setTitle("Bake");
        stage.setX(0);
        stage.setY(0);
        stage.setMinWidth(1024);
        stage.setMinHeight(700);
        stage.setScene(scene);
        stage.getIcons().addAll(Icon.all());
        window.looks().place(stage);
        // Work may go on without the window.
        Platform.setImplicitExit(false);
        bench.leaving().by(() -> {
            window.looks().leave();
            stage.hide();
        }, Platform::exit);
        stage.setOnCloseRequest(e -> {
            e.consume();
            bench.leaving().quit();
        });
        stage.show();
        bench.stationProperty().set(a.station());
        Showing showing = a.showing();
        Station where = showing.ofCaches() ? Station.PROVE : showing.ofLight() ? Station.LIGHT : Station.MODEL;
        Runnable show = () -> bench.easel().showing(where).set(showing);
        // Guides are there with the project, caches once a proof is.
        if (showing.ofCaches()) bench.prover().caches().offerProperty().addListener((o, x, p) -> Platform.runLater(show));
        else if (showing.ofGuides()) bench.projectProperty().addListener((o, x, p) -> Platform.runLater(show));
        else show.run();
        if (a.fold()) window.foldRail();
        window.focusEasel();
        if (reading != null) bench.opener().open(reading);
        else if (a.project() != null) bench.opener().open(a.project());
        if (a.shot() == null) return;
        bench.easel().frameProperty().addListener(new javafx.beans.value.ChangeListener<>() {
            @Override
            public void changed(javafx.beans.value.ObservableValue<? extends bake.studio.live.LiveRender.Frame> o,
                    bake.studio.live.LiveRender.Frame x, bake.studio.live.LiveRender.Frame f) {
                long started = java.lang.management.ManagementFactory.getRuntimeMXBean().getStartTime();
                System.err.printf(java.util.Locale.ROOT, "bake: first picture %.1f s after the start%n",
                        (System.currentTimeMillis() - started) / 1000.0);
                bench.easel().frameProperty().removeListener(this);
            }
        });
        if (a.project() == null) shootAfter(scene, a);
        bench.notices().lastProperty().addListener((o, x, m) -> {
            if (m != null && m.error() && bench.project() == null) {
                System.err.println("bake: " + m.text());
                System.exit(2);
            }
        });
        bench.projectProperty().addListener((o, before, p) -> {
            if (before != null || p == null) return;
            if (a.view() != null) {
                if (p.view(a.view()) == null) {
                    System.err.println("bake: there is no view '" + a.view() + "'");
                    System.exit(2);
                }
                Platform.runLater(() -> bench.views().choose(a.view()));
            }
            if (a.proof()) Platform.runLater(() -> Platform.runLater(() -> bench.prover().start()));
            shootAfter(scene, a);
        });
    }

    private void hang(Arguments a) {
        for (int i = 0; i < Math.min(2, a.hung().length); i++) {
            int wanted = a.hung()[i];
            var at = i == 0 ? bench.prints().aProperty() : bench.prints().bProperty();
            bench.prints().all().stream().filter(p -> p.number() == wanted).findFirst().ifPresent(at::set);
        }
        bench.comparing().modeProperty().set(a.compare());
        if (a.takeBack() && bench.prints().aProperty().get() != null) bench.takingBack().ask(bench.prints().aProperty().get());
    }

    private void shootAfter(Scene scene, Arguments a) {
        PauseTransition ready = new PauseTransition(Duration.seconds(Math.min(5, a.seconds() / 2)));
        ready.setOnFinished(e -> {
            if (a.lamp() != null) bench.lighting().lamps().chosenProperty().set(a.lamp());
            hang(a);
            if (a.openings()) bench.lighting().openings().find();
            for (String id : a.press()) if (scene.lookup("#" + id) instanceof javafx.scene.control.ButtonBase b) b.fire();
            Platform.runLater(() -> window.scroll(a.scroll()));
        });
        ready.play();
        PauseTransition t = new PauseTransition(Duration.seconds(a.seconds()));
        t.setOnFinished(e -> {
            try {
                shoot(scene, a.shot());
                System.err.println("bake: wrote " + a.shot());
                Platform.exit();
            } catch (IOException x) {
                System.err.println("bake: " + x.getMessage());
                System.exit(1);
            }
        });
        t.play();
    }

    /** Writes what a scene shows as a PNG. */
    static void shoot(Scene scene, Path file) throws IOException {
        WritableImage i = scene.snapshot(null);
        int w = (int) i.getWidth(), h = (int) i.getHeight();
        int[] argb = new int[w * h];
        PixelReader r = i.getPixelReader();
        r.getPixels(0, 0, w, h, javafx.scene.image.PixelFormat.getIntArgbInstance(), argb, 0, w);
        BufferedImage out = DisplayPicture.image8(w, h, argb, false);
        DisplayPicture.writePng(file, out, 96);
    }

    @Override
    public void stop() {
        window.looks().leave();
        if (bench != null) bench.close();
    }
}
