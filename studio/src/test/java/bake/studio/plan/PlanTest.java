package bake.studio.plan;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.project.DeliverySpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.ShippedPresets;
import bake.studio.estimate.Estimate;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.QueueHours;
import bake.studio.queue.QueueJob;
import bake.studio.render.EngineSettings;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Hours, clocks that are changed, chances that hold, and what would make a delivery fit. */
class PlanTest {
    private static final ZoneId ZURICH = ZoneId.of("Europe/Zurich");
    private static final QueueHours NIGHTS = QueueHours.of("20:00-06:00, weekends");
    @TempDir
    private Path dir;

    private static ZonedDateTime at(String local) {
        return LocalDateTime.parse(local).atZone(ZURICH);
    }

    @Test
    void hours() {
        assertFalse(NIGHTS.open(at("2031-03-05T12:00:00")));
        assertTrue(NIGHTS.open(at("2031-03-05T20:00:00")));
        assertTrue(NIGHTS.open(at("2031-03-06T05:59:59")));
        assertFalse(NIGHTS.open(at("2031-03-06T06:00:00")));
        assertTrue(NIGHTS.open(at("2031-03-08T12:00:00")), "a Saturday");
        // Wednesday noon: eight hours of work begin at eight in the evening; twelve go into the next night.
        assertEquals(at("2031-03-06T04:00:00"), NIGHTS.after(at("2031-03-05T12:00:00"), Duration.ofHours(8)));
        assertEquals(at("2031-03-06T22:00:00"), NIGHTS.after(at("2031-03-05T12:00:00"), Duration.ofHours(12)));
        // From Friday evening through Sunday it is one piece, until Monday six o'clock.
        assertEquals(at("2031-03-10T06:00:00"), NIGHTS.after(at("2031-03-07T12:00:00"), Duration.ofHours(58)));
        assertEquals(at("2031-03-10T21:00:00"), NIGHTS.after(at("2031-03-07T12:00:00"), Duration.ofHours(59)));
        assertEquals("20:00-06:00, weekends", NIGHTS.text());
        assertEquals(NIGHTS, QueueHours.of(NIGHTS.text()));
        assertThrows(IllegalArgumentException.class, () -> QueueHours.of("at night"));
        assertThrows(IllegalArgumentException.class, () -> QueueHours.of("25:00-26:00"));
    }

    /** The nights in which the clock is changed have an hour less and an hour more (30 March and 26 October 2031 in central Europe). */
    @Test
    void changedClocks() {
        QueueHours night = QueueHours.of("22:00-06:00");
        assertEquals(at("2031-03-30T06:00:00"), night.after(at("2031-03-29T12:00:00"), Duration.ofHours(7)));
        assertEquals(at("2031-03-30T23:00:00"), night.after(at("2031-03-29T12:00:00"), Duration.ofHours(8)));
        assertEquals(at("2031-10-26T06:00:00"), night.after(at("2031-10-25T12:00:00"), Duration.ofHours(9)));
        assertEquals(7 * 3600, Plan.budget(night, at("2031-03-29T12:00:00"), at("2031-03-30T12:00:00")), 61);
        assertEquals(9 * 3600, Plan.budget(night, at("2031-10-25T12:00:00"), at("2031-10-26T12:00:00")), 61);
        // Hours that begin in the hour that is left out.
        assertEquals(at("2031-03-30T04:00:00"), QueueHours.of("02:30-05:00").after(at("2031-03-30T01:00:00"), Duration.ofMinutes(30))
                .plusMinutes(30));
    }

    @Test
    void barsFollowOneAnother() {
        List<Plan.Work> works = List.of(new Plan.Work("a", 3600, 3000, 4320), new Plan.Work("b", 7200, 6000, 8640));
        Plan p = Plan.of(works, QueueHours.ALWAYS, at("2031-03-05T12:00:00"), at("2031-03-05T15:00:00"));
        assertEquals(at("2031-03-05T13:00:00"), p.bars().get(0).end());
        assertEquals(at("2031-03-05T13:00:00"), p.bars().get(1).begin());
        assertEquals(at("2031-03-05T15:00:00"), p.end());
        assertEquals(0.5, p.chance(), 0.06, "as likely as not");
        assertTrue(p.early().isBefore(p.end()) && p.late().isAfter(p.end()));
        assertEquals(1, Plan.of(works, QueueHours.ALWAYS, at("2031-03-05T12:00:00"), at("2031-03-06T12:00:00")).chance());
        assertEquals(0, Plan.of(works, QueueHours.ALWAYS, at("2031-03-05T12:00:00"), at("2031-03-05T11:00:00")).chance());
        assertTrue(Double.isNaN(Plan.of(works, QueueHours.ALWAYS, at("2031-03-05T12:00:00"), null).chance()));
    }

    /** Real by predicted times of the forty pictures of one run of {@code ./bake bench estimates} on two shared cores, sorted. */
    private static final double[] MEASURED = {0.52, 0.56, 0.58, 0.59, 0.6, 0.62, 0.68, 0.69, 0.7, 0.74, 0.75, 0.78, 0.8, 0.81, 0.81, 0.85,
        0.87, 0.87, 0.88, 0.89, 0.92, 0.94, 0.99, 1.0, 1.03, 1.04, 1.07, 1.07, 1.1, 1.13, 1.13, 1.36, 1.4, 1.47, 1.52, 1.7, 2.08, 2.13,
                2.68, 22.17};

    /** A picture without any limit has no end, and the plan says so by one far off. */
    @Test
    void whatHasNoEndIsPlanned() {
        ZonedDateTime now = at("2031-03-05T12:00:00");
        for (double s : new double[] {1e12, 1e300, Double.POSITIVE_INFINITY}) {
            Plan p = Plan.of(List.of(new Plan.Work("a", 60, 50, 70), new Plan.Work("b", s, s / 1.1, s * 1.1)), QueueHours.ALWAYS, now,
                    now.plusDays(30));
            assertEquals(0, p.chance());
            assertTrue(p.end().isAfter(now.plusDays(300)) && p.late().isBefore(now.plusYears(2)), p.toString());
        }
    }

    /**
     * Weeks of deliveries whose real times scatter as they were measured to, half of it common to a night and half each picture's own:
     * of those that were promised with nine tenths, about nine tenths hold.
     */
    @Test
    void promisesHold() {
        double mend = Math.exp(java.util.Arrays.stream(MEASURED).map(Math::log).average().orElseThrow());
        double[] off = java.util.Arrays.stream(MEASURED).map(x -> Math.abs(Math.log(x / mend))).sorted().toArray();
        double spread = Math.exp(off[31]);
        Random r = new Random(4);
        int held = 0, all = 1000;
        for (int week = 0; week < all; week++) {
            List<Plan.Work> works = IntStream.range(0, 5).mapToObj(i -> {
                double s = 600 + 6000 * r.nextDouble();
                return new Plan.Work("p" + i, s, s / spread, s * spread);
            }).toList();
            // The due time at which the plan says nine tenths.
            ZonedDateTime now = at("2031-03-05T12:00:00"), due = Plan.of(works, QueueHours.ALWAYS, now, null).late();
            if (week == 0) assertEquals(0.9, Plan.of(works, QueueHours.ALWAYS, now, due).chance(), 0.002);
            double hi = Duration.between(now, due).toMillis() / 1000.0, real = 0, common = Math.log(MEASURED[r.nextInt(40)] / mend);
            for (Plan.Work w : works)
                real += w.seconds() * Math.exp(Math.sqrt(0.5) * common + Math.sqrt(0.5) * Math.log(MEASURED[r.nextInt(40)] / mend));
            if (real <= hi) held++;
        }
        double share = held / (double) all;
        assertTrue(share > 0.85 && share < 0.95, "of promises of nine tenths held " + share);
    }

    @Test
    void whatWouldMakeItFit() throws IOException {
        Files.writeString(dir.resolve("project.json"), """
                {"bake": 1, "name": "P", "due": "2031-03-05T14:00",
                 "presets": [{"name": "F", "version": 1, "purpose": "final", "setting": "interior", "width": 0, "noiseAim": 2, "timeLimit": 0, "samples": 0, "bounces": 3, "clamp": 0}],
                 "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0.5]}, "size": [1000, 500]},
                           {"name": "Two", "camera": {"position": [4,0,1.5], "target": [0,0,0.5]}, "size": [1000, 500]}]}""");
        Project p = ProjectFile.read(dir.resolve("project.json"));
        List<Plan.Work> works = List.of(new Plan.Work("One", 3600, 3300, 3900), new Plan.Work("Two", 5400, 5000, 5800));
        ZonedDateTime now = at("2031-03-05T12:00:00");
        // Time goes with the pixels, and falls with the square of the noise.
        Fit.Predictor by = (q, x) -> {
            double s = (x.view().name().equals("One") ? 3600 : 5400) * (x.width() / 1000.0) * (x.height() / 500.0) * Math.pow(2 / x.preset()
                    .noiseAim(), 2);
            return new Estimate(s, s * 0.92, s * 1.08, x.preset().noiseAim(), 9, 0, s, 0, "", "noise aim", false);
        };
        List<Fit.Way> ways = Fit.ways(p, dir, works, QueueHours.ALWAYS, now, by);
        assertTrue(ways.stream().anyMatch(w -> w.words().equals("Two: 80 % of its size") && Math.abs(w.gain() - 0.36 * 5400) < 1), words(ways));
        assertTrue(ways.stream().anyMatch(w -> w.words().startsWith("Two: noise 3 % instead of 2 %") && w.chance() > 0.9), words(ways));
        assertTrue(ways.stream().anyMatch(w -> w.words().startsWith("One more night")), words(ways));
        assertTrue(ways.getFirst().chance() >= ways.getLast().chance());
        Fit.Way smaller = ways.stream().filter(w -> w.words().startsWith("Two: 80")).findFirst().orElseThrow();
        Deliveries.Picture two = Deliveries.pictures(smaller.project(), dir, Deliveries.current(smaller.project()), LocalDate.now()).get(1);
        assertEquals(800, two.width());
        Project locked = Deliveries.with(p, Deliveries.current(p).item("Two").withLocked(true));
        assertTrue(Fit.ways(locked, dir, works, QueueHours.ALWAYS, now, by).stream().noneMatch(w -> w.words().startsWith("Two")),
                "what is locked is left as it is");
        // With a day to spare it says what the time would buy.
        Project late = p.withDue("2031-03-06T14:00");
        List<Fit.Way> better = Fit.ways(late, dir, works, QueueHours.ALWAYS, now, by);
        assertTrue(better.stream().anyMatch(w -> w.words().startsWith("One: noise 1.33 %") && w.gain() < 0 && w.chance() > 0.9), words(better));
        assertEquals(List.of(), Fit.ways(p.withDue(null), dir, works, QueueHours.ALWAYS, now, by));
    }

    private static String words(List<Fit.Way> ways) {
        return String.join("; ", ways.stream().map(w -> w.words() + " " + w.gain() + " " + w.chance()).toList());
    }

    @Test
    void deliveries() throws IOException {
        Project p = ProjectFile.read(com.fasterxml.jackson.databind.json.JsonMapper.builder().build().readTree("""
                {"bake": 1, "name": "P", "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0.5]}, "size": [1000, 500]}],
                 "deliveries": [{"name": "R1", "files": ["tif", "exr"], "folder": "out", "dpi": 300, "bits": 8,
                    "views": [{"view": "One", "scale": 0.5, "noise": 3, "cached": false}]}]}"""), "test");
        DeliverySpec d = Deliveries.current(p);
        Deliveries.Picture x = Deliveries.pictures(p, Path.of("/p"), d, LocalDate.of(2031, 1, 2)).getFirst();
        assertEquals(500, x.width());
        assertEquals(3, x.preset().noiseAim());
        assertEquals(List.of(Path.of("/p/out/one.tif"), Path.of("/p/out/one.exr")), x.files());
        assertEquals(300, Deliveries.options(d).dpi());
        assertFalse(bake.studio.render.EngineSettings.bounced(x.preset()).cached());
        Project two = Deliveries.nextRound(p);
        assertEquals("R2", Deliveries.current(two).name());
        assertEquals("out", Deliveries.current(two).folder());
        Preset gone = x.preset();
        assertThrows(IllegalArgumentException.class, () -> Deliveries.pictures(Deliveries.with(p, d.item("One")
                .withPreset(gone.name() + "?")),
                Path.of("/p"), Deliveries.current(Deliveries.with(p, d.item("One").withPreset(gone.name() + "?"))), LocalDate.now()));
    }

    /** What was promised against what it took, by week. */
    @Test
    void score() {
        QueueJob j = new QueueJob(1, "/p", "P", "R1", "One", ShippedPresets.PRESETS.getFirst(), 10, 10, List.of("/a.png"), null, false, 0, null, null, null, 100);
        assertEquals(0, Score.of(List.of(entry(j, QueueEntry.State.FAILED, 50, "2031-03-03T10:00:00"))).pictures());
        Score s = Score.of(List.of(entry(j, QueueEntry.State.DONE, 50, "2031-03-03T10:00:00"), entry(j, QueueEntry.State.DONE, 200, "2031-03-09T10:00:00"),
                entry(j, QueueEntry.State.DONE, 200, "2031-03-10T10:00:00")));
        assertEquals(3, s.pictures());
        assertEquals(Math.cbrt(2), s.ratio(), 1e-9);
        assertEquals(List.of("2031-W10  1.00 of what was promised, 2 pictures", "2031-W11  2.00 of what was promised, 1 picture"),
                s.weeks().stream().map(Score.Week::words).toList());
    }

    private static QueueEntry entry(QueueJob j, QueueEntry.State state, double seconds, String ended) {
        return new QueueEntry(j, state, 0, "", false, seconds, 2, 10, List.of(), null, ended);
    }

    /** What is locked keeps its place; the others pass it. */
    @Test
    void lockedOnesKeepTheirPlaces() {
        List<String> all = List.of("a", "b", "c", "d");
        assertEquals(List.of("d", "b", "a", "c"), LockedOrder.moved(all, "b"::equals, "d", "a"));
        assertEquals(List.of("c", "b", "d", "a"), LockedOrder.moved(all, "b"::equals, "a", null));
        assertEquals(all, LockedOrder.moved(all, "b"::equals, "b", "a"), "it is not moved itself");
        assertEquals(List.of("b", "a", "c", "d"), LockedOrder.moved(all, x -> false, "b", "a"));
        assertEquals(all, LockedOrder.moved(all, x -> false, "e", "a"), "what is not there goes nowhere");
    }
}
