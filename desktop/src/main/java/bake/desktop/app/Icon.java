package bake.desktop.app;

import java.util.List;
import java.util.stream.Stream;
import javafx.scene.image.Image;
import javafx.scene.image.PixelWriter;
import javafx.scene.image.WritableImage;

/** The window's icon, drawn at each size: light that falls through an opening onto a floor. */
final class Icon {
    private static final int INK = 0xFF1F2429, PAPER = 0xFFF4F1EA, KILN = 0xFFB8472A, FINE = 4;

    private Icon() {}

    static List<Image> all() {
        return Stream.of(16, 32, 48, 64, 128, 256).map(Icon::of).toList();
    }

    private static Image of(int size) {
        WritableImage image = new WritableImage(size, size);
        PixelWriter w = image.getPixelWriter();
        for (int y = 0; y < size; y++)
            for (int x = 0; x < size; x++) {
                int r = 0, g = 0, b = 0;
                for (int s = 0; s < FINE * FINE; s++) {
                    int c = colour((x + (s % FINE + 0.5) / FINE) / size, (y + (s / FINE + 0.5) / FINE) / size);
                    r += c >> 16 & 255;
                    g += c >> 8 & 255;
                    b += c & 255;
                }
                int n = FINE * FINE;
                w.setArgb(x, y, 255 << 24 | r / n << 16 | g / n << 8 | b / n);
            }
        return image;
    }

    private static int colour(double x, double y) {
        boolean opening = x > 0.18 && x < 0.46 && y > 0.14 && y < 0.52;
        // The opening's picture on the floor, slanted as the light falls.
        double along = (y - 0.64) / 0.2, left = 0.34 + 0.16 * along;
        boolean floor = along > 0 && along < 1 && x > left && x < left + 0.42;
        boolean bar = opening && Math.abs(x - 0.32) < 0.02;
        return bar ? INK : opening ? PAPER : floor ? KILN : INK;
    }
}
