package bake.desktop.app;

import bake.desktop.easel.Easel;
import bake.desktop.easel.Welcome;
import bake.desktop.parts.Field;
import bake.desktop.parts.WrongInput;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.user.RecentProjects;
import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.geometry.Pos;
import javafx.scene.Scene;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.InputEvent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.text.Font;
import javafx.stage.Stage;

/** The window: dimension line, rail, easel with its strip and foot, sheet and title block. */
public final class MainWindow {
    /** With the shortcut key, what a text field does by itself. */
    private static final Set<KeyCode> EDITING = EnumSet.of(KeyCode.C, KeyCode.V, KeyCode.X, KeyCode.A, KeyCode.Z, KeyCode.LEFT,
            KeyCode.RIGHT, KeyCode.BACK_SPACE, KeyCode.DELETE);
    private final Workbench bench;
    private final Stage stage;
    private final BorderPane root = new BorderPane();
    private final PictureRail rail;
    private final BooleanProperty railShown = new SimpleBooleanProperty(true);
    private final Looks looks;
    private final FileChoices files;
    private final Stations stations;
    private final StackPane strip = new StackPane();
    private final ScrollPane sheet = new ScrollPane();
    private final Easel easel;
    private final VBox center;
    private final NoticeStack notices;
    private final Pages pages = new Pages();
    private final RecentProjects recent;
    /** The easel or the finals, with what is said over it. */
    private final StackPane stand = new StackPane();
    /** The project that was opened last. */
    private Path shown;

    /**
     * @param recent the list that opened projects go to
     * @param preferences the file that looks are kept in, or null for none
     */
    MainWindow(Workbench bench, Stage stage, RecentProjects recent, Path preferences) {
        this.recent = recent;
        looks = new Looks(preferences, bench::inBackground, bench.notices()::fail);
        files = new FileChoices(bench, stage);
        this.bench = bench;
        this.stage = stage;
        for (String f : new String[] {"Inter-Regular.otf", "Inter-Bold.otf", "NotoMono-Regular.ttf"})
            Font.loadFont(MainWindow.class.getResourceAsStream((f.startsWith("Noto") ? "/bake/fonts/" : "/bake/desktop/fonts/") + f), 13);
        DimensionLine line = new DimensionLine(bench);
        rail = new PictureRail(bench);
        easel = new Easel(bench, new Welcome.Ways() {
            @Override
            public void chooseModel() {
                files.chooseModel();
            }

            @Override
            public void chooseProject() {
                files.chooseProject();
            }

            @Override
            public List<Path> recent() {
                return recent.list();
            }
        });
        notices = new NoticeStack(bench);
        StackPane.setAlignment(notices, Pos.BOTTOM_LEFT);
        stand.setMinHeight(0);
        VBox.setVgrow(stand, Priority.ALWAYS);
        center = new VBox(rail, stand, strip, new Foot(bench));
        center.getStyleClass().add("center");
        stations = new Stations(bench, easel.hand());
        sheet.setFitToWidth(true);
        sheet.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        sheet.getStyleClass().add("sheet-scroll");
        VBox.setVgrow(sheet, Priority.ALWAYS);
        VBox right = new VBox(sheet, new TitleBlock(bench));
        right.getStyleClass().add("sheet");
        rail.visibleProperty().bind(railShown);
        rail.managedProperty().bind(railShown);
        root.setTop(new VBox(new MainMenu(bench, recent, files, looks, pages, railShown), line));
        root.setCenter(center);
        root.setRight(right);
        root.getStyleClass().add("window");
        bench.stationProperty().addListener((o, a, b) -> show(b));
        bench.projectProperty().addListener((o, a, b) -> {
            title();
            if (b != null && !bench.folder().equals(shown)) opened(shown = bench.folder());
            if (b == null) shown = null;
        });
        bench.document().changedProperty().addListener((o, a, b) -> title());
        show(bench.stationProperty().get());
        files.dropOn(root);
    }

    /** The window's scene, with its style and keys. */
    public Scene scene(double w, double h) {
        Scene s = new Scene(root, w, h);
        s.addEventFilter(InputEvent.ANY, e -> bench.finals().queue().present());
        s.addEventFilter(KeyEvent.KEY_PRESSED, pages::key);
        // A command takes what is being typed, too.
        s.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode().isFunctionKey() || e.isShortcutDown() && !e.getCode().isModifierKey() && !EDITING.contains(e.getCode()))
                Field.commitIn(s);
        });
        s.addEventHandler(WrongInput.WRONG, e -> bench.notices().complain(e.text()));
        looks.dress(s);
        return s;
    }

    Looks looks() {
        return looks;
    }

    void focusEasel() {
        easel.requestFocus();
    }

    void scroll(double share) {
        sheet.applyCss();
        sheet.layout();
        sheet.setVvalue(share);
    }

    void foldRail() {
        railShown.set(false);
    }

    private void title() {
        stage.setTitle(bench.project() == null ? "Bake" : bench.project().name() + (bench.document().changedProperty().get() ? " \u2022" : "")
                + " \u2013 Bake");
    }

    private void show(Station s) {
        boolean finalsHere = s == Station.FINALS;
        stand.getChildren().setAll(finalsHere ? stations.finals() : easel, notices, pages);
        center.getChildren().setAll(finalsHere ? List.of(stand, center.getChildren().getLast())
                : List.of(rail, stand, strip, center.getChildren().getLast()));
        if (!finalsHere) strip.getChildren().setAll(stations.strip(s));
        sheet.setContent(stations.sheet(s));
        sheet.setVvalue(0);
    }

    /** Remembers what was opened, on another thread. */
    private void opened(Path folder) {
        bench.inBackground(() -> {
            try {
                recent.opened(folder);
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Takes a dropped file. */
    void take(Path p) {
        files.take(p);
    }
}
