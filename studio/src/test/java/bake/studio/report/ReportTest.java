package bake.studio.report;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.estimate.WorkLog;
import bake.studio.plan.Deliveries;
import bake.studio.plan.DryRun;
import bake.studio.queue.QueueWorker;
import bake.studio.queue.RenderQueue;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a delivery is handed over with: two rounds side by side, light levels, sheets. */
class ReportTest {
    private static final String ROOM = """
            {"bake": 1, "name": "Room",
             "materials": [{"name": "black", "base": [0,0,0], "roughness": 1, "ior": 1}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "black"}],
             "lamps": [{"name": "bulb", "kind": "sphere", "position": [1,1,2], "diameter": 0.1, "lumens": LUMENS}],
             "presets": [{"name": "F", "version": 1, "purpose": "final", "setting": "interior", "width": 0, "noiseAim": 0, "timeLimit": 0, "samples": 4, "bounces": 3, "clamp": 0}],
             "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0.5]}, "size": [48, 30], "around": {"kind": "plain", "luminance": [0,0,0]}},
                       {"name": "Two", "camera": {"position": [4,0,1.5], "target": [0,0,0.5]}, "size": [40, 60], "around": {"kind": "plain", "luminance": [0,0,0]}}]}""";
    @TempDir
    private Path dir;

    private Project project(int lumens) throws IOException {
        Files.writeString(dir.resolve("project.json"), ROOM.replace("LUMENS", "" + lumens));
        return ProjectFile.read(dir.resolve("project.json"));
    }

    private RenderQueue rendered(Project p) throws IOException {
        RenderQueue q = new RenderQueue(dir.resolve("queue"));
        var d = Deliveries.current(p);
        Deliveries.add(q, p, dir, d, Deliveries.pictures(p, dir, d, LocalDate.of(2031, 3, 1)), false, null);
        try (QueueWorker w = new QueueWorker(new RenderQueue(dir.resolve("queue")), 2, new WorkLog(dir.resolve("work.jsonl")),
                Clock.systemDefaultZone())) {
            assertTrue(w.run(false));
        }
        return q;
    }

    @Test
    void twoRoundsSideBySide() throws IOException {
        Project first = project(90_000);
        rendered(first);
        Project p = project(45_000).withDeliveries(Deliveries.nextRound(first).deliveries());
        // A lamp's light on a floor that throws nothing back: I cos / d^2, with I = lumens / 4 pi.
        p = Deliveries.withPoint(p, "table", new double[] {2, 2, 0}, new double[] {0, 0, 1});
        p = Deliveries.withPoint(p, "table", new double[] {1, 1, 0}, null);
        assertEquals(List.of("table", "table 2"), Deliveries.current(p).points().stream().map(x -> x.name()).toList());
        RenderQueue q = rendered(p);
        Report r = Report.of(q, p, dir, "R2", "R1", null);
        assertEquals(45_000 / (4 * Math.PI) * (2 / Math.sqrt(6)) / 6, r.views().getFirst().levels().getFirst().lux(), 4);
        assertEquals(45_000 / (4 * Math.PI) / 4, r.views().getFirst().levels().get(1).lux(), 8);
        assertTrue(r.views().getFirst().changes().stream().anyMatch(c -> c.contains("bulb")), r.views().getFirst().changes().toString());
        assertNull(Report.of(q, p, dir, "R1", null, null).views().getFirst().before());
        assertThrows(FormatException.class, () -> Report.of(q, first, dir, "R9", null, null));
        List<Path> made = Handover.write(dir.resolve("out"), r);
        assertEquals(4, made.size());
        String page = Files.readString(made.getFirst());
        assertEquals(5, page.split("data:image/jpeg").length, "two pictures of each view");
        assertTrue(page.contains("last round") && page.contains("table ") && page.contains(" lx"), "what is new in words");
        try (var d = Loader.loadPDF(made.get(1).toFile())) {
            String words = new PDFTextStripper().getText(d);
            assertTrue(words.contains("last round") && words.contains("Light levels") && words.contains(" lx"), words);
        }
        BufferedImage sheet = ImageIO.read(made.get(2).toFile());
        assertTrue(sheet.getWidth() > 1000 && sheet.getHeight() > 500, sheet.getWidth() + "x" + sheet.getHeight());
    }

    /** Each picture small, and trouble with one where its picture would be. */
    @Test
    void dryRun() throws IOException {
        Project p = project(90_000);
        List<Deliveries.Picture> all = new ArrayList<>(Deliveries.pictures(p, dir, Deliveries.current(p), LocalDate.of(2031, 3, 1)));
        List<DryRun.Small> made = new ArrayList<>();
        try (Workers w = new Workers(2)) {
            new DryRun(w).make(p, dir, all, made::add);
            DryRun stopped = new DryRun(w);
            stopped.stop();
            List<DryRun.Small> none = new ArrayList<>();
            stopped.make(p, dir, all, none::add);
            assertEquals(List.of(), none);
        }
        assertEquals(List.of("One", "Two"), made.stream().map(DryRun.Small::view).toList());
        assertEquals(16, made.getFirst().width());
        BufferedImage one = ContactSheet.draw("Sheet", List.of(new ContactSheet.Cell("One", new BufferedImage(2000, 1000, BufferedImage.TYPE_INT_RGB)),
                new ContactSheet.Cell("Two: a texture is missing", null)));
        // A black picture lies on its place, and what could not be made has an empty one.
        assertEquals(0xff000000, one.getRGB(28 + 310, 96 + 440 - 100));
        assertNotEquals(0xff000000, one.getRGB(28 + 620 + 28 + 310, 96 + 220));
    }

    /** The order is what was asked for; views that were not named come after. */
    @Test
    void order() throws IOException {
        Project p = Deliveries.move(project(90_000), dir, "Two", "One");
        assertEquals(List.of("Two", "One"), Deliveries.pictures(p, dir, Deliveries.current(p), LocalDate.EPOCH).stream().map(x -> x.view().name()).toList());
        Project back = Deliveries.move(p, dir, "Two", null);
        assertEquals(List.of("One", "Two"), Deliveries.pictures(back, dir, Deliveries.current(back), LocalDate.EPOCH).stream().map(x -> x.view().name()).toList());
        assertEquals(p, Deliveries.move(p, dir, "Three", null));
    }
}
