package bake.desktop.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.Json;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.proof.Proof;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Hundreds of proofs: the rail hangs a page of them, and finds the others. */
class ManyProofsTest extends WindowFixture {
    private static final int MANY = 500;

    @Start
    void start(Stage stage) throws IOException {
        show(stage);
        Project p = ProjectFile.read(dir.resolve("project.json"));
        BufferedImage image = new BufferedImage(48, 32, BufferedImage.TYPE_INT_RGB);
        for (int n = 1; n <= MANY; n++) {
            Path at = Files.createDirectories(dir.resolve(String.format("proofs/%04d", n)));
            ImageIO.write(image, "png", at.resolve("picture.png").toFile());
            Proof proof = new Proof(n, n == 17 ? "low sun" : "", n == 17 ? "for the client" : "", p.views().getFirst(), p.presets().getFirst(), 48, 32,
                    "2031-01-01T10:00", 5, 0, 6, 4, 1000, 0, 1, false, false, 0, 2, null, null);
            Files.write(at.resolve("proof.json"), Json.MAPPER.writeValueAsBytes(proof));
        }
    }

    @Test
    void pagesAndSearch(FxRobot r) {
        long start = System.nanoTime();
        open();
        assertTrue(System.nanoTime() - start < 20_000_000_000L);
        assertEquals(MANY, bench.prints().all().size());
        assertEquals(48, r.lookup(".print-button").queryAll().size(), "a page");
        QuickRobot.interact(() -> r.lookup("#older-proofs").queryAs(Button.class).fire());
        until("another page hangs", () -> r.lookup(".print-button").queryAll().size() == 96);
        r.clickOn("#find-proof").write("client sun").push(KeyCode.ENTER);
        until("the one with these words hangs", () -> r.lookup(".print-button").queryAll().size() == 1
                && r.lookup("#print-17").tryQuery().isPresent());
        r.push(KeyCode.ESCAPE);
        until("all are back", () -> r.lookup(".print-button").queryAll().size() == 96);
    }
}
