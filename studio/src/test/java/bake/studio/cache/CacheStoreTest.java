package bake.studio.cache;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.finish.Look;
import bake.core.path.BounceSettings;
import bake.core.solve.Caches;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.project.LampSpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.estimate.WorkLog;
import bake.studio.plan.Deliveries;
import bake.studio.preset.PresetKeys;
import bake.studio.preset.Presets;
import bake.studio.queue.QueueWorker;
import bake.studio.queue.RenderQueue;
import bake.studio.render.EngineSettings;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Caches in a folder: one light serves several views, what has changed is said, and a second view needs little more. */
class CacheStoreTest {
    @TempDir
    Path dir;

    private Project project() throws IOException {
        Files.writeString(dir.resolve("project.json"), """
            {"bake": 1, "name": "room", "materials": [{"name": "wall", "base": [0.7, 0.6, 0.5], "ior": 1}, {"name": "red", "base": [0.7, 0.1, 0.1], "ior": 1}],
             "shapes": [{"name": "floor", "type": "quad", "size": [4, 4], "center": [0, 0, 0], "material": "wall"}, {"name": "back", "type": "quad", "size": [4, 4], "center": [0, 2, 1.5], "normal": [0, -1, 0], "material": "red"}],
             "lamps": [{"name": "bulb", "kind": "sphere", "position": [1,1,2], "diameter": 0.1, "lumens": 500}],
             "views": [{"name": "One", "camera": {"position": [1, -3, 1.5], "target": [0, 1, 1]}, "size": [48, 30]}, {"name": "Two", "camera": {"position": [-1, -3, 1.5], "target": [0, 1, 1]}, "size": [48, 30]}]}
            """);
        return ProjectFile.read(dir.resolve("project.json"));
    }

    private static final Preset PRESET = Preset.of("p", 1, "test", "interior", 0, 0, 0, 2, 6, 0, true)
            .withBounces("irradiance cache", "radiance cache", null).withGatherRays(64);
    private static final BounceSettings HOW = EngineSettings.bounced(PRESET);

    private static RenderJob.Order order(View v) {
        return order(v, PRESET);
    }

    private static RenderJob.Order order(View v, Preset p) {
        return new RenderJob.Order(v.name(), v.camera().camera(), Look.PLAIN, p, 48, 30, null, 1, false);
    }

    private RenderJob render(Project p, View v, Caches with) throws IOException {
        try (Workers w = new Workers(2)) {
            RenderJob j = new RenderJob(RenderScene.compile(new SceneAssembly(dir).scene(p, v), Workers.COMPILING), order(v), w).with(with);
            j.run(x -> {});
            return j;
        }
    }

    @Test
    void oneLightServesAllViews() throws IOException {
        Project p = project();
        View one = p.views().getFirst(), two = p.views().get(1);
        CacheStore store = CacheStore.of(dir);
        assertTrue(store.fitting(p, dir, one, HOW, false).empty());
        RenderJob first = render(p, one, Caches.NONE);
        assertTrue(first.phases().caches() > 0 && first.phases().passes() > 0);
        store.keep(p, dir, one, HOW, first.caches());
        List<CacheStore.Entry> all = store.list(p, dir, two, HOW);
        assertEquals(List.of("irradiance", "radiance"), all.stream().map(CacheStore.Entry::kind).toList());
        assertTrue(all.stream().allMatch(CacheStore.Entry::fits));
        assertNotEquals(Begun.identity(p, dir, two, order(two), null), Begun.identity(p, dir, two, order(two), store),
                "a picture that begins with caches is another one");
        Caches kept = store.fitting(p, dir, two, HOW, false);
        int records = kept.records().records();
        RenderJob second = render(p, two, kept), alone = render(p, two, Caches.NONE);
        int added = second.caches().records().records() - records;
        assertTrue(added < 0.5 * alone.caches().records().records(), added + " records more of " + alone.caches().records().records());
        store.keep(p, dir, two, HOW, second.caches());
        assertEquals(2, store.list().size(), "the same files, grown");
        assertTrue(store.clear() > 0);
        assertTrue(store.list().isEmpty());
    }

    /** Finals keep what they have cached for those after them; delivered again, they find the same and leave it as it is. */
    @Test
    void finalsKeepTheirs() throws IOException {
        Project p = project();
        CacheStore store = CacheStore.of(dir);
        deliver(p);
        assertEquals(List.of("irradiance", "radiance"), store.list().stream().map(CacheStore.Entry::kind).toList());
        View two = p.views().get(1);
        String stamp = store.stamp(p, dir, two, HOW);
        deliver(p);
        assertEquals(stamp, store.stamp(p, dir, two, HOW), "a stopped final of the second view would go on");
    }

    private void deliver(Project p) throws IOException {
        RenderQueue queue = new RenderQueue(dir.resolve("queue"));
        Deliveries.add(queue, p, dir, Deliveries.FIRST, p.views().stream().map(v -> new Deliveries.Picture(v, PRESET, 48, 30,
                List.of(dir.resolve("out").resolve(v.name() + ".png")), false)).toList(), true, null);
        try (QueueWorker w = new QueueWorker(queue, 2, new WorkLog(dir.resolve("work.jsonl")), java.time.Clock.systemDefaultZone())) {
            assertTrue(w.run(false));
        }
    }

    @Test
    void saysWhatHasChanged() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        CacheStore store = CacheStore.of(dir);
        store.keep(p, dir, v, HOW, render(p, v, Caches.NONE).caches());
        assertEquals(List.of("the lamps"),
                changed(store, p.withLamps(p.lamps().stream().map(l -> (LampSpec) l.withLumens(900.0)).toList()), v));
        assertEquals(List.of("the sun"), changed(store, p, v.withAround(v.around().withTime("07:15"))));
        assertEquals(List.of("the sky"), changed(store, p, v.withAround(v.around().withHaze(4.0))));
        Path file = dir.resolve("project.json");
        Files.writeString(file, Files.readString(file).replace("[0.7, 0.1, 0.1]", "[0.1, 0.1, 0.7]"));
        Project painted = ProjectFile.read(file);
        assertEquals(List.of("one material"), changed(store, painted, v));
        assertTrue(store.fitting(painted, dir, v, HOW, false).empty(), "never used silently");
        assertEquals(List.of(), changed(store,
                p.withPortals(List.of(new Project.PortalSpec("p", new double[][] {{0, 0, 0}, {1, 0, 0}, {1, 0, 1}}, null, Map.of()))), v),
                "portals are only ways to look");
    }

    private List<String> changed(CacheStore store, Project p, View v) throws IOException {
        return store.list(p, dir, v, HOW).getFirst().changed();
    }

    /** A backdrop that is kept apart is one more source group, though it lights nothing: such a picture fills its own. */
    @Test
    void otherSourceGroupsAreLeftAlone() throws IOException {
        Project p = project();
        View v = p.views().getFirst(), apart = v.withAround(v.around().withApart(true));
        CacheStore store = CacheStore.of(dir);
        store.keep(p, dir, v, HOW, render(p, v, Caches.NONE).caches());
        Caches kept = store.fitting(p, dir, apart, HOW, false);
        assertFalse(kept.empty(), "the light is the same");
        assertNotEquals(kept.records().channels(), render(p, apart, kept).caches().records().channels());
    }

    @Test
    void damagedOnesAreAsGoodAsNone() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        CacheStore store = CacheStore.of(dir);
        store.keep(p, dir, v, HOW, render(p, v, Caches.NONE).caches());
        for (CacheStore.Entry e : store.list()) Files.write(e.file(), new byte[20]);
        assertTrue(store.fitting(p, dir, v, HOW, false).empty());
        assertTrue(store.list().stream().allMatch(e -> e.problem() != null && e.problem().contains("delete it")));
        assertFalse(store.list().getFirst().fits());
    }

    @Test
    void presetsByKey() throws IOException {
        Project p = project();
        Preset t = Presets.suiting(p, p.views().getFirst().withSize(10, 10), false);
        assertTrue(PresetKeys.about("laterBounces=none") && !PresetKeys.about("views[0].name=x") && !PresetKeys.about("name=x"));
        assertEquals("none", PresetKeys.set(p, t, "laterBounces=none").laterBounces());
        assertEquals(640, PresetKeys.set(p, t, "gatherRays=640").gatherRays());
        assertEquals("radiance cache", PresetKeys.set(p, t, "laterBounces=\"radiance cache\"").laterBounces());
        FormatException e = assertThrows(FormatException.class, () -> PresetKeys.set(p, t, "firstBounce=guessing"));
        assertTrue(e.getMessage().contains("firstBounce"), e.getMessage());
    }

    /** Records that hold the surroundings would count them twice in a picture that looks for them in every pixel. */
    @Test
    void whatIsComputedInAnotherWayIsNotUsed() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        CacheStore store = CacheStore.of(dir);
        store.keep(p, dir, v, HOW, render(p, v, Caches.NONE).caches());
        Caches other = store.fitting(p, dir, v, HOW.withSurroundings(true), false);
        assertNull(other.records());
        assertNotNull(other.cells(), "cells do not depend on that");
        assertEquals(List.of("how it is computed"), store.list(p, dir, v, HOW.withSurroundings(true)).stream()
                .filter(e -> e.kind().equals("irradiance")).findFirst().orElseThrow().changed());
        assertNotNull(store.fitting(p, dir, v, HOW.withSurroundings(true), true).records(), "for a look they may be");
        assertNull(store.fitting(p, dir, v, HOW.with(BounceSettings.Caustics.LEFT_OUT), false).cells());
    }

    @Test
    void whatIsLockedStays() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        CacheStore store = CacheStore.of(dir);
        store.keep(p, dir, v, HOW, render(p, v, Caches.NONE).caches());
        store.lock(true);
        byte[] before = Files.readAllBytes(store.list().getFirst().file());
        store.keep(p, dir, p.views().get(1), HOW, render(p, p.views().get(1), store.fitting(p, dir, v, HOW, false)).caches());
        assertArrayEquals(before, Files.readAllBytes(store.list().getFirst().file()));
        assertEquals(0, store.clear());
        assertEquals(2, store.list().size());
        store.lock(false);
        assertTrue(store.clear() > 0);
        assertTrue(store.list().isEmpty());
    }

    /** Photons are kept too, and a picture that begins with them is the same to the bit as the one that sent them. */
    @Test
    void photonsServeAgain() throws IOException {
        Project p = project();
        View v = p.views().getFirst();
        Preset preset = PRESET.withBounces("irradiance cache", "photon map", null).withPhotons(5000).withCaustics("photon map");
        CacheStore store = CacheStore.of(dir, preset);
        try (Workers w = new Workers(2)) {
            RenderScene scene = RenderScene.compile(new SceneAssembly(dir).scene(p, v), Workers.COMPILING);
            RenderJob first = new RenderJob(scene, order(v, preset), w);
            first.run(x -> {});
            assertTrue(first.caches().photons().photons() >= 5000);
            Caches sent = new Caches(null, null, first.caches().photons(), first.caches().caustics());
            store.keep(p, dir, v, EngineSettings.bounced(preset), sent);
            RenderJob second = new RenderJob(scene, order(v, preset), w).with(
                    store.fitting(p, dir, v, EngineSettings.bounced(preset), false));
            second.run(x -> {});
            assertArrayEquals(first.film().planeLuminance(), second.film().planeLuminance(), 0);
        }
    }
}
