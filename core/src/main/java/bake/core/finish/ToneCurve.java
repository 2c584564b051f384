package bake.core.finish;

/** From scene light to display light, per colour. Input 1 is the camera's saturating luminance. */
public enum ToneCurve {
    /**
     * The response of a receptor, x^a / (x^a + c) (Naka and Rushton 1966, as used by Reinhard and Devlin 2005),
     * scaled so that four stops above saturation are white and middle grey, 0.104, is shown at 0.18.
     */
    FILM {
        @Override
        public double apply(double x) {
            if (!(x > 0)) return 0;
            double p = Math.pow(x, POWER);
            return Math.min(1, p / (p + HALF) * SCALE);
        }

        @Override
        public double slope(double x) {
            if (!(x > 0)) return 0;
            double p = Math.pow(x, POWER), d = p + HALF;
            return SCALE * HALF * POWER * p / (x * d * d);
        }
    },
    /** No curve: cut at saturation. */
    LINEAR {
        @Override
        public double apply(double x) {
            return Math.clamp(x, 0, 1);
        }

        @Override
        public double slope(double x) {
            return x < 1 ? 1 : 0;
        }
    };

    private static final double POWER = 1.22, WHITE = 16, GREY_IN = 0.104, GREY_OUT = 0.18;
    private static final double HALF, SCALE;

    static {
        // Two conditions, two unknowns: s p/(p+c) = grey at middle grey, s w/(w+c) = 1 at white.
        double p = Math.pow(GREY_IN, POWER), w = Math.pow(WHITE, POWER);
        HALF = (p - GREY_OUT * p) / (GREY_OUT - p / w);
        SCALE = (w + HALF) / w;
    }

    /** Display light 0 to 1 for scene light {@code x}, at least 0, with 1 the saturating luminance. */
    public abstract double apply(double x);

    /** The scene light that is shown as {@code display}, 0 to 1: for 0 none, for 1 the least that is shown so. */
    public double invert(double display) {
        if (!(display > 0)) return 0;
        double low = 0, high = WHITE;
        for (int i = 0; i < 60; i++) {
            double middle = (low + high) / 2;
            if (apply(middle) < Math.min(1, display)) low = middle;
            else high = middle;
        }
        return high;
    }

    /** Derivative of {@link #apply}. */
    public abstract double slope(double x);
}
