package bake.desktop.easel;

/**
 * Where a picture lies on the easel: fitted into it, or enlarged about a place and moved. Lengths are in units of the screen; holds no
 * control.
 */
final class ZoomPan {
    /** Where the picture's upper left corner lies, and its size. */
    record Box(double x, double y, double w, double h) {}

    /** How large a pixel of the picture may get, units. */
    private static final double LARGEST_PIXEL = 32;
    /** Room around a fitted picture. */
    private static final double PAD = 14;
    /** Enlargement against the fitted size, 1 for fitted, and what of the picture lies in the easel's middle, 0 to 1. */
    private double scale = 1, middleX = 0.5, middleY = 0.5;
    private double width = 1, height = 1, aspect = 1, pixels = 1, ratio = 1;

    /**
     * @param width of the easel
     * @param height of the easel
     * @param aspect width of the picture by its height
     * @param pixels that the picture is wide
     * @param ratio pixels of the screen a unit
     */
    void room(double width, double height, double aspect, double pixels, double ratio) {
        this.width = width;
        this.height = height;
        this.aspect = aspect;
        this.pixels = Math.max(1, pixels);
        this.ratio = ratio;
        scale = Math.clamp(scale, 1, largest());
    }

    /** Width of the fitted picture. */
    static double fitted(double width, double height, double aspect) {
        return Math.max(16, Math.min(width - 2 * PAD, (height - PAD) * aspect));
    }

    private double fitted() {
        return fitted(width, height, aspect);
    }

    private double largest() {
        return Math.max(1, LARGEST_PIXEL * pixels / fitted());
    }

    Box box() {
        double w = fitted() * scale, h = w / aspect;
        return new Box(along(width, w, middleX), along(height, h, middleY), w, h);
    }

    /** A picture smaller than the easel stands in its middle; a larger one leaves no gap at its edges. */
    private static double along(double room, double size, double middle) {
        double start = size <= room ? (room - size) / 2 : Math.clamp(room / 2 - middle * size, room - size, 0);
        return Math.rint(start);
    }

    boolean zoomed() {
        return scale > 1.0001;
    }

    /** Pixels of the screen a pixel of the picture. */
    double magnification() {
        return fitted() * scale * ratio / pixels;
    }

    /** Enlarges by a factor; the place at (x, y) of the easel stays there. */
    void zoom(double factor, double x, double y) {
        Box b = box();
        double u = (x - b.x) / b.w, v = (y - b.y) / b.h;
        scale = Math.clamp(scale * factor, 1, largest());
        // A step that comes near one pixel to one takes it.
        double one = scale / magnification();
        if (one >= 1 && Math.abs(scale / one - 1) < 0.08) scale = one;
        Box c = new Box(0, 0, fitted() * scale, fitted() * scale / aspect);
        middleX = (width / 2 - x) / c.w + u;
        middleY = (height / 2 - y) / c.h + v;
        hold();
    }

    /** Between fitted and one pixel to one, or two to one where that is what is fitted. */
    void toggle(double x, double y) {
        if (zoomed()) fit();
        else {
            double one = 1 / magnification();
            zoom(one > 1.05 ? one : 2 * Math.max(1, one), x, y);
        }
    }

    void fit() {
        scale = 1;
        middleX = middleY = 0.5;
    }

    /** Moves the picture by so much on the easel. */
    void pan(double dx, double dy) {
        Box b = box();
        middleX -= dx / b.w;
        middleY -= dy / b.h;
        hold();
    }

    /** Keeps the middle where no gap opens, so that panning back answers at once. */
    private void hold() {
        double w = fitted() * scale, h = w / aspect;
        middleX = w <= width ? 0.5 : Math.clamp(middleX, width / 2 / w, 1 - width / 2 / w);
        middleY = h <= height ? 0.5 : Math.clamp(middleY, height / 2 / h, 1 - height / 2 / h);
    }
}
