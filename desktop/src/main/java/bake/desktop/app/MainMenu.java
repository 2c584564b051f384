package bake.desktop.app;

import bake.desktop.work.Document;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.user.RecentProjects;
import javafx.beans.property.BooleanProperty;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuBar;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.input.KeyCombination;

/** All commands with their keys. */
final class MainMenu extends MenuBar {
    private static final int TEXT_STEP = 10;
    private final Workbench bench;
    private final RecentProjects recent;

    /** @param rail whether the picture rail is shown */
    MainMenu(Workbench bench, RecentProjects recent, FileChoices files, Looks looks, Pages pages, BooleanProperty rail) {
        this.bench = bench;
        this.recent = recent;
        setId("menu");
        Menu window = new Menu("Window"), help = new Menu("Help");
        window.getItems().addAll(check("Picture rail", "F7", rail), check("Evening colours", null, looks.eveningProperty()),
                check("Live picture at half size", null, bench.easel().halfProperty()),
                new SeparatorMenuItem(), item("Larger text", "Shortcut+Shift+EQUALS", () -> looks.larger(TEXT_STEP)),
                item("Smaller text", "Shortcut+Shift+MINUS", () -> looks.larger(-TEXT_STEP)),
                item("Text as usual", "Shortcut+Shift+0", () -> looks.textSizeProperty().set(100)));
        help.getItems().addAll(item("Keys", "F1", () -> pages.keys(this)), item("About Bake", null, pages::about));
        getMenus().addAll(project(files), edit(), go(), window, help);
    }

    private Menu project(FileChoices files) {
        Menu m = new Menu("Project"), before = new Menu("Open again");
        before.setId("recent");
        MenuItem copy = item("Save a copy\u2026", "Shortcut+Shift+S", files::chooseCopy),
                close = item("Close", "Shortcut+W", () -> bench.opener().close());
        m.getItems().addAll(item("Open project\u2026", "Shortcut+O", files::chooseProject),
                item("New from a model\u2026", "Shortcut+N", files::chooseModel),
                before, item("Open the demo library", null, () -> bench.opener().open("demo")),
                new SeparatorMenuItem(), item("Save", "Shortcut+S", bench.document()::save), copy, close, new SeparatorMenuItem(),
                item("Quit", "Shortcut+Q", () -> bench.leaving().quit()));
        m.setOnShowing(e -> again(before));
        again(before);
        return m;
    }

    /** The projects that were opened last. */
    private void again(Menu menu) {
        menu.getItems().setAll(recent.list().stream().map(p -> item(p.getFileName() + "   " + p.getParent(), null,
                () -> bench.opener().open(p.toString()))).toList());
        menu.setDisable(menu.getItems().isEmpty());
    }

    private Menu edit() {
        Menu m = new Menu("Edit");
        Document d = bench.document();
        MenuItem undo = item("Undo", "Shortcut+Z", d::undo), redo = item("Redo", "Shortcut+Shift+Z", d::redo);
        m.setOnShowing(e -> {
            undo.setDisable(!d.canUndo());
            redo.setDisable(!d.canRedo());
            undo.setText(d.canUndo() ? "Undo: " + d.session().undoes() : "Undo");
            redo.setText(d.canRedo() ? "Redo: " + d.session().redoes() : "Redo");
        });
        // Menu items that are greyed out while the menu is closed would swallow their keys.
        m.setOnHidden(e -> {
            undo.setDisable(false);
            redo.setDisable(false);
        });
        m.getItems().addAll(undo, redo);
        return m;
    }

    private Menu go() {
        Menu m = new Menu("Go");
        for (Station s : Station.values())
            m.getItems().add(item(s.title(), "Shortcut+" + (s.ordinal() + 1), () -> bench.stationProperty().set(s)));
        m.getItems().addAll(new SeparatorMenuItem(), item("Make a proof", "F5", () -> bench.prover().start()),
                item("Next view", "F8", () -> bench.views().step(1)),
                item("View before", "Shift+F8", () -> bench.views().step(-1)));
        return m;
    }

    private static CheckMenuItem check(String text, String keys, BooleanProperty of) {
        CheckMenuItem i = new CheckMenuItem(text);
        if (keys != null) i.setAccelerator(KeyCombination.valueOf(keys));
        i.selectedProperty().bindBidirectional(of);
        return i;
    }

    private static MenuItem item(String text, String keys, Runnable action) {
        MenuItem i = new MenuItem(text);
        if (keys != null) i.setAccelerator(KeyCombination.valueOf(keys));
        i.setOnAction(e -> action.run());
        return i;
    }
}
