package bake.core.finish;

import java.util.function.DoubleUnaryOperator;

/** A function of light over 24 octaves, looked up by the bits of a number: 128 steps an octave, straight between them. */
final class LightTable {
    private static final int STEP = 16, FROM = Float.floatToRawIntBits(0x1p-16f) >>> STEP, LAST = (Float.floatToRawIntBits(
            0x1p8f) >>> STEP) - FROM;
    private static final float FRACTION = 1f / (1 << STEP), MOST = 0x1p8f, SCALE = 0x1p16f;

    private final float[] values = new float[LAST + 1];
    private final boolean level;
    private final float dark;

    /** @param level whether what is darker than 2^-16 has the value of that, and not a part of it as small as it is itself */
    LightTable(DoubleUnaryOperator f, boolean level) {
        this.level = level;
        dark = (float) f.applyAsDouble(0);
        for (int i = 0; i < values.length; i++) values[i] = (float) f.applyAsDouble(Float.intBitsToFloat(i + FROM << STEP));
    }

    /** The value; for what is no number, or below 0, that of 0. */
    float at(float x) {
        if (!(x < MOST)) return x >= MOST ? values[LAST] : dark;
        int bits = Float.floatToRawIntBits(x), i = (bits >> STEP) - FROM;
        if (i < 0) return level ? values[0] : x > 0 ? values[0] * (x * SCALE) : dark;
        float a = values[i];
        return a + (bits & (1 << STEP) - 1) * FRACTION * (values[i + 1] - a);
    }
}
