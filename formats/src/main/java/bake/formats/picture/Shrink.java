package bake.formats.picture;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;

/** Pictures made smaller, for pages and sheets. */
public final class Shrink {
    private Shrink() {}

    /** A picture at most so wide and high, its ratio kept, on white; one that is smaller stays as large as it is. */
    public static BufferedImage within(BufferedImage i, int width, int height) {
        double k = Math.min(1, Math.min(width / (double) i.getWidth(), height / (double) i.getHeight()));
        int w = Math.max(1, (int) Math.round(i.getWidth() * k)), h = Math.max(1, (int) Math.round(i.getHeight() * k));
        // Halves first: one large step would leave pixels out.
        BufferedImage from = i;
        while (from.getWidth() > 2 * w && from.getHeight() > 2 * h)
            from = scaled(from, from.getWidth() / 2, from.getHeight() / 2, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        return scaled(from, w, h, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
    }

    private static BufferedImage scaled(BufferedImage from, int w, int h, Object how) {
        BufferedImage out = new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = out.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, how);
        g.setColor(Color.WHITE);
        g.fillRect(0, 0, w, h);
        g.drawImage(from, 0, 0, w, h, null);
        g.dispose();
        return out;
    }
}
