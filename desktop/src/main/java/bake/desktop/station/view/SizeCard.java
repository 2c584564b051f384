package bake.desktop.station.view;

import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.text.Quantity;
import bake.formats.project.View;
import bake.studio.plan.Sizes;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.VBox;

/** The size of the final: in pixels, as a screen, or as paper at some resolution; and what it would be on paper. */
final class SizeCard extends VBox {
    private static final int MOST = 30_000;
    private final ViewWork work;
    private final Field width = new Field("final-width", 66, t -> size(t, 0)), height = new Field("final-height", 66, t -> size(t, 1)),
            dpi = new Field("size-dpi", 50, this::dpi), bleed = new Field("size-bleed", 60, this::bleed);
    private final CheckBox locked = new CheckBox("Keep the shape");
    private final Label paper = Ui.note("");
    /** What paper is turned into pixels with. */
    private double perInch = Sizes.FINE, beyond;

    SizeCard(ViewWork work, Node setting) {
        super(7);
        this.work = work;
        getStyleClass().add("card");
        locked.setId("size-locked");
        locked.setTooltip(Ui.tip("The other side follows, so that the picture's shape stays"));
        MenuButton menu = new MenuButton("Sizes");
        menu.setId("sizes");
        menu.getStyleClass().add("small");
        Menu screens = new Menu("Screens"), a = new Menu("Paper, A"), b = new Menu("Paper, B"), others = new Menu("Paper, North America");
        for (Sizes.Screen s : Sizes.SCREENS) screens.getItems().add(item(s.name() + ", " + s.width() + " \u00d7 " + s.height(), () -> set(s.width(), s.height(), null)));
        for (Sizes.Paper p : Sizes.PAPERS) for (boolean standing : new boolean[] {false, true})
            (p.name().length() > 2 ? others : p.name().startsWith("A") ? a : b).getItems().add(item(p.words() + (standing ? ", standing" : ""), () -> {
                int[] px = p.pixels(perInch, beyond);
                set(px[standing ? 1 : 0], px[standing ? 0 : 1], new View.PrintSpec(perInch, beyond));
            }));
        menu.getItems().addAll(screens, a, b, others);
        dpi.setAccessibleText("Resolution of paper, dpi");
        bleed.setAccessibleText("Bleed of paper");
        dpi.show("300");
        bleed.show("0 mm");
        getChildren().addAll(Ui.row(Ui.label("Final", "card-title"), Ui.spring(), menu), Ui.row(Ui.label("Pixels", "dial-name"), Ui.spring(), width, Ui
                .label("\u00d7"), height), locked,
                Ui.line("Paper, dpi and bleed", Ui.row(dpi, bleed)), paper,
                setting);
    }

    private static MenuItem item(String text, Runnable does) {
        MenuItem i = new MenuItem(text);
        i.setMnemonicParsing(false);
        i.setOnAction(e -> does.run());
        return i;
    }

    private void set(int w, int h, View.PrintSpec print) {
        if (work.document().view() != null) work.document().editView(null, v -> v.withSize(Math.min(w, MOST), Math.min(h, MOST))
                .withPrint(print));
    }

    private void size(String t, int side) {
        int n = (int) Math.rint(Quantity.PIXELS.parse(t, 1, MOST));
        boolean keep = locked.isSelected();
        work.document().editView(null, v -> {
            int[] s = v.size();
            int other = keep ? Math.clamp(Math.round((double) n * s[1 - side] / s[side]), 1, MOST) : s[1 - side];
            return v.withSize(side == 0 ? n : other, side == 0 ? other : n).withPrint(null);
        });
    }

    private void dpi(String t) {
        perInch = Quantity.of("%.0f dpi").parse(t, 20, 2400);
        dpi.show(String.format(java.util.Locale.ROOT, "%.0f", perInch));
    }

    private void bleed(String t) {
        beyond = Quantity.of("%.1f mm").parse(t, 0, 50);
        bleed.show(String.format(java.util.Locale.ROOT, "%.0f mm", beyond));
    }

    void show(View v) {
        if (v.print() != null) {
            perInch = v.print().dpi();
            beyond = v.print().bleed() == null ? 0 : v.print().bleed();
            dpi.show(String.format(java.util.Locale.ROOT, "%.0f", perInch));
            bleed.show(String.format(java.util.Locale.ROOT, "%.0f mm", beyond));
        }
        width.show(Integer.toString(v.size()[0]));
        height.show(Integer.toString(v.size()[1]));
        paper.setText(Sizes.onPaper(v.size()[0], v.size()[1]) + ".");
    }
}
