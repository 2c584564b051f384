package bake.studio.preset;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.SharedPreset;
import bake.formats.project.View;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Presets that a studio shares: nothing that was saved is lost, whoever saves when. */
class PresetShelfTest {
    private static final Preset FIRST = Preset.of("Client final", 0, "final", "interior", 0, 2, 0, 4096, 12, 20, true);

    @TempDir
    private Path dir;

    private PresetShelf shelf() {
        return new PresetShelf("studio", dir.resolve("shelf"), dir.resolve("copies"));
    }

    private static SharedPreset shared(Preset p) {
        return SharedPreset.of(p);
    }

    @Test
    void versionsFollowEachOtherAndNeverChange() throws IOException {
        PresetShelf s = shelf();
        SharedPreset one = s.save(shared(FIRST), "begun", "Ann");
        byte[] file = Files.readAllBytes(dir.resolve("shelf/client final/v0001.json"));
        SharedPreset two = s.save(one.withPreset(one.preset().withClamp(50)), "fireflies", "Bob");
        assertEquals(2, two.preset().version());
        assertEquals(1, two.from());
        assertEquals(new String(file), Files.readString(dir.resolve("shelf/client final/v0001.json")), "the first stays as it was");
        PresetShelf.Entry e = s.find("CLIENT final");
        assertEquals(List.of("Client final@1", "Client final@2"), e.versions().stream().map(SharedPreset::id).toList());
        assertEquals("fireflies", e.newest().reason());
        assertEquals(List.of("clamp 20 \u2192 50"), PresetChanges.between(one.preset(), two.preset()).stream().map(PresetChanges.Change::line).toList());
        // A file with another version than its name says, or half a file, is no version.
        Files.copy(dir.resolve("shelf/client final/v0001.json"), dir.resolve("shelf/client final/v0009.json"));
        Files.writeString(dir.resolve("shelf/client final/v0003.json"), "{\"bakePreset\": 1, \"pre");
        assertEquals(2, s.find("Client final").newest().preset().version());
        assertEquals(4, s.save(two, "over half a file", "Ann").preset().version());
    }

    @Test
    void whoComesLaterIsOfferedAMerge() throws IOException {
        PresetShelf s = shelf();
        SharedPreset base = s.save(shared(FIRST), "begun", "Ann");
        SharedPreset theirs = s.save(base.withPreset(base.preset().withClamp(50).withBounces(16)), "theirs", "Bob");
        Preset mine = base.preset().withBounces(24).withDenoise(false);
        PresetShelf.Conflict c = assertThrows(PresetShelf.Conflict.class, () -> s.save(base.withPreset(mine), "mine", "Ann"));
        assertTrue(c.getMessage().contains("version 2") && c.getMessage().contains("Bob"), c.getMessage());
        PresetMerge m = PresetMerge.of(c.base().preset(), c.theirs().preset(), mine);
        assertEquals(List.of("bounces"), m.conflicts().stream().map(PresetChanges.Change::key).toList());
        assertEquals("16", m.conflicts().getFirst().was());
        Preset decided = m.decided(mine, Map.of("bounces", true));
        assertEquals(50, decided.clamp());
        assertEquals(24, decided.bounces());
        assertEquals(false, decided.denoise());
        assertEquals(16, m.decided(mine, Map.of()).bounces());
        SharedPreset merged = s.saveOver(base.withPreset(decided), theirs.preset().version(), "both", "Ann");
        assertEquals(3, merged.preset().version());
    }

    @Test
    void lockedAndRetired() throws IOException {
        PresetShelf s = shelf();
        SharedPreset one = s.save(shared(FIRST), null, "Ann"), two = s.save(one, null, "Ann");
        s.retire("Client final", 2, "use v1");
        assertEquals(1, s.find("Client final").current().preset().version());
        assertEquals("use v1", s.find("Client final").retired().get(2));
        s.retire("Client final", 2, null);
        assertEquals(2, s.find("Client final").current().preset().version());
        s.lock("Client final", "Ann");
        FormatException e = assertThrows(FormatException.class, () -> s.save(two, null, "Bob"));
        assertTrue(e.getMessage().contains("locked by Ann"), e.getMessage());
        s.lock("Client final", null);
        assertEquals(3, s.save(two, null, "Bob").preset().version());
    }

    @Test
    void aShelfThatIsAwayLeavesItsLastCopies() throws IOException {
        PresetShelf s = shelf();
        SharedPreset one = s.save(shared(FIRST), null, "Ann");
        s.list();
        Files.move(dir.resolve("shelf"), dir.resolve("elsewhere"));
        assertTrue(s.away());
        assertEquals(one.preset(), s.find("client final").newest().preset());
        Files.move(dir.resolve("elsewhere"), dir.resolve("shelf"));
        assertEquals(2, s.save(one, null, "Ann").preset().version());
    }

    /** Eight threads save at one moment, again and again: each version has one author, and whoever was told it was saved has it. */
    @Test
    void manyAtOnce() throws Exception {
        SharedPreset one = shelf().save(shared(FIRST), null, "first");
        ConcurrentLinkedQueue<String> said = new ConcurrentLinkedQueue<>();
        try (var pool = Executors.newFixedThreadPool(8)) {
            IntStream.range(0, 8).forEach(k -> pool.submit(() -> {
                PresetShelf s = new PresetShelf("studio", dir.resolve("shelf"), null);
                SharedPreset p = one;
                for (int i = 0; i < 12; i++) {
                    try {
                        p = s.save(p.withPreset(p.preset().withBounces(100 * k + i)), null, "t" + k);
                        said.add(p.id() + " " + p.preset().bounces());
                    } catch (PresetShelf.Conflict c) {
                        p = c.theirs();
                    }
                }
                return null;
            }));
        }
        PresetShelf.Entry e = shelf().find("Client final");
        for (String line : said) {
            String[] w = line.substring("Client final@".length()).split(" ");
            assertEquals(Integer.parseInt(w[1]), e.version(Integer.parseInt(w[0])).preset().bounces(), line);
        }
        assertEquals(said.size() + 1, e.versions().size());
    }

    @Test
    void aProjectKeepsTheVersionThatItUses() throws IOException {
        PresetShelf s = shelf();
        Shelves shelves = new Shelves(List.of(s));
        SharedPreset one = s.save(shared(FIRST), null, "Ann");
        Project p = ProjectFile.read(Json.parse("{\"bake\": 1, \"name\": \"x\", \"views\": [{\"name\": \"A\", \"camera\": {\"position\": [0,0,1], "
                + "\"target\": [0,1,1]}}]}", "x"), "x");
        View v = p.views().getFirst();
        Project pinned = Presets.pinned(p, Presets.named(p, v, "client final", shelves));
        SharedPreset two = s.save(one.withPreset(one.preset().withClamp(99)), "better", "Ann");
        assertEquals(20, Presets.named(pinned, v, "Client final", shelves).clamp(), "last year's picture");
        assertEquals(99, Presets.named(pinned, v, "Client final@2", shelves).clamp());
        assertEquals(99, Presets.named(p, v, "Client final", shelves).clamp(), "a project that never used it");
        assertEquals(two.id(), shelves.newer(pinned.presets().getFirst()).id());
        assertNull(shelves.newer(two.preset()));
        IllegalArgumentException e = assertThrows(IllegalArgumentException.class, () -> Presets.named(p, v, "Client final@7", shelves));
        assertTrue(e.getMessage().contains("1, 2"), e.getMessage());
    }

    @Test
    void aSingleFileIsBroughtAndBadOnesAreRefused() throws IOException {
        SharedPreset p = shared(FIRST.named("From afar", 3)).told("better", "Eve", 2, null);
        p.write(dir.resolve("one.json"));
        assertEquals("From afar", shelf().bring(dir.resolve("one.json"), "me").preset().name());
        for (String bad : new String[] {"{}", "{\"bakePreset\": 9, \"preset\": {}}", "{\"bakePreset\": 1}",
            "{\"bakePreset\": 1, \"preset\": {\"name\": \"x\", \"purpose\": \"test\", \"setting\": \"interior\", \"bounces\": -4}}"}) {
            Files.writeString(dir.resolve("bad.json"), bad);
            assertTrue(assertThrows(FormatException.class, () -> SharedPreset.read(dir.resolve("bad.json"))).getMessage().contains("bad.json"));
        }
        assertEquals("%2e%2e%2fup, now", PresetShelf.folderName("../up, now"), "no name leaves the folder");
    }
}
