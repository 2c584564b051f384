package bake.desktop.station.light;

import bake.desktop.parts.Ui;
import bake.desktop.text.Lamps;
import bake.desktop.work.Lighting;
import bake.formats.project.LampSpec;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.VBox;

/** The project's lamps by group; the one that is worked on opens up. */
final class LampsCard extends VBox {
    private static final int SHOWN = 8;
    private final LightWork work;
    private final Lighting lighting;
    private final LampEditor editor;
    private String shown = "";

    LampsCard(LightWork work) {
        this.work = work;
        lighting = work.lighting();
        editor = new LampEditor(work);
        getStyleClass().add("card");
        setSpacing(5);
        setId("lamps");
        work.document().projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || a.lamps() != b.lamps()) refresh();
        });
        lighting.lamps().chosenProperty().addListener((o, a, b) -> refresh());
        lighting.lamps().choice().allProperty().addListener((o, a, b) -> refresh());
        lighting.toolProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private void refresh() {
        if (work.document().project() == null) return;
        List<LampSpec> all = work.document().project().lamps();
        String chosen = lighting.lamps().chosenProperty().get();
        // While one lamp's dials move only its values change; its controls must stay under the hand.
        String now = lighting.toolProperty().get() + "|" + chosen + "|" + lighting.lamps().choice().allProperty().get()
                + all.stream().map(l -> l.name() + "/" + l.group() + "/" + l.like() + "/" + l.kind()).toList();
        editor.show(lighting.lamps().find(chosen));
        if (now.equals(shown)) return;
        shown = now;
        Ui.refill(this, () -> fill(all, chosen));
    }

    private void fill(List<LampSpec> all, String chosen) {
        MenuButton add = new MenuButton("Add\u2026");
        add.setId("add-lamp");
        add.getStyleClass().add("small");
        for (String k : Lamps.KINDS) {
            MenuItem i = new MenuItem(k.equals("ies") ? "Photometric lamp (.ies)\u2026" : Lamps.title(k));
            i.setId("add-" + k);
            i.setOnAction(e -> {
                if (k.equals("ies")) editor.chooseFile(f -> lighting.lamps().placeFile(f));
                else lighting.lamps().place(k);
            });
            add.getItems().add(i);
        }
        getChildren().setAll(Ui.row(Ui.label("Lamps", "card-title"), Ui.spring(), add));
        String wanted = switch (lighting.toolProperty().get()) {
            case LAMP -> "Click a surface in the picture: the lamp stands on it.";
            case MOVE -> "Click where the lamp goes.";
            case AIM -> "Click what the lamp is to shine on.";
            default -> null;
        };
        if (wanted != null) {
            Label l = Ui.note(wanted);
            l.getStyleClass().add("needs-hand");
            getChildren().add(Ui.row(l, Ui.spring(), Ui.button("lamp-cancel", "Cancel", null,
                    () -> lighting.toolProperty().set(Lighting.Tool.LOOK), "small")));
        }
        if (all.isEmpty()) getChildren().add(Ui.note("None yet. Add one and click where it stands."));
        Set<String> also = lighting.lamps().choice().allProperty().get();
        Map<String, List<LampSpec>> groups = new LinkedHashMap<>();
        for (LampSpec l : all) groups.computeIfAbsent(l.groupName(), g -> new ArrayList<>()).add(l);
        groups.forEach((g, lamps) -> {
            getChildren().add(Ui.row(Ui.label(g, "line-name"), Ui.spring(), Ui.button("lamps-of-" + LightStrip.id(g),
                    "all " + lamps.size(), "Chooses all lamps of this group, to change them together",
                    () -> lighting.lamps().choice().choose(lamps.stream().map(LampSpec::name).toList()), "small", "more")));
            int n = 0;
            for (LampSpec l : lamps) {
                boolean here = l.name().equals(chosen);
                if (n++ >= SHOWN && !here && !also.contains(l.name())) continue;
                Button b = Ui.button("lamp-" + LightStrip.id(l.name()), l.name() + (l.like() == null ? "" : "  (as " + l.like() + ")"),
                        "With Ctrl: together with those that are chosen", () -> lighting.lamps().chosenProperty().set(here ? null : l.name()), "list-line");
                if (here || also.contains(l.name())) b.getStyleClass().add("list-here");
                b.addEventFilter(MouseEvent.MOUSE_CLICKED, e -> {
                    if (e.isShortcutDown()) lighting.lamps().choice().toggle(l.name());
                });
                b.addEventFilter(MouseEvent.MOUSE_RELEASED, e -> {
                    // The button itself would choose it alone.
                    if (e.isShortcutDown()) b.disarm();
                });
                b.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
                    if (!e.isShortcutDown() || e.getCode() != KeyCode.SPACE) return;
                    lighting.lamps().choice().toggle(l.name());
                    e.consume();
                });
                b.setMaxWidth(Double.MAX_VALUE);
                b.setMinWidth(0);
                getChildren().add(b);
                if (here) getChildren().add(editor);
            }
            if (lamps.size() > SHOWN) getChildren()
                    .add(Ui.note("and " + (lamps.size() - SHOWN) + " more; click one in the picture to work on it"));
        });
    }
}
