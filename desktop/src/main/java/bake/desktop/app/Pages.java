package bake.desktop.app;

import bake.desktop.parts.Ui;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuBar;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** Pages to read over the picture: all keys, and what Bake is made of. Escape closes them. */
final class Pages extends StackPane {
    /** Keys that no menu lists. */
    private static final String[][] MORE = {{"Arrow keys, Page Up, Page Down", "walk, rise and sink (View)"},
            {"Mouse wheel, + and -", "enlarge the picture; the wheel dollies (View)"},
            {"Z, Double-click", "the whole picture, or its pixels"}, {"Arrow keys, Shift for more", "region, wipe, lamp, portal, light meter"},
            {"Ctrl+Click, Ctrl+Space", "choose lamps together"}, {"Alt+Up, Alt+Down", "order of views"}, {"F2, Delete", "rename, delete a print"},
            {"Drag", "orbit, look or walk (View); lamps and portals (Light)"},
            {"Shift+Click, Shift+Enter", "hang a proof as B"}, {"Double-click a name", "return to the usual value"},
            {"Escape", "leave a tool, or what is typed"}, {"Enter, Tab", "take what is typed"}};
    private static final String[][] PARTS = {{"Inter", "SIL Open Font License 1.1"}, {"Noto Mono", "SIL Open Font License 1.1"},
            {"JavaFX", "GPL 2 with Classpath Exception"}, {"LWJGL with Assimp", "BSD 3-Clause"},
            {"Jackson, JSON schema validator, picocli, appdirs", "Apache License 2.0"}, {"Logback, SLF4J", "EPL 1.0 or LGPL 2.1, MIT"},
            {"solarpositioning", "MIT"}, {"earcut4j", "ISC"}, {"TwelveMonkeys ImageIO", "BSD 3-Clause"}};

    Pages() {
        setId("pages");
        getStyleClass().add("pages");
        Ui.show(this, false);
    }

    /** All keys of the menus, and those that no menu lists. */
    void keys(MenuBar menu) {
        List<Node> lines = new ArrayList<>();
        for (Menu m : menu.getMenus()) add(m, lines);
        for (String[] k : MORE) lines.add(Ui.line(k[1], Ui.label(k[0], "figure")));
        show("Keys", lines);
    }

    private static void add(Menu m, List<Node> lines) {
        for (MenuItem i : m.getItems()) {
            if (i instanceof Menu inner) add(inner, lines);
            else if (i.getAccelerator() != null) lines.add(Ui.line(i.getText(), Ui.label(i.getAccelerator().getDisplayText(), "figure")));
        }
    }

    void about() {
        List<Node> lines = new ArrayList<>();
        lines.add(Ui.note("Bake " + version() + ", on Java " + Runtime.version().feature() + ", " + Runtime.getRuntime().availableProcessors()
                + " processors, " + Runtime.getRuntime().maxMemory() / (1 << 20) + " MB for Java."));
        lines.add(Ui.note("What goes wrong is written to " + System.getProperty("bake.log", "bake.log") + "."));
        lines.add(Ui.label("Shipped with it", "card-title"));
        for (String[] p : PARTS) lines.add(Ui.line(p[0], Ui.label(p[1], "figure")));
        show("About Bake", lines);
    }

    private static String version() {
        String v = Pages.class.getPackage().getImplementationVersion();
        return v == null ? "0.1.0" : v;
    }

    private void show(String title, List<Node> lines) {
        var close = Ui.button("pages-close", "Close", null, this::close, "small");
        VBox card = Ui.card(title, close, lines.toArray(Node[]::new));
        ScrollPane scroll = new ScrollPane(card);
        scroll.setFitToWidth(true);
        scroll.setMaxSize(560, Region.USE_PREF_SIZE);
        scroll.getStyleClass().add("page");
        getChildren().setAll(scroll);
        Ui.show(this, true);
        close.requestFocus();
    }

    /** Takes Escape while a page is open, wherever the focus is. */
    void key(KeyEvent e) {
        if (e.getCode() != KeyCode.ESCAPE || !isVisible()) return;
        close();
        e.consume();
    }

    private void close() {
        Ui.show(this, false);
        getChildren().clear();
    }
}
