package bake.studio.live;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.Arrays;
import org.junit.jupiter.api.Test;

class ToneHistogramTest {
    /** White lies at the end, a stop below it a tenth of the bins lower; what is black or clipped is told. */
    @Test
    void tonesLieByStops() {
        int[] argb = new int[100];
        Arrays.fill(argb, 0, 50, 0xffffffff);
        Arrays.fill(argb, 50, 75, 0xff000000);
        // sRGB 188 is half of white's light: 0.5028 (IEC 61966-2-1).
        Arrays.fill(argb, 75, 100, 0xffbcbcbc);
        ToneHistogram t = ToneHistogram.of(argb);
        assertEquals(0.5, t.white());
        assertEquals(0.25, t.black());
        assertEquals(50, t.bins()[ToneHistogram.BINS - 1]);
        assertEquals(50, t.most());
        assertEquals(25, t.bins()[0]);
        assertEquals(25, t.bins()[(int) ((Math.log(0.5028) / Math.log(2) + 10) / 10 * ToneHistogram.BINS)]);
        assertEquals(100, Arrays.stream(t.bins()).sum());
        assertEquals(1, ToneHistogram.of(new int[0]).most());
    }
}
