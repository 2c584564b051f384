package bake.core.finish;

/** From scene light to display light, per colour. Input 1 is the camera's saturating luminance. */
public final class ToneResponse {
    private static final double POWER = 1.22, WHITE = 16, GREY_IN = 0.104, GREY_OUT = 0.18;

    private final ToneCurve kind;
    /** Of the film curve: power, half response, scale, white; of the photographic one: factor and white; of the exponential: factor. */
    private final double power, half, scale, white, factor;

    /**
     * @param toe -1 to 1: how steeply a film curve leaves black
     * @param shoulder -1 to 1: how far above saturation its white lies, two stops to six
     */
    public ToneResponse(ToneCurve kind, double toe, double shoulder) {
        this.kind = kind;
        boolean film = kind == ToneCurve.FILM;
        white = film ? WHITE * Math.pow(4, Math.clamp(shoulder, -1, 1)) : WHITE;
        power = film ? POWER * Math.pow(2, 0.5 * Math.clamp(toe, -1, 1)) : 1;
        // Two conditions, two unknowns: s p/(p+c) = grey at middle grey, s w/(w+c) = 1 at white.
        double p = Math.pow(GREY_IN, power), w = Math.pow(white, power);
        half = (p - GREY_OUT * p) / (GREY_OUT - p / w);
        scale = (w + half) / w;
        // With L (1 + L / w^2) / (1 + L) at grey, w^2 being the square of the factor times white: solved by repetition.
        double f = GREY_OUT / (1 - GREY_OUT) / GREY_IN;
        if (kind == ToneCurve.PHOTOGRAPHIC) for (int i = 0; i < 40; i++) {
            double l = f * GREY_IN, top = f * white;
            f = GREY_OUT * (1 + l) / (1 + l / (top * top)) / GREY_IN;
        }
        factor = kind == ToneCurve.EXPONENTIAL ? -Math.log(1 - GREY_OUT) / GREY_IN : f;
    }

    /** Display light 0 to 1 for scene light {@code x}. */
    public double apply(double x) {
        if (!(x > 0)) return 0;
        return switch (kind) {
            case FILM -> {
                double p = Math.pow(x, power);
                yield p == Double.POSITIVE_INFINITY ? 1 : Math.min(1, p / (p + half) * scale);
            }
            case LINEAR -> Math.min(1, x);
            case PHOTOGRAPHIC -> {
                double l = factor * Math.min(x, white), w = factor * white;
                yield Math.min(1, l * (1 + l / (w * w)) / (1 + l));
            }
            case EXPONENTIAL -> 1 - Math.exp(-factor * x);
        };
    }

    /** Derivative of {@link #apply}. */
    public double slope(double x) {
        if (!(x > 0)) return kind == ToneCurve.LINEAR ? x < 1 ? 1 : 0 : 0;
        return switch (kind) {
            case FILM -> {
                double p = Math.pow(x, power), d = p + half;
                yield scale * half * power * p / (x * d * d);
            }
            case LINEAR -> x < 1 ? 1 : 0;
            case PHOTOGRAPHIC -> {
                double l = factor * x, w = factor * white;
                yield x >= white ? 0 : factor * ((1 + 2 * l / (w * w)) * (1 + l) - l * (1 + l / (w * w))) / ((1 + l) * (1 + l));
            }
            case EXPONENTIAL -> factor * Math.exp(-factor * x);
        };
    }

    /** The scene light that is shown as {@code display}, 0 to 1: for 0 none, for 1 the least that is shown so. */
    public double invert(double display) {
        if (!(display > 0)) return 0;
        double low = 0, high = white;
        for (int i = 0; i < 60; i++) {
            double middle = (low + high) / 2;
            if (apply(middle) < Math.min(1, display)) low = middle;
            else high = middle;
        }
        return high;
    }
}
