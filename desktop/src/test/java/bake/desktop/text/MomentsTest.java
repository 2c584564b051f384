package bake.desktop.text;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.time.LocalDateTime;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Dates as people write them. */
class MomentsTest {
    /** A Thursday. */
    private static final LocalDateTime NOW = LocalDateTime.of(2027, 3, 4, 15, 30);

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            14 March 2027 17:00     | 2027-03-14T17:00
            14 mar 2027, 9:05       | 2027-03-14T09:05
            2027-03-14 17:00        | 2027-03-14T17:00
            2027-03-14T17:00        | 2027-03-14T17:00
            14.3.2027 17.30         | 2027-03-14T17:30
            14 March 2027           | 2027-03-14T12:00
            Friday 12:00            | 2027-03-05T12:00
            thu                     | 2027-03-11T12:00
            Sun 14 Mar 2027 08:00   | 2027-03-14T08:00
            tomorrow 8:00           | 2027-03-05T08:00
            today 23:59             | 2027-03-04T23:59
            18:00                   | 2027-03-04T18:00""")
    void areTaken(String text, LocalDateTime moment) {
        assertEquals(moment, Moments.parse(text, NOW));
    }

    @ParameterizedTest
    @CsvSource({"soon", "31 February 2027 12:00", "14 March 25:00", "32.1.2027"})
    void othersAreRefusedInWords(String text) {
        String said = assertThrows(IllegalArgumentException.class, () -> Moments.parse(text, NOW)).getMessage();
        assertEquals(true, said.contains(text) && said.contains("Friday 12:00"), said);
    }

    @Test
    void whatIsShownIsTakenBack() {
        assertEquals(NOW, Moments.parse(Moments.text(NOW), NOW));
        assertNull(Moments.read("next week"));
        assertNull(Moments.read(null));
    }
}
