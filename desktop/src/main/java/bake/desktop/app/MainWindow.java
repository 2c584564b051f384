package bake.desktop.app;

import bake.desktop.easel.Easel;
import bake.desktop.parts.Field;
import bake.desktop.parts.WrongInput;
import bake.desktop.station.finals.FinalsPane;
import bake.desktop.station.finals.FinalsSheet;
import bake.desktop.station.light.LightSheet;
import bake.desktop.station.light.LightStrip;
import bake.desktop.station.model.ModelSheet;
import bake.desktop.station.model.ModelStrip;
import bake.desktop.station.prove.ProveSheet;
import bake.desktop.station.prove.ProveStrip;
import bake.desktop.station.view.ViewSheet;
import bake.desktop.station.view.ViewStrip;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.user.RecentProjects;
import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuBar;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.text.Font;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
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
    private final CheckMenuItem railShown = new CheckMenuItem("Picture rail"), dark = new CheckMenuItem("Evening colours");
    private final Map<Station, Node> strips = new EnumMap<>(Station.class), sheets = new EnumMap<>(Station.class);
    private final StackPane strip = new StackPane();
    private final ScrollPane sheet = new ScrollPane();
    private final Easel easel;
    private final VBox center;
    private final FinalsPane finals;
    private final NoticeStack notices;
    private final Pages pages = new Pages();
    private final RecentProjects recent;
    /** The easel or the finals, with what is said over it. */
    private final StackPane stand = new StackPane();
    /** The project that was opened last. */
    private Path shown;

    public MainWindow(Workbench bench, Stage stage) {
        this(bench, stage, new RecentProjects());
    }

    /** @param recent the list that opened projects go to */
    MainWindow(Workbench bench, Stage stage, RecentProjects recent) {
        this.recent = recent;
        this.bench = bench;
        this.stage = stage;
        for (String f : new String[] {"Inter-Regular.otf", "Inter-Bold.otf", "NotoMono-Regular.ttf"})
            Font.loadFont(MainWindow.class.getResourceAsStream("/bake/desktop/fonts/" + f), 13);
        DimensionLine line = new DimensionLine(bench);
        rail = new PictureRail(bench);
        easel = new Easel(bench, line::marking, this::chooseModel);
        notices = new NoticeStack(bench);
        StackPane.setAlignment(notices, Pos.BOTTOM_LEFT);
        stand.setMinHeight(0);
        VBox.setVgrow(stand, Priority.ALWAYS);
        center = new VBox(rail, stand, strip, new Foot(bench));
        center.getStyleClass().add("center");
        finals = new FinalsPane(bench);
        strips.put(Station.MODEL, new ModelStrip(bench));
        strips.put(Station.LIGHT, new LightStrip(bench));
        strips.put(Station.VIEW, new ViewStrip(bench, easel.hand()));
        strips.put(Station.PROVE, new ProveStrip(bench));
        sheets.put(Station.MODEL, new ModelSheet(bench));
        sheets.put(Station.LIGHT, new LightSheet(bench));
        sheets.put(Station.VIEW, new ViewSheet(bench));
        sheets.put(Station.PROVE, new ProveSheet(bench));
        sheets.put(Station.FINALS, new FinalsSheet(bench));
        sheet.setFitToWidth(true);
        sheet.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        sheet.getStyleClass().add("sheet-scroll");
        VBox.setVgrow(sheet, Priority.ALWAYS);
        VBox right = new VBox(sheet, new TitleBlock(bench));
        right.getStyleClass().add("sheet");
        right.setPrefWidth(330);
        right.setMinWidth(330);
        right.setMaxWidth(330);
        MenuBar menu = menu();
        VBox top = new VBox(menu, line);
        root.setTop(top);
        root.setCenter(center);
        root.setRight(right);
        root.getStyleClass().add("window");
        bench.stationProperty().addListener((o, a, b) -> show(b));
        bench.projectProperty().addListener((o, a, b) -> {
            title();
            if (b != null && !bench.folder().equals(shown)) opened(shown = bench.folder());
        });
        bench.changedProperty().addListener((o, a, b) -> title());
        show(bench.stationProperty().get());
        drop();
    }

    /** The window's scene, with its style and keys. */
    public Scene scene(double w, double h) {
        Scene s = new Scene(root, w, h);
        s.addEventFilter(KeyEvent.KEY_PRESSED, pages::key);
        // A command takes what is being typed, too.
        s.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode().isFunctionKey() || e.isShortcutDown() && !e.getCode().isModifierKey() && !EDITING.contains(e.getCode()))
                Field.commitIn(s);
        });
        s.addEventHandler(WrongInput.WRONG, e -> bench.notices().complain(e.text()));
        s.getStylesheets().add(MainWindow.class.getResource("/bake/desktop/bake.css").toExternalForm());
        return s;
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
        railShown.setSelected(false);
    }

    private void title() {
        stage.setTitle(bench.project() == null ? "Bake" : bench.project().name() + (bench.changedProperty().get() ? " \u2022" : "")
                + " \u2013 Bake");
    }

    private void show(Station s) {
        boolean finalsHere = s == Station.FINALS;
        stand.getChildren().setAll(finalsHere ? finals : easel, notices, pages);
        center.getChildren().setAll(finalsHere ? List.of(stand, center.getChildren().getLast())
                : List.of(rail, stand, strip, center.getChildren().getLast()));
        if (!finalsHere) strip.getChildren().setAll(strips.get(s));
        sheet.setContent(sheets.get(s));
        sheet.setVvalue(0);
    }

    private MenuBar menu() {
        Menu before = new Menu("Open again"), help = new Menu("Help");
        before.setId("recent");
        Menu file = new Menu("Project"), edit = new Menu("Edit"), go = new Menu("Go"), look = new Menu("Window");
        MenuItem undo = item("Undo", "Shortcut+Z", bench::undo), redo = item("Redo", "Shortcut+Shift+Z", bench::redo);
        edit.setOnShowing(e -> {
            undo.setDisable(!bench.canUndo());
            redo.setDisable(!bench.canRedo());
            undo.setText(bench.canUndo() ? "Undo: " + bench.session().undoes() : "Undo");
            redo.setText(bench.canRedo() ? "Redo: " + bench.session().redoes() : "Redo");
        });
        // Menu items that are greyed out while the menu is closed would swallow their keys.
        edit.setOnHidden(e -> {
            undo.setDisable(false);
            redo.setDisable(false);
        });
        file.getItems().addAll(item("Open project\u2026", "Shortcut+O", this::chooseProject),
                item("New from a model\u2026", "Shortcut+N", this::chooseModel),
                before, item("Open the demo library", null, () -> bench.open("demo")),
                new SeparatorMenuItem(), item("Save", "Shortcut+S", bench::save), new SeparatorMenuItem(),
                item("Quit", "Shortcut+Q", () -> bench.leaving().quit()));
        edit.getItems().addAll(undo, redo);
        for (Station s : Station.values())
            go.getItems().add(item(s.title(), "Shortcut+" + (s.ordinal() + 1), () -> bench.stationProperty().set(s)));
        go.getItems().addAll(new SeparatorMenuItem(), item("Make a proof", "F5", () -> bench.prover().start()));
        railShown.setSelected(true);
        railShown.setAccelerator(KeyCombination.valueOf("F7"));
        rail.visibleProperty().bind(railShown.selectedProperty());
        rail.managedProperty().bind(railShown.selectedProperty());
        dark.selectedProperty().addListener((o, a, b) -> {
            root.getStyleClass().remove("evening");
            if (b) root.getStyleClass().add("evening");
        });
        look.getItems().addAll(railShown, dark);
        file.setOnShowing(e -> again(before));
        again(before);
        MenuBar m = new MenuBar(file, edit, go, look, help);
        help.getItems().addAll(item("Keys", "F1", () -> pages.keys(m)), item("About Bake", null, pages::about));
        m.setId("menu");
        return m;
    }

    /** The projects that were opened last. */
    private void again(Menu menu) {
        menu.getItems().setAll(recent.list().stream().map(p -> item(p.getFileName() + "   " + p.getParent(), null,
                () -> bench.open(p.toString()))).toList());
        menu.setDisable(menu.getItems().isEmpty());
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

    private static MenuItem item(String text, String keys, Runnable action) {
        MenuItem i = new MenuItem(text);
        if (keys != null) i.setAccelerator(KeyCombination.valueOf(keys));
        i.setOnAction(e -> action.run());
        return i;
    }

    private void chooseProject() {
        DirectoryChooser c = new DirectoryChooser();
        c.setTitle("Open a project's folder");
        File f = c.showDialog(stage);
        if (f != null) bench.open(f.getPath());
    }

    private void chooseModel() {
        FileChooser c = new FileChooser();
        c.setTitle("Open a model or a project");
        c.getExtensionFilters().addAll(new FileChooser.ExtensionFilter("Models and projects", "*.gltf", "*.glb", "*.obj", "*.fbx", "*.dae",
                "*.stl", "*.ply", "*.3ds", "*.ifc", "project.json"));
        File f = c.showOpenDialog(stage);
        if (f != null) bench.open(f.getPath());
    }

    private void drop() {
        root.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) e.acceptTransferModes(TransferMode.COPY);
            e.consume();
        });
        root.setOnDragDropped(e -> {
            List<File> files = e.getDragboard().getFiles();
            if (files != null && !files.isEmpty()) take(files.getFirst().toPath());
            e.setDropCompleted(files != null && !files.isEmpty());
            e.consume();
        });
    }

    /** Takes a dropped file: a panorama becomes light, a photometric file a lamp to be placed, everything else is opened. */
    void take(Path p) {
        String n = p.getFileName().toString().toLowerCase(java.util.Locale.ROOT);
        if (n.endsWith(".hdr") || n.endsWith(".exr")) bench.useHdri(p);
        else if (n.endsWith(".ies")) bench.lighting().lamps().placeFile(p);
        else bench.open(p.toString());
    }
}
