package bake.cli;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** A small project in a folder of its own, and commands that are run as from a shell, but in this process. */
abstract class CommandFixture {
    @TempDir
    Path dir;

    String out, err;

    @BeforeEach
    void project() throws IOException {
        Files.createDirectories(dir.resolve("p"));
        Files.writeString(dir.resolve("p/project.json"), """
                {"bake": 1, "name": "Room", "materials": [{"name": "wall", "base": [0.5,0.5,0.5], "ior": 1}],
                 "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [60,60], "material": "wall"}],
                 "lamps": [{"name": "bulb", "group": "Bulbs", "kind": "point", "position": [0,0,2], "lumens": 1000, "kelvin": 3000}],
                 "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0], "shutter": 0.1, "fNumber": 2}, "size": [80, 50], "around": {"kind": "plain", "luminance": [10,10,10]}}]}""");
    }

    int run(String... args) {
        PrintStream o = System.out, e = System.err;
        ByteArrayOutputStream a = new ByteArrayOutputStream(), b = new ByteArrayOutputStream();
        try {
            System.setOut(new PrintStream(a, true, StandardCharsets.UTF_8));
            System.setErr(new PrintStream(b, true, StandardCharsets.UTF_8));
            return Main.run(args);
        } finally {
            System.setOut(o);
            System.setErr(e);
            out = a.toString(StandardCharsets.UTF_8);
            err = b.toString(StandardCharsets.UTF_8);
        }
    }

    String p() {
        return dir.resolve("p").toString();
    }
}
