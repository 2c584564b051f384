package bake.desktop.work;

/** A small picture, 0xAARRGGBB row by row. */
public record Small(int[] argb, int width, int height) {}
