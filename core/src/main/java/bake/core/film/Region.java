package bake.core.film;

/** The part of the picture that is rendered, in pixels from the top left. */
public record Region(int x, int y, int width, int height) {
    public static Region all(int width, int height) {
        return new Region(0, 0, width, height);
    }

    public boolean contains(int px, int py) {
        return px >= x && py >= y && px < x + width && py < y + height;
    }

    /** This region cut to the picture.
     *
     * @throws IllegalArgumentException when nothing is left
     */
    public Region within(int w, int h) {
        int x0 = Math.clamp(x, 0, w), y0 = Math.clamp(y, 0, h);
        int x1 = (int) Math.clamp((long) x + width, x0, w), y1 = (int) Math.clamp((long) y + height, y0, h);
        if (x1 <= x0 || y1 <= y0) throw new IllegalArgumentException("the region lies outside of the " + w + "x" + h + " picture");
        return new Region(x0, y0, x1 - x0, y1 - y0);
    }

    /** What lies in another region too; there must be something. */
    public Region within(Region r) {
        int x0 = Math.max(x, r.x), y0 = Math.max(y, r.y);
        return new Region(x0, y0, Math.min(x + width, r.x + r.width) - x0, Math.min(y + height, r.y + r.height) - y0);
    }
}
