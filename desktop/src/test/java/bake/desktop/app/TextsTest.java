package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import bake.desktop.text.Texts;
import bake.desktop.work.Station;
import java.time.LocalDateTime;
import org.junit.jupiter.api.Test;

class TextsTest {
    @Test
    void numbersAsTheWindowWritesThem() {
        assertEquals("0:48", Texts.time(48.2));
        assertEquals("1 h 12", Texts.time(4330));
        assertEquals("\u2013", Texts.time(Double.NaN));
        assertEquals("2.1 %", Texts.noise(2.14));
        assertEquals("27 %", Texts.noise(27.4));
        assertEquals("321 k", Texts.count(321_456));
        assertEquals("1.9 M", Texts.count(1_900_000));
        assertEquals("Fri 12:00", Texts.due("2027-03-19T12:00"));
        assertEquals("not set", Texts.due(null));
        assertEquals("1/125 s", Texts.shutter(0.008));
        assertEquals("in 1 d 4 h", Texts.until(LocalDateTime.of(2027, 1, 1, 8, 0), LocalDateTime.of(2027, 1, 2, 12, 30)));
        assertEquals("2 h 0 min ago", Texts.until(LocalDateTime.of(2027, 1, 1, 8, 0), LocalDateTime.of(2027, 1, 1, 6, 0)));
    }

    @Test
    void arguments() {
        Arguments a = Arguments.parse("demo", "--shot", "a.png", "--station", "prove", "--window", "1024x700");
        assertEquals("demo", a.project());
        assertEquals(Station.PROVE, a.station());
        assertEquals(1024, a.width());
        for (String[] bad : new String[][] {{"--shot"}, {"--station", "attic"}, {"--fly"}, {"--wait", "soon"}})
            assertThrows(IllegalArgumentException.class, () -> Arguments.parse(bad));
    }
}
