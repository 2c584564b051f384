package bake.studio.report;

import bake.formats.picture.DisplayPicture;
import bake.formats.picture.Shrink;
import bake.formats.picture.Stamp;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** All pictures of a delivery on one picture, each with a line beneath. */
public final class ContactSheet {
    /** One of them; {@code picture} null where there is none, whose line then says why. */
    public record Cell(String line, BufferedImage picture) {}

    private static final int WIDTH = 620, HEIGHT = 440, GAP = 28, HEAD = 96, LINE = 44;
    private static final double TEXT = 17, TITLE = 30;
    private static final Color PAPER = new Color(250, 249, 246), INK = new Color(31, 36, 41), QUIET = new Color(91, 97, 102),
            EMPTY = new Color(232,
            230, 224);

    private ContactSheet() {}

    /** The sheet, as nearly square as its cells allow. */
    public static BufferedImage draw(String title, List<Cell> cells) {
        int across = Math.max(1, (int) Math.ceil(Math.sqrt(cells.size()))), down = Math.max(1, (cells.size() + across - 1) / across);
        BufferedImage out = new BufferedImage(GAP + across * (WIDTH + GAP), HEAD + down * (HEIGHT + LINE + GAP),
                BufferedImage.TYPE_INT_RGB);
        Graphics2D g = out.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(PAPER);
        g.fillRect(0, 0, out.getWidth(), out.getHeight());
        g.setColor(INK);
        Stamp.line(g, fitting(title, TITLE, out.getWidth() - 2 * GAP), GAP, HEAD * 0.6, TITLE);
        for (int i = 0; i < cells.size(); i++) cell(g, cells.get(i), GAP + i % across * (WIDTH + GAP), HEAD + i / across * (HEIGHT + LINE
                + GAP));
        g.dispose();
        return out;
    }

    private static void cell(Graphics2D g, Cell c, int x, int y) {
        if (c.picture == null) {
            g.setColor(EMPTY);
            g.fillRect(x, y, WIDTH, HEIGHT);
        } else {
            BufferedImage small = Shrink.within(c.picture, WIDTH, HEIGHT);
            g.drawImage(small, x, y + HEIGHT - small.getHeight(), null);
        }
        g.setColor(QUIET);
        Stamp.line(g, fitting(c.line, TEXT, WIDTH), x, y + HEIGHT + LINE * 0.6, TEXT);
    }

    /** A text cut where there is no more room, with a sign that it was. */
    private static String fitting(String text, double em, double room) {
        if (Stamp.width(text, em) <= room) return text;
        int n = text.length();
        while (n > 0 && Stamp.width(text.substring(0, n) + "\u2026", em) > room) n--;
        return text.substring(0, n) + "\u2026";
    }

    /** Writes it as PNG or JPEG, by the file's ending. */
    public static void write(Path file, String title, List<Cell> cells) throws IOException {
        BufferedImage sheet = draw(title, cells);
        String n = file.toString().toLowerCase(java.util.Locale.ROOT);
        if (n.endsWith(".jpg") || n.endsWith(".jpeg")) DisplayPicture.writeJpeg(file, sheet, 150, 0.9f, bake.core.finish.Gamut.SRGB);
        else DisplayPicture.writePng(file, sheet, 150);
    }
}
