package bake.core.cache;

/**
 * Numbers the cells that space and directions are cut into: cubes of 2^level metres, and in each of them surfaces apart by where they face
 * (Binder, Fricke and Keller 2019, "Massively Parallel Path Space Filtering", section 3, hash such cells alike). A number is level, facing
 * and place packed into 62 bits, so two cells never share one.
 */
final class CellGrid {
    /** Sides of the finest and coarsest cells are 2^FINEST and 2^COARSEST metres: 3 cm, well below the thickness of a wall, and 8 m. */
    static final int FINEST = -5, COARSEST = 3, LEVELS = COARSEST - FINEST + 1;
    /** Sides of the squares that each face of a cube of directions is cut into: about 22 degrees. */
    private static final int FACING = 4;
    private static final int PLACE_BITS = 17, MOST = 1 << PLACE_BITS - 1;
    private static final long NONE = -1;

    private CellGrid() {}

    static float side(int level) {
        return Math.scalb(1f, level);
    }

    /** Coarsest level whose cells are no wider than a length, metres; may lie outside of the levels there are. */
    static int level(float length) {
        return Math.getExponent(length);
    }

    /** Which way a surface faces, 0 to 95. */
    static int facing(float nx, float ny, float nz) {
        float x = Math.abs(nx), y = Math.abs(ny), z = Math.abs(nz);
        int face;
        float u, v, w;
        if (x >= y && x >= z) {
            face = nx > 0 ? 0 : 1;
            u = ny;
            v = nz;
            w = x;
        } else if (y >= z) {
            face = ny > 0 ? 2 : 3;
            u = nx;
            v = nz;
            w = y;
        } else {
            face = nz > 0 ? 4 : 5;
            u = nx;
            v = ny;
            w = z;
        }
        return (face * FACING + square(u / w)) * FACING + square(v / w);
    }

    /** Borders lie off the middle, where the directions of what was drawn upright are. */
    private static int square(float t) {
        return Math.clamp((int) ((t + 1.23f) * (FACING / 2.23f)), 0, FACING - 1);
    }

    /** Number of a cell; -1 for a place too far away to have one. */
    static long key(int level, int facing, float x, float y, float z) {
        // Floors and walls love whole numbers, so borders keep off them.
        float k = Math.scalb(1f, -level);
        int i = floor(x * k + 0.37f), j = floor(y * k + 0.41f), l = floor(z * k + 0.43f);
        if (i < -MOST || i >= MOST || j < -MOST || j >= MOST || l < -MOST || l >= MOST) return NONE;
        return ((long) (level - FINEST) << 7 | facing) << 3 * PLACE_BITS | (long) (i + MOST) << 2
                * PLACE_BITS | (long) (j + MOST) << PLACE_BITS | l + MOST;
    }

    private static int floor(float x) {
        int i = (int) x;
        return x < i ? i - 1 : i;
    }

    static int facing(long key) {
        return (int) (key >>> 3 * PLACE_BITS) & 127;
    }

    static boolean valid(long key) {
        return key >= 0 && key >>> 3 * PLACE_BITS + 7 < LEVELS && facing(key) < 6 * FACING * FACING;
    }

    /** A well mixing hash (the finalizer of Steele, Lea and Flood 2014, "Fast Splittable Pseudorandom Number Generators"). */
    static long hash(long z) {
        z = (z ^ z >>> 30) * 0xbf58476d1ce4e5b9L;
        z = (z ^ z >>> 27) * 0x94d049bb133111ebL;
        return z ^ z >>> 31;
    }
}
