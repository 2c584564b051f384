package bake.core.finish;

import java.util.function.DoubleUnaryOperator;

/**
 * A function of light over 24 octaves, looked up by the bits of a number: 128 steps an octave, straight between them. What is darker
 * than 2^-16 is asked for itself.
 */
final class LightTable {
    private static final int STEP = 16, FROM = Float.floatToRawIntBits(0x1p-16f) >>> STEP, TO = Float.floatToRawIntBits(0x1p8f) >>> STEP;
    private static final float FRACTION = 1f / (1 << STEP);

    private final float[] values = new float[TO - FROM + 2];
    private final DoubleUnaryOperator function;

    LightTable(DoubleUnaryOperator f) {
        function = f;
        for (int i = 0; i < values.length; i++) values[i] = (float) f.applyAsDouble(Float.intBitsToFloat(i + FROM << STEP));
    }

    float at(float x) {
        if (!(x > 0x1p-16f)) return (float) function.applyAsDouble(Math.max(0, x));
        if (x >= 0x1p8f) return values[TO - FROM];
        int bits = Float.floatToRawIntBits(x), i = (bits >>> STEP) - FROM;
        float t = (bits & (1 << STEP) - 1) * FRACTION;
        return values[i] + t * (values[i + 1] - values[i]);
    }
}
