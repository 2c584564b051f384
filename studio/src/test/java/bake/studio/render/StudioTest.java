package bake.studio.render;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.finish.Look;
import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.live.LiveRender;
import bake.studio.live.Spots;
import bake.studio.project.ProjectCheck;
import bake.studio.project.ProjectSession;
import bake.studio.project.Settings;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import bake.studio.scene.SceneAssembly;
import bake.studio.scene.SunPosition;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StudioTest {
    @TempDir
    Path dir;

    static final String ROOM = """
            {"bake": 1, "name": "Room",
             "materials": [{"name": "wall", "base": [0.7,0.7,0.7], "roughness": 1, "ior": 1}],
             "shapes": [{"name": "floor", "type": "quad", "center": [0,0,0], "size": [6,6], "material": "wall", "layer": "Shell"},
                        {"name": "block", "type": "box", "center": [0,0,0.5], "size": [1,1,1], "material": "wall", "layer": "Things"}],
             "lamps": [{"name": "bulb", "group": "Bulbs", "kind": "sphere", "position": [1,1,2], "diameter": 0.2, "lumens": 1000, "kelvin": 3000},
                       {"name": "spot", "group": "Spots", "kind": "spot", "position": [-1,0,2], "direction": [0,0,-1], "candela": 500, "beam": 30, "field": 50}],
             "views": [{"name": "One", "camera": {"position": [0,-4,1.5], "target": [0,0,0.5], "focal": 28, "shutter": 0.02, "fNumber": 4}, "size": [64, 40],
                        "around": {"kind": "plain", "luminance": [20,20,20]}},
                       {"name": "Two", "camera": {"position": [4,0,1.5], "target": [0,0,0.5]}, "size": [48, 32], "setting": "exterior"}]}""";

    private Path project() throws IOException {
        Path p = dir.resolve("project.json");
        Files.writeString(p, ROOM);
        return p;
    }

    private static Preset preset(double noise, double time, int samples) {
        return Preset.of("p", 1, "test", "interior", 64, noise, time, samples, 4, 0, false);
    }

    private RenderJob job(Preset p, Workers w) throws IOException {
        Project pr = ProjectFile.read(project());
        RenderScene s = RenderScene.compile(new SceneAssembly(dir).scene(pr, pr.views().getFirst()), ForkJoinPool.commonPool());
        return new RenderJob(s, new RenderJob.Order("One", pr.views().getFirst().camera().camera(), Look.PLAIN, p, 64, 40, null, 1, false),
                w);
    }

    /**
     * Reda and Andreas 2004, NREL/TP-560-34302, worked example: zenith 50.11162, azimuth 194.34024 degrees. The example stands 1,830 m high
     * in thinner air, which bends light by 0.003 degrees less than that of our sea level.
     */
    @Test
    void sunPositionOfTheWorkedExample() throws IOException {
        Project.Place golden = new Project.Place(39.742476, -105.1786, "-07:00", 0, java.util.Map.of());
        View.Around then = View.Around.sunAndSky("2003-10-17", "12:30:30", 2.5);
        SunPosition.Angles a = SunPosition.of(golden, then);
        assertEquals(90 - 50.11162, a.height(), 0.004);
        assertEquals(194.34024, a.azimuth(), 1e-3);
        assertEquals(a, SunPosition.of(new Project.Place(39.742476, -105.1786, "America/Denver", 0, java.util.Map.of()),
                then.withTime("13:30:30")), "summer time is an hour ahead of it");
    }

    /** The sun's vector follows the compass: due south at culmination, and turns with the project's north. */
    @Test
    void sunDirectionFollowsNorth() throws IOException {
        View.Around noon = View.Around.sunAndSky("2027-06-21", "13:26", 3);
        var place = new Project.Place(47.1, 8.9, "Europe/Zurich", 0, Map.of());
        Vec3 d = SunPosition.direction(place, noon);
        assertEquals(66.3, Math.toDegrees(Math.asin(d.z())), 0.3, "height at the solstice: 90 - latitude + 23.4");
        assertTrue(d.y() < 0 && Math.abs(d.x()) < 0.02, d.toString());
        Vec3 turned = SunPosition.direction(new Project.Place(47.1, 8.9, "Europe/Zurich", 90, Map.of()), noon);
        assertTrue(turned.x() < -0.3 && Math.abs(turned.y()) < 0.02, turned.toString());
        assertThrows(FormatException.class, () -> SunPosition.moment(new Project.Place(0, 0, "Nowhere/Land", 0, Map.of()), noon));
    }

    @Test
    void jobEndsAtItsLimits() throws IOException {
        try (Workers w = new Workers(2)) {
            RenderJob passes = job(preset(0, 0, 12), w);
            List<RenderJob.Progress> seen = new ArrayList<>();
            passes.run(seen::add);
            assertEquals(12, passes.progress().passes());
            assertEquals(RenderJob.State.DONE, passes.state());
            assertEquals(12L * 64 * 40, passes.film().samples());
            assertTrue(seen.size() >= 12 && seen.getLast().noise() < seen.get(2).noise());
            RenderJob noise = job(preset(8, 0, 100_000), w);
            noise.run(g -> {});
            assertTrue(noise.progress().noise() <= 8 && noise.progress().passes() < 100_000, noise.progress().toString());
            RenderJob time = job(preset(0, 0.4, 0), w);
            long start = System.nanoTime();
            time.run(g -> {});
            assertTrue((System.nanoTime() - start) / 1e9 < 3 && time.progress().passes() > 0);
            assertEquals(RenderJob.State.DONE, time.state());
        }
    }

    @Test
    void stopKeepsAndPauseRests() throws Exception {
        try (Workers w = new Workers(2)) {
            RenderJob j = job(preset(0, 0, 0), w);
            Thread t = new Thread(() -> {
                try {
                    j.run(g -> {});
                } catch (IOException e) {
                    throw new IllegalStateException(e);
                }
            });
            t.start();
            await(() -> j.progress().passes() > 3);
            j.pause();
            await(() -> j.state() == RenderJob.State.PAUSED);
            int n = j.progress().passes();
            Thread.sleep(120);
            assertEquals(n, j.progress().passes());
            j.resume();
            await(() -> j.progress().passes() > n);
            j.stop();
            t.join(5000);
            assertFalse(t.isAlive());
            assertEquals(RenderJob.State.STOPPED, j.state());
            Proof p = new ProofStore(dir).keep(j, ProjectFile.read(dir.resolve("project.json")).views().getFirst(), ProjectFile.read(dir.resolve("project.json")), 1);
            assertTrue(p.stopped() && p.passes() > n);
            Proof back = new ProofStore(dir).list().getFirst();
            assertEquals(p.preset(), back.preset());
            assertEquals(p.passes(), back.passes());
            assertEquals(p.view().camera().camera(), back.view().camera().camera(), "what was kept is read back");
        }
    }

    /** What rests while caches are filled is time of neither caches nor passes. */
    @Test
    void restsOfThePrepassAreNoWork() throws Exception {
        Preset p = preset(0, 0, 1).withBounces("irradiance cache", "radiance cache", true).withGatherRays(64);
        try (Workers w = new Workers(2)) {
            RenderJob j = job(p, w);
            boolean[] once = new boolean[1];
            double[] said = new double[1];
            long begun = System.nanoTime();
            j.run(g -> {
                if (g.passes() == 0) said[0] = g.seconds();
                if (g.passes() > 0 || once[0]) return;
                once[0] = true;
                j.pause();
                CompletableFuture.delayedExecutor(700, TimeUnit.MILLISECONDS).execute(j::resume);
            });
            double all = (System.nanoTime() - begun) / 1e9;
            assertTrue(once[0]);
            assertTrue(j.phases().passes() > 0, j.phases().toString());
            assertTrue(j.phases().caches() + j.phases().passes() < all - 0.6, j.phases() + " of " + all);
            assertTrue(said[0] > 0 && said[0] < all - 0.6, "nor is it said on the way: " + said[0] + " of " + all);
        }
    }

    private static void await(java.util.function.BooleanSupplier c) throws InterruptedException {
        for (int i = 0; i < 1000 && !c.getAsBoolean(); i++) Thread.sleep(10);
        assertTrue(c.getAsBoolean(), "waited ten seconds");
    }

    @Test
    void proofsAreKeptNumberedAndDeleted() throws IOException {
        ProofStore store = new ProofStore(dir);
        try (Workers w = new Workers(1)) {
            Project now = ProjectFile.read(project());
            View v = now.views().getFirst();
            RenderJob j = job(preset(0, 0, 2), w);
            j.run(g -> {});
            Proof a = store.keep(j, v, now, 1), b = store.keep(j, v, now, 1);
            assertEquals(ProjectFile.toJson(now), ProjectFile.toJson(store.project(a)), "the project is kept with it");
            assertEquals(1, a.number());
            assertEquals(2, b.number());
            store.save(a.withTitle("warmer").withPinned(true));
            Files.writeString(dir.resolve("proofs/0002/proof.json"), "{broken");
            assertEquals(List.of("warmer"), store.list().stream().map(Proof::title).toList());
            store.delete(a);
            assertTrue(store.list().isEmpty());
            store.putBack(a);
            assertEquals(List.of(1), store.list().stream().map(Proof::number).toList(), "what was taken off can be put back");
            store.delete(a);
            store.empty();
            store.putBack(a);
            assertTrue(store.list().isEmpty(), "until it is gone for good");
            Proof last = store.keep(j, v, now, 1);
            assertEquals(3, last.number(), "numbers are never used again");
            store.delete(last);
            store.empty();
            assertEquals(4, store.keep(j, v, now, 1).number(), "not even that of the last one");
        }
    }

    @Test
    void undoRedoSaveAndRecover() throws Exception {
        try (ProjectSession s = ProjectSession.open(project())) {
            s.edit(null, p -> p.withName("A"));
            for (int i = 0; i < 5; i++) {
                double stops = i;
                s.editView("fader", v -> v.withFader("Bulbs", stops));
            }
            assertEquals(4.0, s.project().currentView().faders().get("Bulbs"));
            s.undo();
            assertTrue(s.project().currentView().faders().isEmpty(), "a slider's edits are one");
            s.undo();
            assertEquals("Room", s.project().name());
            assertFalse(s.canUndo());
            s.redo();
            s.redo();
            assertEquals(4.0, s.project().currentView().faders().get("Bulbs"));
            assertTrue(s.changed());
            await(() -> Files.exists(dir.resolve(ProjectSession.AUTOSAVE)));
        }
        // As after a kill: the file is old, the autosave is there.
        try (ProjectSession s = ProjectSession.open(dir)) {
            assertNotNull(s.recovered());
            assertEquals("Room", s.project().name());
            s.recover();
            assertEquals("A", s.project().name());
            s.save();
            assertFalse(s.changed());
            assertFalse(Files.exists(dir.resolve(ProjectSession.AUTOSAVE)));
        }
        try (ProjectSession s = ProjectSession.open(dir)) {
            assertNull(s.recovered());
            assertEquals("A", s.project().name());
        }
    }

    @Test
    void layersGroupsAndFadersReachTheScene() throws IOException {
        Project p = ProjectFile.read(project());
        SceneAssembly a = new SceneAssembly(dir);
        View v = p.views().getFirst();
        var all = a.scene(p, v);
        assertEquals(2, all.instances().size());
        assertEquals(List.of("Shell", "Things"), a.layers());
        var less = a.scene(p.withLayers(List.of(new Project.Layer("Things", false, Map.of()))), v);
        assertEquals(1, less.instances().size());
        assertEquals(1, a.scene(p, v.withOff("Spots", true)).lamps().size());
        assertEquals(2, a.scene(p, v.withFader("Bulbs", 1)).levels().get("Bulbs").luminance(), 1e-6);
        assertEquals(0, a.scene(p, v.withFader("Bulbs", 1).withMuted("Bulbs", true)).levels().get("Bulbs").luminance());
        assertTrue(a.scene(p, v.withShift("Bulbs", 100)).levels().get("Bulbs").x() > 1, "warmer");
        var again = a.scene(p, v.withAround(v.around().withStops(0, 2)));
        assertTrue(again.meshes() == all.meshes() && again.materials() == all.materials(),
                "an edit of the light leaves the rest the same objects");
        Lamp spot = all.lamps().get(1);
        assertEquals(500, spot.lumens()
                / (2 * Math.PI * ((1 - Math.cos(Math.toRadians(15))) + 0.5
                * (Math.cos(Math.toRadians(15)) - Math.cos(Math.toRadians(25))))), 1e-6, "candela in the beam");
    }

    @Test
    void settingsByPath() throws IOException {
        Project p = ProjectFile.read(project());
        assertEquals(4, Settings.set(p, "views[0].around.haze=4").views().getFirst().around().haze());
        assertEquals("linear", Settings.set(p, "views[Two].curve=linear").views().get(1).curve());
        assertEquals(900, Settings.set(p, "lamps[bulb].lumens=900").lamps().getFirst().lumens());
        assertThrows(IllegalArgumentException.class, () -> Settings.set(p, "views[Nine].curve=linear"));
        assertThrows(IllegalArgumentException.class, () -> Settings.set(p, "nonsense"));
        assertThrows(FormatException.class, () -> Settings.set(p, "views[0].around.haze=400"));
    }

    /** The easel shows a first small picture, then the full one, and an edit starts it again. */
    @Test
    void easelRestartsOnEdit() throws Exception {
        Project p = ProjectFile.read(project());
        AtomicReference<LiveRender.Frame> last = new AtomicReference<>();
        List<Integer> widths = java.util.Collections.synchronizedList(new ArrayList<>());
        try (Workers w = new Workers(2); LiveRender live = new LiveRender(new SceneAssembly(dir), null, w, f -> {
            widths.add(f.width());
            last.set(f);
        }, e -> { throw new AssertionError(e); })) {
            View v = p.views().getFirst();
            live.show(p, v, 96, 60);
            await(() -> last.get() != null && last.get().passes() > 4);
            assertTrue(widths.getFirst() < 96, "small first");
            double before = last.get().light()[1];
            live.show(p, v.withAround(v.around().withStops(0, 3)), 96, 60);
            await(() -> last.get().passes() > 1 && last.get().light()[1] > 6 * before);
            live.hold();
            Thread.sleep(100);
            int n = widths.size();
            Thread.sleep(200);
            assertEquals(n, widths.size(), "it rests while a proof is made");
        }
    }

    /** Sources that are soloed while the easel has another view still to begin, or no picture of it yet, are those that it shows then. */
    @Test
    void soloedBeforeTheViewIsShown() throws Exception {
        Project p = ProjectFile.read(project());
        AtomicReference<LiveRender.Frame> last = new AtomicReference<>();
        try (Workers w = new Workers(2); LiveRender live = new LiveRender(new SceneAssembly(dir), null, w, last::set,
                e -> { throw new AssertionError(e); })) {
            View v = p.views().getFirst();
            live.show(p, v, 96, 60);
            await(() -> last.get() != null && last.get().passes() > 4);
            double all = brightness(last.get());
            for (int wait = 0; wait < 8; wait++) {
                int width = 64 + wait;
                live.show(p, v, width, 40);
                Thread.sleep(wait);
                live.solo(Set.of("Spots"));
                await(() -> last.get().aimed() == width && last.get().passes() > 4);
                double one = brightness(last.get());
                assertTrue(one < 0.8 * all, one + " of " + all + " after " + wait + " ms");
                live.solo(Set.of());
                await(() -> brightness(last.get()) > 0.95 * all);
            }
        }
    }

    private static double brightness(LiveRender.Frame f) {
        double sum = 0;
        for (int x : f.argb()) sum += x >> 8 & 255;
        return sum / f.argb().length;
    }

    @Test
    void checkSaysWhatIsDoubtful() throws IOException {
        Project p = ProjectFile.read(project());
        View dark = p.views().getFirst().withAround(View.Around.DEFAULT.withKind("plain").withLuminance(new double[] {0, 0, 0}))
                .withOff("Bulbs", true).withOff("Spots", true).withSetting("interior");
        View bright = dark.withName("B").withCamera(dark.camera().camera().withEv(15));
        List<String> f = ProjectCheck.findings(p.withViews(List.of(dark, bright)), new SceneAssembly(dir));
        assertTrue(f.stream().anyMatch(s -> s.contains("nothing gives light")), f.toString());
        assertTrue(f.stream().anyMatch(s -> s.contains("'B'") && s.contains("outdoors")), f.toString());
        assertTrue(ProjectCheck.findings(p.withViews(List.of()).withModels(List.of()), new SceneAssembly(dir)).stream()
                .anyMatch(s -> s.startsWith("views:")));
    }
}
