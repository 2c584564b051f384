package bake.core.film;

/**
 * How far around a pixel's middle samples count for it, and how much. Each sample belongs to one pixel only: its place is drawn
 * from the filter's absolute value and its light counted with the filter's sign (filter importance sampling, Ernst, Stamminger
 * and Greiner 2006), so that pixels stay independent and the mean of an even picture is exact.
 *
 * <p>All are products of one function along x and one along y.
 */
public final class PixelFilter {
    /** What the filter looks like along one axis. */
    public enum Shape {
        BOX(0.5),
        TRIANGLE(1),
        /** The four-term window of minimum side lobes (Harris 1978). */
        BLACKMAN_HARRIS(1.5),
        /** B = C = 1/3 of the family of Mitchell and Netravali 1988. */
        MITCHELL_NETRAVALI(2),
        /** B = 0, C = 1/2 of the same family, which is the spline of Catmull and Rom 1974. */
        CATMULL_ROM(2);

        /** The usual radius, pixels. */
        public final double radius;

        Shape(double radius) {
            this.radius = radius;
        }

        /** Its name in settings: box, triangle, blackman-harris, mitchell-netravali, catmull-rom. */
        public String word() {
            return name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
        }

        /** @throws IllegalArgumentException naming those there are */
        public static Shape of(String word) {
            for (Shape s : values()) if (s.word().equals(word)) return s;
            throw new IllegalArgumentException("there is no pixel filter '" + word
                    + "'; there are: box, triangle, blackman-harris, mitchell-netravali, catmull-rom");
        }

        /** Value at {@code t} from -1 to 1, radii from the middle; not scaled to any sum. */
        public double at(double t) {
            double x = Math.abs(t);
            if (x > 1) return 0;
            return switch (this) {
                case BOX -> 1;
                case TRIANGLE -> 1 - x;
                case BLACKMAN_HARRIS -> 0.35875 + 0.48829 * Math.cos(Math.PI * x) + 0.14128 * Math.cos(2 * Math.PI * x) + 0.01168
                        * Math.cos(3 * Math.PI * x);
                case MITCHELL_NETRAVALI -> cubic(2 * x, 1 / 3.0, 1 / 3.0);
                case CATMULL_ROM -> cubic(2 * x, 0, 0.5);
            };
        }

        private static double cubic(double x, double b, double c) {
            if (x < 1) return ((12 - 9 * b - 6 * c) * x * x * x + (-18 + 12 * b + 6 * c) * x * x + 6 - 2 * b) / 6;
            return ((-b - 6 * c) * x * x * x + (6 * b + 30 * c) * x * x + (-12 * b - 48 * c) * x + 8 * b + 24 * c) / 6;
        }
    }

    /** A tent over the neighbours: soft enough against jagged edges, with nothing negative. */
    public static final PixelFilter TENT = new PixelFilter(Shape.TRIANGLE, 1);
    private static final int STEPS = 1024;

    private final Shape shape;
    private final double radius;
    /** Running sums of the absolute value over {@link #STEPS} steps, from 0 to 1, and the sign of each step. */
    private final float[] sums = new float[STEPS + 1];
    private final byte[] signs = new byte[STEPS];
    /** The absolute value's integral over the value's, along one axis. */
    private final float excess;

    /**
     * @param radius pixels, 0.5 to 8
     * @throws IllegalArgumentException when the radius is outside of that
     */
    public PixelFilter(Shape shape, double radius) {
        if (!(radius >= 0.5 && radius <= 8))
            throw new IllegalArgumentException("a pixel filter's radius must be 0.5 to 8 pixels, not " + radius);
        this.shape = shape;
        this.radius = radius;
        double all = 0, net = 0;
        double[] run = new double[STEPS + 1];
        for (int i = 0; i < STEPS; i++) {
            double f = shape.at(2 * (i + 0.5) / STEPS - 1);
            signs[i] = (byte) (f < 0 ? -1 : 1);
            all += Math.abs(f);
            net += f;
            run[i + 1] = all;
        }
        for (int i = 0; i <= STEPS; i++) sums[i] = (float) (run[i] / all);
        excess = (float) (all / net);
    }

    public Shape shape() {
        return shape;
    }

    public double radius() {
        return radius;
    }

    /** Whether it takes light away somewhere. */
    public boolean negative() {
        return excess > 1.0001f;
    }

    private int step(float u) {
        int a = 0, b = STEPS - 1;
        while (a < b) {
            int m = (a + b) >>> 1;
            if (sums[m + 1] <= u) a = m + 1;
            else b = m;
        }
        return a;
    }

    /** Distance from the pixel's middle along one axis, pixels, for a random number in [0, 1). */
    public float offset(float u) {
        if (shape == Shape.BOX) return (float) radius * (2 * u - 1);
        if (shape == Shape.TRIANGLE) return (float) radius * (u < 0.5f ? (float) Math.sqrt(2 * u) - 1 : 1 - (float) Math.sqrt(2 - 2 * u));
        int k = step(u);
        float within = (u - sums[k]) / Math.max(1e-12f, sums[k + 1] - sums[k]);
        return (float) radius * (2 * (k + Math.clamp(within, 0f, 1f)) / STEPS - 1);
    }

    /** What the light of the sample at {@link #offset} is multiplied by along that axis; its mean over u is one. */
    public float weight(float u) {
        return shape == Shape.BOX || shape == Shape.TRIANGLE ? 1 : signs[step(u)] * excess;
    }
}
