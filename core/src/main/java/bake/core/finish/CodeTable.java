package bake.core.finish;

import java.util.function.DoubleUnaryOperator;

/** Codes 0 to 255 for light over 24 octaves, looked up by the bits of a number: 1024 steps an octave, each with the code of its middle. */
final class CodeTable {
    private static final int STEP = 13, FROM = Float.floatToRawIntBits(0x1p-16f) >>> STEP, TO = Float.floatToRawIntBits(0x1p8f) >>> STEP;

    private final byte[] codes = new byte[TO - FROM + 1];

    /** @param f display value 0 to 1 of light */
    CodeTable(DoubleUnaryOperator f) {
        for (int i = 0; i < codes.length; i++)
            codes[i] = (byte) Math.clamp((int) (255 * f.applyAsDouble(Float.intBitsToFloat((i + FROM << STEP) + (1 << STEP - 1))) + 0.5),
                    0, 255);
    }

    /** What is below 2^-16, or no number, is black. */
    int at(float x) {
        int i = (Float.floatToRawIntBits(x) >> STEP) - FROM;
        return x > 0x1p-16f ? codes[Math.min(i, TO - FROM)] & 255 : codes[0] & 255;
    }
}
