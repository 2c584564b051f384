package bake.desktop.easel;

import bake.desktop.parts.Ui;
import bake.desktop.work.PrintLight;
import bake.formats.picture.Raster;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.PixelReader;

/** What the pixel under the pointer has in each of the hung prints: codes as they are shown, and light. */
final class PixelValues {
    final Label text = Ui.label("", "enlarged");
    private final Hanging hanging;
    private final PrintLight light;

    PixelValues(Hanging hanging, PrintLight light) {
        this.hanging = hanging;
        this.light = light;
        text.setId("pixel-values");
        text.setMouseTransparent(true);
        text.setVisible(false);
    }

    /**
     * @param u place on the picture, 0 left to 1 right; outside of it nothing is said
     * @param v 0 top to 1 bottom
     */
    void at(double u, double v) {
        Image a = hanging.image(), b = hanging.secondImage();
        double x = hanging.across() == 2 ? u * 2 % 1 : u;
        boolean there = hanging.hangs() && a != null && u >= 0 && u < 1 && v >= 0 && v < 1;
        text.setVisible(there);
        if (!there) return;
        PrintLight.Light l = light.lightProperty().get();
        String first = value("A", a, l == null ? null : l.a() == null ? l.ofB() : l.ofA(), x, v);
        String second = b == null ? "" : "    " + value("B", b, l == null ? null : l.ofB(), x, v);
        text.setText((int) (x * a.getWidth()) + ", " + (int) (v * a.getHeight()) + "    " + first + second);
        text.autosize();
    }

    private static String value(String name, Image i, Raster r, double u, double v) {
        PixelReader p = i.getPixelReader();
        if (p == null) return "";
        int c = p.getArgb((int) (u * i.getWidth()), (int) (v * i.getHeight()));
        String codes = String.format(Locale.ROOT, "%s  %d %d %d", name, c >> 16 & 255, c >> 8 & 255, c & 255);
        if (r == null) return codes;
        int o = 3 * ((int) (v * r.height()) * r.width() + (int) (u * r.width()));
        double lum = 0.2126 * r.rgb()[o] + 0.7152 * r.rgb()[o + 1] + 0.0722 * r.rgb()[o + 2];
        return codes + String.format(Locale.ROOT, "  %.4g cd/m\u00b2", lum);
    }
}
