package bake.desktop.app;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.image.ImageView;
import javafx.scene.layout.BackgroundFill;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.paint.Paint;
import javafx.scene.text.Text;

/** Texts of a scene that stand out too little from what lies behind them, by WCAG 2.1, success criterion 1.4.3. */
final class Contrast {
    private Contrast() {}

    /** Each such text with its ratio; disabled controls and pictures do not count. */
    static List<String> tooLittle(Node root, double least) {
        List<String> out = new ArrayList<>();
        walk(root, Color.WHITE, least, out);
        return out;
    }

    private static void walk(Node n, Color behind, double least, List<String> out) {
        if (!n.isVisible() || n.isDisabled() || n instanceof ImageView || n.getOpacity() < 0.99) return;
        Color ground = n instanceof Region r ? over(r, behind) : behind;
        if (n instanceof Text t && !t.getText().isBlank() && t.getFill() instanceof Color c) {
            double ratio = ratio(blend(c, ground), ground);
            if (ratio < least) out.add(String.format("%.2f '%s' %s on %s in %s", ratio, t.getText(), c, ground, owner(t)));
        }
        if (n instanceof Parent p) for (Node k : p.getChildrenUnmodifiable()) walk(k, ground, least, out);
    }

    private static String owner(Node n) {
        for (Node k = n; k != null; k = k.getParent()) if (k instanceof Labeled || k instanceof TextInputControl) return k.toString();
        return String.valueOf(n.getParent());
    }

    private static Color over(Region r, Color behind) {
        Color c = behind;
        if (r.getBackground() != null) for (BackgroundFill f : r.getBackground().getFills()) {
            Paint p = f.getFill();
            if (p instanceof Color k) c = blend(k, c);
        }
        return c;
    }

    private static Color blend(Color c, Color behind) {
        return behind.interpolate(Color.color(c.getRed(), c.getGreen(), c.getBlue()), c.getOpacity());
    }

    private static double ratio(Color a, Color b) {
        double x = luminance(a), y = luminance(b);
        return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
    }

    private static double luminance(Color c) {
        return 0.2126 * linear(c.getRed()) + 0.7152 * linear(c.getGreen()) + 0.0722 * linear(c.getBlue());
    }

    private static double linear(double v) {
        return v <= 0.03928 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
    }
}
