package bake.studio.look;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.finish.ExposureZones;
import bake.formats.FormatException;
import bake.studio.live.Waveform;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Ways to look at a picture: printed, in zones, by columns. */
class SoftProofTest {
    @TempDir
    private Path dir;

    private static int[] colours() {
        Random r = new Random(4);
        int[] out = new int[500];
        for (int i = 0; i < out.length; i++) out[i] = 0xff000000 | r.nextInt(1 << 24);
        return out;
    }

    /**
     * A profile that can show all of sRGB changes nothing and loses nothing; a grey one leaves the grey of each colour and loses
     * the rest.
     */
    @Test
    void throughProfiles() throws IOException {
        Path srgb = Files.write(dir.resolve("wide.icc"), ICC_Profile.getInstance(ColorSpace.CS_sRGB).getData());
        int[] in = colours(), same = SoftProof.read(srgb).show(in, true);
        for (int i = 0; i < in.length; i++) for (int k = 0; k < 24; k += 8) assertEquals(in[i] >> k & 255, same[i] >> k & 255, 2, "colour " + i);
        Path grey = Files.write(dir.resolve("grey.icc"), ICC_Profile.getInstance(ColorSpace.CS_GRAY).getData());
        SoftProof p = SoftProof.read(grey);
        assertEquals("grey.icc", p.name());
        int[] printed = p.show(in, false), marked = p.show(in, true);
        int marks = 0;
        for (int i = 0; i < in.length; i++) {
            assertEquals(printed[i] >> 16 & 255, printed[i] & 255, 6, "grey");
            if (marked[i] != printed[i]) marks++;
        }
        assertTrue(marks > 400, marks + " of 500 are lost");
        assertEquals(0x80, p.show(new int[] {0xff808080}, true)[0] & 255, 6, "grey is kept");
    }

    @Test
    void whatIsNoProfile() throws IOException {
        Path p = Files.writeString(dir.resolve("x.icc"), "no profile");
        assertTrue(assertThrows(FormatException.class, () -> SoftProof.read(p)).getMessage().contains("x.icc"));
    }

    /** Middle grey (118) lies in its own zone, a stop up in the next one; ends have their own colours. */
    @Test
    void zones() {
        int grey = ExposureZones.zone(0xff767676), up = ExposureZones.zone(0xffa2a2a2), down = ExposureZones.zone(0xff555555);
        assertEquals(grey + 1, up);
        assertEquals(grey - 1, down);
        assertEquals(-2, ExposureZones.zone(0xffff8040));
        assertEquals(-1, ExposureZones.zone(0xff010000));
        int c = ExposureZones.of(new int[] {0xff767676})[0];
        assertTrue(Math.abs((c >> 16 & 255) - (c & 255)) < 12, "middle grey is grey");
    }

    @Test
    void columns() {
        int[] p = new int[40 * 10];
        for (int i = 0; i < p.length; i++) p[i] = i % 40 < 20 ? 0xff000000 : 0xffffffff;
        Waveform w = Waveform.of(p, 40, 4, 16);
        assertEquals(100, w.counts()[0]);
        assertEquals(100, w.counts()[3 * 16 + 15]);
        assertEquals(100, w.most());
        assertEquals(0, w.counts()[3 * 16]);
    }
}
