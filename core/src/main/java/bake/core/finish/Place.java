package bake.core.finish;

import bake.core.film.Region;

/** Which part of a picture is at hand: its corner and size, and the size of the whole, pixels. */
public record Place(int x, int y, int w, int h, int width, int height) {
    public static Place whole(int width, int height) {
        return new Place(0, 0, width, height, width, height);
    }

    public static Place of(Region r, int width, int height) {
        return new Place(r.x(), r.y(), r.width(), r.height(), width, height);
    }
}
