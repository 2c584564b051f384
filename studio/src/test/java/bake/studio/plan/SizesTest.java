package bake.studio.plan;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Test;

/** Sizes of paper against the published millimetres of ISO 216 (from memory), and to pixels and back. */
class SizesTest {
    private static Sizes.Paper paper(String name) {
        return Sizes.PAPERS.stream().filter(p -> p.name().equals(name)).findFirst().orElseThrow();
    }

    @Test
    void isoSizes() {
        double[][] a = {{1189, 841}, {841, 594}, {594, 420}, {420, 297}, {297, 210}, {210, 148}, {148, 105}};
        double[][] b = {{1414, 1000}, {1000, 707}, {707, 500}, {500, 353}, {353, 250}, {250, 176}, {176, 125}};
        for (int n = 0; n < 7; n++) {
            assertArrayEquals(a[n], new double[] {paper("A" + n).width(), paper("A" + n).height()});
            assertArrayEquals(b[n], new double[] {paper("B" + n).width(), paper("B" + n).height()});
        }
        assertEquals(279.4, paper("Letter").width(), 1e-9);
    }

    @Test
    void toPixelsAndBack() {
        assertArrayEquals(new int[] {3508, 2480}, paper("A4").pixels(300, 0));
        assertArrayEquals(new int[] {3579, 2551}, paper("A4").pixels(300, 3));
        for (String name : new String[] {"A2", "A3", "A4"}) {
            int[] px = paper(name).pixels(300, 0);
            assertEquals(name, Sizes.largest("A", px[0], px[1], 300).name());
            assertEquals(name, Sizes.largest("A", px[1], px[0], 300).name(), "standing as well");
        }
        assertNull(Sizes.largest("A", 100, 80, 300));
        assertTrue(Sizes.onPaper(3508, 2480).contains("297 \u00d7 210 mm at 300 dpi (fills A4)"), Sizes.onPaper(3508, 2480));
        assertTrue(Sizes.onPaper(3508, 2480).contains("fills A2"), Sizes.onPaper(3508, 2480));
    }
}
