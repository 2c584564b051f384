package bake.formats.picture;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Locale;
import org.apache.fontbox.ttf.GlyphData;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;

/**
 * Lines of text on a picture, in a corner, on a dark ground. Letters are drawn from the outlines of a font that ships, so that the machine
 * needs none.
 */
public final class Stamp {
    /** Where it lies. */
    public enum Corner {
        TOP_LEFT, TOP_RIGHT, BOTTOM_LEFT, BOTTOM_RIGHT;

        /** In words: bottom left. */
        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }

        /** @throws IllegalArgumentException naming those there are */
        public static Corner of(String word) {
            for (Corner c : values()) if (c.word().equals(word.replace('-', ' ').toLowerCase(Locale.ROOT))) return c;
            throw new IllegalArgumentException("a stamp lies top left, top right, bottom left or bottom right, not '" + word + "'");
        }
    }

    /** Height of a letter against the picture's height, and the least, pixels. */
    private static final double SIZE = 1 / 42.0, LEAST = 9;
    private static final Color GROUND = new Color(20, 24, 22, 170), INK = new Color(244, 242, 236);
    private static final String FONT = "/bake/fonts/NotoMono-Regular.ttf";
    private static TrueTypeFont font;

    private Stamp() {}

    /** Draws lines onto a picture. */
    public static void draw(BufferedImage on, List<String> lines, Corner corner) {
        if (lines.isEmpty()) return;
        double em = Math.max(LEAST, on.getHeight() * SIZE), pad = em * 0.6, step = em * 1.35, width = 0;
        for (String l : lines) width = Math.max(width, width(l, em));
        // A small picture gets smaller letters rather than a cut line.
        double fit = Math.min(1, (on.getWidth() - 4 * pad) / Math.max(1, width));
        if (fit < 1) {
            em *= fit;
            step *= fit;
            width *= fit;
        }
        double w = width + 2 * pad, h = step * lines.size() + pad;
        boolean left = corner == Corner.TOP_LEFT || corner == Corner.BOTTOM_LEFT, top = corner == Corner.TOP_LEFT
                || corner == Corner.TOP_RIGHT;
        double x = left ? pad : on.getWidth() - w - pad, y = top ? pad : on.getHeight() - h - pad;
        Graphics2D g = on.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(GROUND);
        g.fill(new java.awt.geom.Rectangle2D.Double(x, y, w, h));
        g.setColor(INK);
        for (int i = 0; i < lines.size(); i++) line(g, lines.get(i), x + pad, y + pad / 2 + step * (i + 0.78), em);
        g.dispose();
    }

    /** Draws one line of text from its base line, in the colour that is set. */
    public static void line(Graphics2D g, String text, double x, double y, double em) {
        double at = x;
        try {
            double k = em / font().getUnitsPerEm();
            for (int c : text.codePoints().toArray()) {
                int id = font().getUnicodeCmapLookup().getGlyphId(c);
                GlyphData outline = font().getGlyph().getGlyph(id);
                if (outline != null) g.fill(outline.getPath().createTransformedShape(new AffineTransform(k, 0, 0, -k, at, y)));
                at += font().getAdvanceWidth(id) * k;
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Width of a line of text, in the unit of {@code em}. */
    public static double width(String text, double em) {
        try {
            double w = 0;
            for (int c : text.codePoints().toArray())
                w += font().getAdvanceWidth(font().getUnicodeCmapLookup().getGlyphId(c)) * em / font().getUnitsPerEm();
            return w;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The font that ships, with outlines. */
    public static synchronized TrueTypeFont font() throws IOException {
        if (font == null)
            try (InputStream in = Stamp.class.getResourceAsStream(FONT)) {
                font = new TTFParser().parse(new RandomAccessReadBuffer(in.readAllBytes()));
            }
        return font;
    }
}
