package bake.formats.light;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.scene.PhotometricWeb;
import bake.formats.FormatException;
import java.util.Locale;
import java.util.function.DoubleBinaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Photometric files in the shapes that are met (layout from memory of ANSI/IES LM-63-2002), and broken ones. Angles and intensities are
 * invented.
 */
class IesFileTest {
    private static final String HEAD =
            "IESNA:LM-63-2002\n[TEST] invented\n[TESTLAB] none\n[MANUFAC] Fernlow\n[LUMINAIRE] Wall washer\n[MORE] with glass\nTILT=NONE\n";

    private static String file(String head, int type, double[] v, double[] h, String size, DoubleBinaryOperator candela) {
        StringBuilder s = new StringBuilder(head)
                .append(String.format(Locale.ROOT, "1 1000 1 %d %d %d 2 %s%n1 1 35%n", v.length, h.length, type, size));
        for (double[] a : new double[][] {v, h}) {
            for (double x : a) s.append(x).append(' ');
            s.append('\n');
        }
        for (double hh : h) {
            for (double vv : v) s.append(String.format(Locale.ROOT, "%.3f ", candela.applyAsDouble(vv, hh)));
            s.append('\n');
        }
        return s.toString();
    }

    private static double[] steps(double from, double to, double by) {
        double[] a = new double[(int) Math.round((to - from) / by) + 1];
        for (int i = 0; i < a.length; i++) a[i] = from + by * i;
        return a;
    }

    private static double lambert(double v, double h) {
        return v < 90 ? 1000 / Math.PI * Math.cos(Math.toRadians(v)) : 0;
    }

    private static float toward(PhotometricWeb w, double v, double h) {
        double t = Math.toRadians(v), p = Math.toRadians(h);
        return w.candela(Math.sin(t) * Math.cos(p), Math.sin(t) * Math.sin(p), Math.cos(t));
    }

    /** The file's intensities at the file's angles, its lumens by integration within a percent, for each symmetry. */
    @ParameterizedTest
    @ValueSource(strings = {"0:0:1", "0:90:22.5", "0:180:30", "0:360:15", "90:270:45", "0:345:15"})
    void typeC(String turn) throws FormatException {
        String[] t = turn.split(":");
        double[] v = steps(0, 180, 2.5), h = steps(Double.parseDouble(t[0]), Double.parseDouble(t[1]), Double.parseDouble(t[2]));
        DoubleBinaryOperator cd = (a, b) -> lambert(a, b) * (h.length == 1 ? 1
                : 1 + 0.4 * Math.cos(Math.toRadians(2 * b)) + (t[1].startsWith("3") ? 0.1 * Math.cos(Math.toRadians(b)) : 0));
        PhotometricWeb w = IesFile.read(file(HEAD, 1, v, h, "0.1 0.2 0", cd), "a.ies").web();
        // Straight down and straight up all turns are one direction.
        for (double a : v) for (double b : h) if (b == 0 || a > 0 && a < 180)
            assertEquals(cd.applyAsDouble(a, b), toward(w, a, b), 0.002 + 0.0005 * cd.applyAsDouble(a, b), "at " + a + ", " + b);
        assertEquals(1000, w.lumens(), 10);
    }

    /** Below the horizon only, with symmetric quarters read at mirrored angles. */
    @Test
    void quarters() throws FormatException {
        PhotometricWeb w = IesFile.read(file(HEAD, 1, steps(0, 90, 5), steps(0, 90, 10), "0 0 0", (a, b) -> 10 + b), "a.ies").web();
        assertEquals(40, toward(w, 45, 30), 0.01);
        assertEquals(40, toward(w, 45, 150), 0.01);
        assertEquals(40, toward(w, 45, 210), 0.01);
        assertEquals(40, toward(w, 45, 330), 0.01);
        assertEquals(0, toward(w, 100, 30));
    }

    /** A flood light measured about its x axis: straight ahead is vertical 0, horizontal 0. */
    @Test
    void typeB() throws FormatException {
        PhotometricWeb w = IesFile.read(file(HEAD, 2, steps(-90, 90, 5), steps(0, 90, 10), "0 0 0",
                (v, h) -> 1000 * Math.exp(-(v * v / 800 + h * h / 3200))), "b.ies").web();
        assertEquals(1000, w.candela(0, 0, 1), 0.5);
        assertEquals(w.candela(0.5, 0, Math.sqrt(0.75)), w.candela(-0.5, 0, Math.sqrt(0.75)), 1e-3);
        assertTrue(w.candela(0.5, 0, Math.sqrt(0.75)) > w.candela(0, 0.5, Math.sqrt(0.75)), "wider along x");
        PhotometricWeb a = IesFile.read(file(HEAD, 3, steps(-90, 90, 5), steps(-90, 90, 10), "0 0 0",
                (v, h) -> 1000 - 5 * Math.abs(v) - 2 * Math.abs(h)), "a.ies").web();
        assertEquals(1000 - 5 * 30, a.candela(0, 0.5, Math.sqrt(0.75)), 0.5);
        assertEquals(1000 - 2 * 30, a.candela(0.5, 0, Math.sqrt(0.75)), 0.5);
    }

    /** Editions, commas, long lines, odd line ends, feet, round openings, factors. */
    @ParameterizedTest
    @ValueSource(strings = {"TILT=NONE\n", "IESNA91\nTILT = NONE\r\n", "IESNA:LM-63-1995\n[DATE] 1\nTILT=NONE\r",
            "IES:LM-63-2019\n[_OWN] word\nTILT=NONE\n",
        "IESNA:LM-63-2002\n[LAMP] [odd] text\n\nTILT=INCLUDE\n1\n3\n0 45 90\n1 0.9,0.8\n", "A title without a sign\nTILT=NONE\n"})
    void editions(String head) throws FormatException {
        var p = IesFile.read(file(head, 1, steps(0, 90, 7.5), new double[] {0}, "-0.3 -0.3 0.1", IesFileTest::lambert), "e.ies");
        assertEquals(1000, p.web().lumens(), 12);
        assertEquals(0.3, p.width(), 1e-9);
        assertEquals(0, p.length());
        assertEquals(35, p.watts());
        assertEquals(head.contains("INCLUDE") ? 0.95 : 1, p.tilt(22.5), 1e-9);
    }

    @Test
    void factorsAndFeet() throws FormatException {
        String t = HEAD + "2,500,1.5,3,1,1,1,1.0,2.0,0\n0.9 0.8 12\n0\n45 90\n0\n100\n50 0\n";
        var p = IesFile.read(t, "f.ies");
        assertEquals(100 * 1.5 * 0.9 * 0.8, p.web().candela(0, 0, 1), 1e-3);
        assertEquals(0.3048, p.width(), 1e-9);
        assertEquals(0.6096, p.length(), 1e-9);
        assertEquals("Wall washer with glass", p.title());
        assertEquals(500, p.lampLumens());
    }

    /** Each is refused, and the message names the file and says what is wrong. */
    @ParameterizedTest
    @ValueSource(strings = {
        "", "a picture of a cat", "IESNA91\n[TEST] no tilt", "TILT=lamp.tlt\n1 1 1 1 1 1 2 0 0 0 1 1 1 0 0 1", "TILT=NONE\n",
                "TILT=NONE\n1 1000 1 3 1 1 2 0 0 0\n1 1 35\n0 45",
        "TILT=NONE\n1 1000 1 3 1 1 2 0 0 0\n1 1 35\n0 45 30\n0\n1 2 3", "TILT=NONE\n1 1000 1 3 1 4 2 0 0 0\n1 1 35\n0 45 90\n0\n1 2 3",
        "TILT=NONE\n1 1000 1 3 1 1 3 0 0 0\n1 1 35\n0 45 90\n0\n1 2 3",
        "TILT=NONE\n1 1000 1 3000000 1 1 2 0 0 0\n1 1 35\n", "TILT=NONE\n1 1000 1 3.5 1 1 2 0 0 0\n1 1 35\n",
        "TILT=NONE\n1 1000 1 3 1 1 2 0 0 0\n1 1 35\n0 45 90\n0\n1 two 3",
        "TILT=NONE\n1 1000 1 3 1 1 2 0 0 0\n1 1 35\n0 45 90\n0\n1 NaN 3", "TILT=NONE\n1 1000 1 3 1 1 2 0 0 0\n1 1 35\n0 45 90\n0\n0 0 0",
        "TILT=NONE\n1 1000 1 3 2 1 2 0 0 0\n1 1 35\n0 45 90\n0 120\n1 2 3 1 2 3",
        "TILT=NONE\n1 1000 1 3 1 1 2 0 0 0\n1 1 35\n-90 45 90\n0\n1 2 3", "TILT=NONE\n1 1000 1 3 1 2 2 0 0 0\n1 1 35\n0 45 180\n0\n1 2 3",
        "TILT=INCLUDE\n1\n0\n1 1", "TILT=NONE\n1 1000 0 3 1 1 2 0 0 0\n1 1 35\n0 45 90\n0\n1 2 3",
        "TILT=NONE\n1 1000 1 1e9 1 1 2 0 0 0\n1 1 35\n", "TILT=NONE\n1 1000 1 3 1 1 2 0 0 0\n1 1 35\n0 45 90\n0\n1e99 2 3"})
    void broken(String text) {
        FormatException e = assertThrows(FormatException.class, () -> IesFile.read(text, "lamp.ies"));
        assertTrue(e.getMessage().startsWith("lamp.ies: ") && e.getMessage().length() > 30, e.getMessage());
    }
}
