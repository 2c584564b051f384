package bake.core.finish;

import bake.core.math.Srgb;

/**
 * Tones of a picture in false colours, one for each stop from middle grey (0.18 of the display's light): what is black and what is white
 * without anything in it is seen at once, and so is how faces of a room lie to each other.
 */
public final class ExposureZones {
    /** Stops under middle grey at which the scale begins, and the colours from there on; the last is that of white. */
    private static final int DARKEST = -6;
    private static final int[] COLOURS = {0x2b1d3f, 0x3b2f7a, 0x2f5d9c, 0x2f8f9c, 0x5aa48c, 0x8d8d86, 0xc9b458, 0xd98b3a, 0xe8e4da};
    private static final int CLIPPED = 0xc8321e, BLACK = 0x0a0a0a;
    private static final double GREY = 0.18;
    private static final double[] LINEAR = new double[256];

    static {
        for (int i = 0; i < 256; i++) LINEAR[i] = Srgb.decode(i / 255.0);
    }

    private ExposureZones() {}

    /** How many there are. */
    public static int count() {
        return COLOURS.length;
    }

    /** Colour of a zone, 0xRRGGBB. */
    public static int colour(int zone) {
        return COLOURS[zone];
    }

    /** Zone of a colour, 0 for the darkest; -1 where all of it is black, -2 where a colour is at its end. */
    public static int zone(int argb) {
        int r = argb >> 16 & 255, g = argb >> 8 & 255, b = argb & 255;
        if (Math.max(r, Math.max(g, b)) >= 255) return -2;
        if (Math.max(r, Math.max(g, b)) <= 2) return -1;
        double l = 0.2126 * LINEAR[r] + 0.7152 * LINEAR[g] + 0.0722 * LINEAR[b];
        return Math.clamp((int) Math.floor(Math.log(Math.max(1e-9, l) / GREY) / Math.log(2) + 0.5) - DARKEST - 1, 0, COLOURS.length - 1);
    }

    /** The picture in zones. */
    public static int[] of(int[] argb) {
        int[] out = new int[argb.length];
        Rows.each((argb.length + 4095) / 4096, k -> {
            for (int i = 4096 * k; i < Math.min(argb.length, 4096 * (k + 1)); i++) {
                int z = zone(argb[i]);
                out[i] = 0xff000000 | (z == -2 ? CLIPPED : z == -1 ? BLACK : COLOURS[z]);
            }
        });
        return out;
    }
}
