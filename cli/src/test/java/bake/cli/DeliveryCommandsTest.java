package bake.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.Json;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** From a delivery to its files and its report, by commands alone. */
class DeliveryCommandsTest extends CommandFixture {
    private String q;

    @BeforeEach
    void twoViews() throws IOException {
        q = dir.resolve("q").toString();
        Path f = dir.resolve("p/project.json");
        String s = Files.readString(f), view = s.substring(s.indexOf("{\"name\": \"One\""), s.lastIndexOf("]}"));
        Files.writeString(f, s.replace(view, view + ", " + view.replace("One", "Two & more")));
    }

    private JsonNode json() throws IOException {
        return Json.MAPPER.readTree(out);
    }

    private JsonNode list() throws IOException {
        assertEquals(0, run("queue", "list", "--queue", q, "--json"), err);
        return json();
    }

    @Test
    void aDeliveryIsMade() throws IOException {
        assertEquals(0, run("queue", "add", p(), "--files", "png,exr", "--set", "samples=2", "--queue", q, "--json"), err);
        assertEquals(2, json().size());
        assertEquals("Two & more", json().at("/1/view").asText());
        assertEquals(80, json().at("/1/width").asInt());
        assertEquals("waiting", list().at("/pictures/0/state").asText());
        assertEquals(0, run("queue", "move", "2", "--before", "1", "--queue", q, "--json"), err);
        assertEquals(2, json().at("/pictures/0/id").asInt());
        assertEquals(0, run("queue", "run", "--threads", "2", "--queue", q, "--json"), err);
        for (JsonNode n : list().get("pictures")) {
            assertEquals("done", n.get("state").asText(), n.toString());
            assertEquals(2, n.get("passes").asInt());
            for (JsonNode file : n.get("files")) assertTrue(Files.size(Path.of(file.asText())) > 50);
            assertEquals(64, n.at("/sha256/0").asText().length(), n.toString());
        }
        assertEquals(80, ImageIO.read(dir.resolve("p/finals/one.png").toFile()).getWidth());
        assertEquals(0, run("report", p(), "--queue", q, "--to", dir.resolve("out").toString(), "--json"), err);
        boolean page = false;
        for (JsonNode n : json()) {
            assertTrue(Files.size(Path.of(n.asText())) > 100, n.asText());
            if (!n.asText().endsWith(".html")) continue;
            page = true;
            assertTrue(Files.readString(Path.of(n.asText())).contains("Two &amp; more"));
        }
        assertTrue(page, out);
        assertEquals(0, run("queue", "forget", "--queue", q), err);
        assertEquals(0, list().get("pictures").size());
    }

    /** What the queue is told it still knows in the next command. */
    @Test
    void theQueueIsSteered() throws IOException {
        run("queue", "add", p(), "--view", "One", "--priority", "3", "--queue", q);
        run("queue", "add", p(), "--view", "Two & more", "--queue", q);
        assertEquals(3, list().at("/pictures/0/priority").asInt());
        assertEquals(0, run("queue", "hours", "18:00-06:15", "--queue", q), err);
        assertEquals(0, run("queue", "beside", "half", "--queue", q), err);
        assertEquals(0, run("queue", "pause", "--queue", q), err);
        assertEquals(0, run("queue", "cancel", "1", "--queue", q), err);
        JsonNode n = list();
        assertTrue(n.get("paused").asBoolean());
        assertEquals("half", n.get("beside").asText());
        assertTrue(n.get("hours").asText().contains("18:00"), n.get("hours").asText());
        assertEquals("cancelled", n.at("/pictures/0/state").asText(), n.toString());
        assertEquals(0, run("queue", "again", "1", "--queue", q), err);
        assertEquals(0, run("queue", "resume", "--queue", q), err);
        assertFalse(list().get("paused").asBoolean());
        assertEquals("waiting", list().at("/pictures/0/state").asText());
        assertEquals(2, run("queue", "hours", "sometimes", "--queue", q));
        assertEquals(2, run("queue", "beside", "nothing", "--queue", q));
        assertEquals(2, run("queue", "add", p(), "--view", "Nine", "--queue", q));
        assertTrue(err.contains("there is no view 'Nine'"), err);
        assertEquals(2, run("queue"));
    }

    /** Small pictures on a sheet before the night; a plan from small pictures, and one of a single view. */
    @Test
    void theNightIsForeseen() throws IOException {
        Path sheet = dir.resolve("sheet.png");
        assertEquals(0, run("queue", "dry", p(), "-o", sheet.toString(), "--threads", "2", "--json"), err);
        assertEquals(2, json().get("pictures").size());
        assertEquals(20, json().at("/pictures/0/width").asInt());
        assertTrue(ImageIO.read(sheet.toFile()).getWidth() > 40);
        assertEquals(0, run("estimate", p(), "--preset", "final", "--size", "160x100", "--threads", "2", "--json"), err);
        JsonNode e = json();
        assertTrue(e.get("low").asDouble() <= e.get("seconds").asDouble() && e.get("seconds").asDouble() <= e.get("high").asDouble(), out);
        assertEquals(e.get("seconds").asDouble(), e.at("/phases/caches").asDouble() + e.at("/phases/passes").asDouble()
                + e.at("/phases/finish").asDouble(), 1e-6);
        assertEquals(160, e.at("/size/0").asInt());
        assertEquals(2, run("estimate", p(), "--threads", "0"));
    }
}
