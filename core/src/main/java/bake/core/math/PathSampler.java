package bake.core.math;

/**
 * Random numbers of one path: Owen-scrambled, shuffled Sobol points, padded in pairs of dimensions. In the first pairs pixels
 * share their points and are told apart by a shift that is blue noise over the screen ({@link BlueNoise}).
 *
 * <p>Burley 2020, "Practical Hash-based Owen Scrambling" (JCGT 9(4)), with the hash constants improved by
 * Vegdahl (from memory). Every number is a pure function of (pixel, sample, dimension, seed), so pictures do
 * not depend on threads or tiles.
 *
 * <p>Dimensions have fixed places: those of the camera, then for each bounce those of the direction that the path takes ({@link
 * #direction}) and those of light that is looked for ({@link #bounce}). What only some paths ask for has a sequence of its own ({@link
 * #aside}), and so have rays that are sent several at a time ({@link #branch}): whatever a path passes or looks for, its next bounce is the
 * same pair of dimensions.
 *
 * <p>One instance per thread; {@link #start} begins a path, {@link #next2} fills {@link #u} and {@link #v}
 * with two numbers in [0, 1).
 */
public final class PathSampler {
    private static final float SCALE = 0x1p-24f;

    public float u, v;
    /** Pairs whose error is spread as blue noise over the screen: those that decide on what is seen first. */
    private static final int BLUE = 16;
    /**
     * Pairs of the camera, where those for a direction begin, and those for light; all pairs of a bounce, of a branch, and where the
     * sequence aside begins.
     */
    private static final int DIRECTION = 6, LIGHT = 8, BOUNCE = 256, BRANCH = 1 << 16, MANY = 1 << 29,
            ASIDE = 1 << 30, OTHER = 0x68e31da4;
    private int pixelSeed, pictureSeed, x, y, sample, dimension, blue, branch, kept, keptSeed, keptSample,
            aside;

    /** Makes the table that all pictures share, so that the first pixel need not. */
    public static void prepare() {
        BlueNoise.at(0, 0, 0);
    }

    /** Begins the path of one sample of one pixel. */
    public void start(int x, int y, int sampleIndex, long seed) {
        int h = hash(x * 0x9e3779b1 ^ (int) seed);
        pixelSeed = hash(h ^ y * 0x85ebca77 ^ (int) (seed >>> 32) * 0xc2b2ae3d);
        sample = Integer.reverse(sampleIndex);
        dimension = branch = 0;
        aside = ASIDE;
        blue = 0;
    }

    /** The same for a picture: what pixels near each other get in the first pairs keeps their errors apart. */
    public void startPixel(int x, int y, int sampleIndex, long seed) {
        start(x, y, sampleIndex, seed);
        blue = BLUE;
        this.x = x;
        this.y = y;
        pictureSeed = hash((int) seed ^ (int) (seed >>> 32) * 0xc2b2ae3d);
    }

    /** Goes on as another path of the same pixel, whose numbers have nothing to do with those so far. */
    public void other() {
        pixelSeed = hash(pixelSeed ^ OTHER);
        dimension = branch = blue = 0;
        aside = ASIDE;
    }

    /** A number that is this path's own, for choices that are no part of the path. */
    public int hash() {
        return hash(pixelSeed ^ sample * 0x9e3779b1);
    }

    /** Goes to the pairs by which light is looked for at a bounce, the first being 0. */
    public void bounce(int bounce) {
        dimension = branch + BOUNCE * bounce + LIGHT;
    }

    /** Goes to the two pairs that choose where a path leaves for. */
    public void direction(int bounce) {
        dimension = branch + BOUNCE * bounce + DIRECTION;
    }

    /** Begins the bounces of one of several rays that leave a point, numbered from 0; up to {@link #join}. */
    public void branch(int ray) {
        kept = dimension;
        branch = BRANCH * (ray + 1);
    }

    /**
     * Begins one of the many rays whose mean one sample is, numbered from 0; up to {@link #join}. Their numbers are points of one sequence,
     * so that they are spread among each other.
     */
    public void one(int ray) {
        kept = dimension;
        keptSeed = pixelSeed;
        keptSample = sample;
        pixelSeed = hash(pixelSeed ^ hash(sample) ^ dimension * 0x27d4eb2d);
        sample = Integer.reverse(ray);
        branch = MANY;
        dimension = branch;
    }

    /** Goes on where the last {@link #branch} or {@link #one} was taken. */
    public void join() {
        dimension = kept;
        if (branch == MANY) {
            pixelSeed = keptSeed;
            sample = keptSample;
        }
        branch = 0;
    }

    /** One number in [0, 1) for a choice that not every path has to make, such as whether to pass a pane. */
    public float aside() {
        int d = dimension;
        dimension = aside++;
        next2();
        dimension = d;
        return u;
    }

    /** The next pair of numbers, a (0,2) sequence over the samples of this pixel. */
    public void next2() {
        int d = dimension++;
        boolean shared = d < blue;
        int s = hash((shared ? pictureSeed : pixelSeed) + d * 0x9e3779b9);
        int i = Integer.reverse(permute(sample, s));
        int a = Integer.reverse(permute(i, s ^ 0x68bc21eb)), b = Integer.reverse(permute(pascal(i), s ^ 0x02e5be93));
        if (shared) {
            // All pixels share the points, each moved around by its own shift (Cranley and Patterson 1976).
            a += BlueNoise.at(x, y, 2 * d);
            b += BlueNoise.at(x, y, 2 * d + 1);
        }
        u = (a >>> 8) * SCALE;
        v = (b >>> 8) * SCALE;
    }

    /** One number in [0, 1), from a pair of its own. */
    public float next1() {
        next2();
        return u;
    }

    /**
     * Bit-reversed second Sobol coordinate of index {@code i}. Its generator matrix is Pascal's triangle modulo
     * two, which by Lucas' theorem is a superset sum, done here in five steps instead of 32.
     */
    private static int pascal(int i) {
        i ^= i >>> 1 & 0x55555555;
        i ^= i >>> 2 & 0x33333333;
        i ^= i >>> 4 & 0x0f0f0f0f;
        i ^= i >>> 8 & 0x00ff00ff;
        return i ^ i >>> 16;
    }

    /** Laine-Karras style permutation: bit k of the result depends only on bits 0 to k of {@code x}. */
    private static int permute(int x, int seed) {
        x ^= x * 0x3d20adea;
        x += seed;
        x *= (seed >>> 16) | 1;
        x ^= x * 0x05526c56;
        x ^= x * 0x53a22864;
        return x;
    }

    /** A well mixing integer hash ("lowbias32", Wellons 2018). */
    public static int hash(int x) {
        x ^= x >>> 16;
        x *= 0x7feb352d;
        x ^= x >>> 15;
        x *= 0x846ca68b;
        return x ^ x >>> 16;
    }
}
