package bake.desktop.text;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Fields mean what was typed. */
class QuantityTest {
    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {"EXPOSURE; EV 13; 13", "EXPOSURE; ev13.5; 13.5", "EXPOSURE; 13; 13", "F_NUMBER; f/5.6; 5.6",
            "F_NUMBER; F5,6; 5.6", "F_NUMBER; 8; 8", "LUMENS; 1,000; 1000", "LUMENS; 1.000.000; 1000000", "LUMENS; 1 000 lm; 1000",
            "LUMENS; 1'200; 1200", "LUMENS; 1,5 klm; 1500", "PERCENT; 12.5 %; 12.5", "PERCENT; 12,5%; 12.5", "KELVIN; 2700K; 2700",
            "KELVIN; 2,700 k; 2700", "SECONDS; 1/125; 0.008", "SECONDS; 1/125 s; 0.008", "SECONDS; 10 min; 600", "METRES; 240 cm; 2.4",
            "METRES; 2.4; 2.4", "METRES; 0,125; 0.125", "METRES; 1,234.5; 1234.5", "METRES; 1.234,5 m; 1234.5", "METRES; 10 ft; 3.048",
            "MILLIMETRES; 2.4cm; 24", "STOPS; +1.5 stops; 1.5", "STOPS; -2; -2", "STOPS; \u22121.5; -1.5", "DEGREES; 30\u00b0; 30",
            "LUMINANCE; 1000 cd/m2; 1000", "PIXELS; 640 px; 640", "NUMBER; .5; 0.5", "NUMBER; 5.; 5", "LUX; 20 klx; 20000"})
    void isUnderstood(Quantity q, String text, double value) {
        assertEquals(value, q.parse(text), 1e-9 * Math.abs(value));
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {"METRES; ''", "METRES; wide", "METRES; 2.4 kg", "KELVIN; 27 00 x", "PERCENT; 1,2,3", "LUMENS; EV 13",
            "NUMBER; 1e400", "SECONDS; 1/0", "METRES; --2", "F_NUMBER; f/", "PIXELS; 6 4 0 mm"})
    void isSaidToBeWrong(Quantity q, String text) {
        String said = assertThrows(IllegalArgumentException.class, () -> q.parse(text)).getMessage();
        assertTrue(said.startsWith("'" + text.strip() + "'") && said.endsWith("."), said);
    }

    @Test
    void rangesAreSaid() {
        assertEquals(30, Quantity.PERCENT.parse("30", 0.2, 30));
        assertEquals("'31 %' is out of range: 0.2 to 30 %.",
                assertThrows(IllegalArgumentException.class, () -> Quantity.PERCENT.parse("31 %", 0.2, 30)).getMessage());
        assertEquals("EV -4 to 18", Quantity.EXPOSURE.range(-4, 18));
        assertEquals("1 to 150,000 lx", Quantity.LUX.range(1, 150_000));
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {"EV %.1f; EXPOSURE", "f/%.1f; F_NUMBER", "%.1f %%; PERCENT", "%+.1f stops; STOPS", "%.0f; NUMBER",
            "%.2f\u00b0; DEGREES", "%.0f cd/m\u00b2; LUMINANCE", "%.2f px; PIXELS"})
    void formatsSayWhatTheyHold(String format, Quantity q) {
        assertEquals(q, Quantity.of(format));
    }
}
