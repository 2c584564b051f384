package bake.studio.scene;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.formats.FormatException;
import bake.formats.light.IesFile;
import bake.formats.project.LampSpec;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Which way the light of a photometric file goes. */
class PhotometricAimTest {
    /** Full turn, 1000 cd at 90 degrees, 400 at 0, 1 elsewhere; LM-63 type C, metres. */
    private static final String TURN = """
            IESNA:LM-63-2002
            TILT=NONE
            1 -1 1 3 5 1 2 0.1 0.2 0 1 1 20
            0 45 90
            0 90 180 270 360
            1 400 1
            1 1000 1
            1 1 1
            1 1 1
            1 400 1
            """;

    @TempDir
    Path dir;

    private static double towards(Lamp l, double x, double y, double z) {
        Vec3 d = l.frame().inverse().vector(new Vec3(x, y, z).normalized());
        return l.web().candela(d.x(), d.y(), d.z());
    }

    private Lamp lamp(String text, double... direction) throws IOException {
        Path f = Files.writeString(dir.resolve("a.ies"), text);
        LampSpec s = LampSpec.of("l", null, "ies", new double[] {0, 0, 3}, direction).withFile("a.ies");
        return LampFactory.lamp(s, x -> IesFile.read(f));
    }

    @Test
    void hangingItTurnsAsSeenFromAbove() throws IOException {
        Lamp l = lamp(TURN, 0, 0, -1);
        assertEquals(400, towards(l, 1, 0, -1), 1);
        assertEquals(1000, towards(l, 0, 1, -1), 1);
        assertEquals(1, towards(l, -1, 0, -1), 1);
        assertEquals(1, towards(l, 0, -1, -1), 1);
    }

    /** Tilted the shortest way: what pointed to +y goes on pointing there when it leans towards +x. */
    @Test
    void tiltedItKeepsItsTurn() throws IOException {
        Lamp l = lamp(TURN, 0.3, 0, -1);
        assertTrue(towards(l, 0.2, 1, -1) > 700, "" + towards(l, 0.2, 1, -1));
        assertTrue(towards(l, 0.2, -1, -1) < 100);
    }

    @Test
    void decimalCommasAndNegativesAreSaid() throws IOException {
        Path f = Files.writeString(dir.resolve("c.ies"), TURN.replace("1 1000 1", "1,5 1000 1"));
        String said = assertThrows(FormatException.class, () -> IesFile.read(f)).getMessage();
        assertTrue(said.contains("1 more") && said.contains("comma"), said);
        Path n = Files.writeString(dir.resolve("n.ies"), TURN.replace("1 1000 1", "-1 1000 -2"));
        assertEquals("2 intensities below zero taken as none", IesFile.read(n).notes().getFirst());
    }
}
