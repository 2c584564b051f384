package bake.studio.project;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.finish.Look;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ShippedPresets;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.first.NewProject;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import bake.studio.render.Fingerprint;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What artists have made is never lost: models, recoveries, numbers of proofs, edits of two windows. */
class NothingLostTest {
    @TempDir
    Path dir;

    private Path project() throws IOException {
        return Files.writeString(dir.resolve("project.json"), """
            {"bake": 1, "name": "room", "materials": [{"name": "wall", "base": [0.7, 0.6, 0.5]}],
             "shapes": [{"name": "floor", "type": "quad", "size": [4, 4], "center": [0, 0, 0], "material": "wall"}],
             "views": [{"name": "One", "camera": {"position": [1, -3, 1.5], "target": [0, 1, 1]}, "size": [24, 15]},
                       {"name": "Two", "camera": {"position": [-1, -3, 1.5], "target": [0, 1, 1]}, "size": [24, 15]}]}
            """);
    }

    private Path export(String name, String colour) throws IOException {
        Path far = Files.createDirectories(dir.resolve("exports").resolve(colour.replace(' ', '-')));
        Files.writeString(far.resolve("house.mtl"), "newmtl wall\nKd " + colour + "\n");
        return Files.writeString(far.resolve(name), "mtllib house.mtl\nv 0 0 0\nv 4 0 0\nv 4 0 -3\nusemtl wall\nf 1 2 3\n");
    }

    private static double red(Project p, Path folder) throws IOException {
        return new SceneAssembly(folder).scene(p, p.views().getFirst()).materials().stream().filter(m -> m.name().equals("wall"))
                .findFirst().orElseThrow().base().x();
    }

    /** A re-exported model brings its new side files, and the state before it finds the old ones. */
    @Test
    void replacedModelsKeepTheirOwnFiles() throws IOException {
        Path folder = dir.resolve("house project");
        NewProject.create(export("house.obj", "1 0 0"), folder);
        Project before = ProjectFile.read(folder.resolve("project.json"));
        double bright = red(before, folder);
        ProjectImport.replace(export("house.obj", "0.25 0 0"), folder, null);
        Project after = ProjectFile.read(folder.resolve("project.json"));
        assertTrue(red(after, folder) < 0.5 * bright, "the new material file is read, not the old one");
        assertEquals(bright, red(before, folder), 1e-9, "undo finds what it had");
        ModelStore store = new ModelStore(folder);
        assertEquals(List.of(), store.unused(List.of(before, after)));
        List<ModelStore.Unused> old = store.unused(List.of(after));
        assertEquals(1, old.size());
        assertEquals("house.obj", old.getFirst().model());
        assertTrue(old.getFirst().bytes() > 50 && store.clear(old.getFirst()) == old.getFirst().bytes());
        assertTrue(red(after, folder) > 0, "what is used stays");
        // The same again is the same folder.
        assertEquals(after.models().getFirst().file(), store.bring(export("house.obj", "0.25 0 0")));
    }

    @Test
    void undecidedRecoveriesStay() throws Exception {
        Path file = project();
        Files.writeString(dir.resolve(ProjectSession.AUTOSAVE), Files.readString(file).replace("room", "rescued"));
        try (ProjectSession s = ProjectSession.open(file)) {
            assertEquals("rescued", s.recovered().name());
            s.look("Two");
            s.edit(null, p -> p.withName("edited"));
            s.save();
        }
        Files.writeString(dir.resolve(ProjectSession.AUTOSAVE), Files.readString(file).replace("edited", "rescued later"));
        try (ProjectSession s = ProjectSession.open(file)) {
            assertEquals("rescued later", s.recovered().name(), "the newest first");
            s.discardRecovered();
            assertEquals("rescued", s.recovered().name(), "and the older one is still there");
            s.recover();
            assertEquals("rescued", s.project().name());
            assertNull(s.recovered());
        }
        try (ProjectSession s = ProjectSession.open(file)) {
            assertEquals("rescued", s.recovered().name(), "taken back, but never saved");
            s.recover();
            s.save();
        }
        try (ProjectSession s = ProjectSession.open(file)) {
            assertEquals("rescued", s.project().name());
            assertNull(s.recovered());
        }
    }

    @Test
    void oneWriterAtATime() throws Exception {
        Path file = project();
        try (ProjectSession one = ProjectSession.open(file)) {
            assertFalse(one.readOnly());
            try (ProjectSession two = ProjectSession.open(file)) {
                assertTrue(two.readOnly());
                assertEquals(ProcessHandle.current().pid(), two.holder().process());
                assertTrue(two.holder().words().contains("process"));
                assertFalse(two.edit(null, p -> p.withName("never")));
                assertThrows(FormatException.class, two::save);
                two.look("Two");
                assertEquals("Two", two.project().current(), "looking is allowed");
                FormatException e = assertThrows(ProjectLock.Held.class, () -> ProjectImport.replace(export("x.obj", "1 1 1"), dir, null));
                assertTrue(e.getMessage().contains("open for writing"), e.getMessage());
                one.edit(null, p -> p.withName("unsaved in the first"));
                two.takeOver();
                assertFalse(two.readOnly());
                assertThrows(FormatException.class, one::save, "the first finds out before it writes");
                two.edit(null, p -> p.withName("second"));
                two.save();
            }
            assertEquals("second", ProjectFile.read(file).name());
        }
        try (ProjectSession s = ProjectSession.open(file)) {
            assertFalse(s.readOnly(), "a lock ends with its holder");
        }
    }

    /** A second process holds the project; when it is killed the lock dies with it. */
    @Test
    void locksDieWithTheirProcess() throws Exception {
        project();
        Path held = dir.resolve("held");
        Process p = new ProcessBuilder(ProcessHandle.current().info().command().orElseThrow(), "-cp", System.getProperty("java.class.path"),
                Holding.class.getName(), dir.toString(), held.toString()).inheritIO().start();
        try {
            for (int i = 0; i < 400 && !Files.exists(held); i++) Thread.sleep(50);
            ProjectLock.Held e = assertThrows(ProjectLock.Held.class, () -> ProjectLock.take(dir));
            assertEquals(p.pid(), e.holder().process());
        } finally {
            p.destroyForcibly().waitFor(20, TimeUnit.SECONDS);
        }
        ProjectLock.take(dir).close();
        assertNull(ProjectLock.holder(dir));
    }

    /** Holds a project until it is killed. */
    static final class Holding {
        public static void main(String[] args) throws Exception {
            ProjectLock l = ProjectLock.take(Path.of(args[0]));
            Files.writeString(Path.of(args[1]), "" + l.held());
            Thread.sleep(60_000);
        }
    }

    @Test
    void changesFromOutsideAreOffered() throws Exception {
        Path file = project();
        AtomicReference<ProjectSession> open = new AtomicReference<>();
        try (ProjectSession s = ProjectSession.open(file)) {
            open.set(s);
            Files.writeString(file, Files.readString(file).replace("room", "theirs"));
            s.edit(null, p -> p.withName("mine"));
            FormatException e = assertThrows(FormatException.class, s::save);
            assertTrue(e.getMessage().contains("changed outside"), e.getMessage());
            assertEquals("theirs", ProjectFile.read(file).name(), "not written over");
            s.keepMine();
            s.save();
            assertEquals("mine", ProjectFile.read(file).name());
            Files.writeString(file, Files.readString(file).replace("mine", "theirs again"));
            s.watch(Runnable::run);
            for (int i = 0; i < 200 && s.changedOutside() == null; i++) Thread.sleep(50);
            assertEquals("theirs again", s.changedOutside().name());
            s.takeTheirs();
            assertEquals("theirs again", s.project().name());
            assertFalse(s.changed());
            s.undo();
            assertEquals("mine", s.project().name());
        }
    }

    /** What is not saved when somebody takes over is offered later, and not written over what they do. */
    @Test
    void whatIsTakenOverIsRescued() throws Exception {
        Path file = project();
        try (ProjectSession one = ProjectSession.open(file)) {
            one.watch(Runnable::run);
            one.edit(null, p -> p.withName("unsaved"));
            try (ProjectLock theirs = ProjectLock.takeOver(dir)) {
                for (int i = 0; i < 200 && !one.readOnly(); i++) Thread.sleep(50);
                assertTrue(one.readOnly(), "it is noticed within ten seconds");
            }
        }
        try (ProjectSession s = ProjectSession.open(file)) {
            assertEquals("room", s.project().name());
            assertEquals("unsaved", s.recovered().name());
        }
    }

    @Test
    void proofNumbersAreNeverUsedTwice() throws Exception {
        Project p = ProjectFile.read(project());
        View v = p.views().getFirst();
        ProofStore store = new ProofStore(dir), other = new ProofStore(dir);
        try (Workers w = new Workers(1)) {
            RenderJob j = new RenderJob(RenderScene.compile(new SceneAssembly(dir).scene(p, v), Workers.COMPILING), new RenderJob.Order(
                    v.name(), v.camera().camera(), Look.PLAIN, Preset.of("p", 1, "test", "interior", 0, 0, 0, 1, 2, 0, false), 24, 15, null, 1,
                    false), w);
            j.run(g -> {});
            assertEquals(1, store.keep(j, v, p, 1).number());
            Proof second = other.keep(j, v, p, 1);
            assertEquals(2, second.number());
            store.delete(second);
            assertEquals(3, store.keep(j, v, p, 1).number(), "the deleted one's number is not given again");
            store.list().forEach(x -> {
                try {
                    store.delete(x);
                } catch (IOException e) {
                    throw new AssertionError(e);
                }
            });
            assertEquals(4, new ProofStore(dir).keep(j, v, p, 1).number());
        }
    }

    /** A model in the project's own folder lies beside proofs, autosaves and checkpoints, which are none of it. */
    @Test
    void ownFilesAreNoPartOfAModel() throws IOException {
        project();
        Path model = Files.writeString(dir.resolve("house.obj"), "mtllib house.mtl\nv 0 0 0\nv 4 0 0\nv 4 0 -3\nf 1 2 3\n");
        Files.writeString(dir.resolve("house.mtl"), "newmtl wall\n");
        Project p = ProjectFile.read(dir.resolve("project.json"))
                .withModels(List.of(Project.ModelRef.of("house.obj")));
        View v = p.views().getFirst();
        Fingerprint before = Fingerprint.of(p, dir, v);
        Files.createDirectories(dir.resolve("proofs/0001"));
        Files.writeString(dir.resolve("proofs/0001/picture.png"), "x");
        Files.writeString(dir.resolve("one.exr.unfinished"), "x");
        Files.writeString(dir.resolve(ProjectSession.AUTOSAVE), "house.obj");
        Files.createDirectories(dir.resolve("renders"));
        Files.writeString(dir.resolve("renders/one.png"), "x");
        assertEquals(before, Fingerprint.of(p, dir, v));
        Files.writeString(dir.resolve("house.mtl"), "newmtl wall\nKd 1 0 0\n");
        assertNotEquals(before, Fingerprint.of(p, dir, v));
        assertNotNull(model);
    }

    /** Colleagues can read what is saved: files have the mode that all files of this user have. */
    @Test
    void othersMayReadWhatIsSaved() throws IOException {
        Path plain = Files.createFile(dir.resolve("plain"));
        Path file = project();
        try (ProjectSession s = ProjectSession.open(file)) {
            Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-rw-r--"));
            s.edit(null, p -> p.withName("new"));
            s.save();
        }
        assertEquals("rw-rw-r--", PosixFilePermissions.toString(Files.getPosixFilePermissions(file)), "a file's own mode stays");
        Path folder = dir.resolve("house project");
        NewProject.create(export("house.obj", "1 0 0"), folder);
        assertEquals(Files.getPosixFilePermissions(plain), Files.getPosixFilePermissions(folder.resolve("project.json")));
        Path model = folder.resolve(ProjectFile.read(folder.resolve("project.json")).models().getFirst().file());
        assertEquals(Files.getPosixFilePermissions(plain), Files.getPosixFilePermissions(model));
        assertEquals(Files.getPosixFilePermissions(folder), Files.getPosixFilePermissions(model.getParent()));
    }

    @Test
    void stepsHaveNames() throws IOException {
        try (ProjectSession s = ProjectSession.open(project())) {
            s.editView(null, v -> v.withAround(v.around().withTime("14:20")));
            assertEquals("time to 14:20", s.undoes());
            s.edit(null, p -> p.withViews(List.of(p.views().getFirst())));
            assertEquals("view Two taken away", s.undoes());
            s.undo();
            assertEquals("view Two taken away", s.redoes());
            s.look("Two");
            assertTrue(s.canRedo(), "looking at a view clears nothing");
            assertEquals("time to 14:20", s.undoes(), "and is no step");
            s.redo();
            assertEquals(1, s.project().views().size());
        }
    }

    /** Settings of the next proofs are steps like others, in one row with those of the project; choosing a preset is none. */
    @Test
    void settingsOfProofsAreSteps() throws IOException {
        try (ProjectSession s = ProjectSession.open(project())) {
            Preset a = ShippedPresets.PRESETS.getFirst(), finer = a.withBounces(a.bounces() + 1), b = ShippedPresets.PRESETS.getLast();
            s.chosen(a);
            assertFalse(s.canUndo());
            s.draft("bounces", a, finer);
            s.chosen(b);
            s.edit(null, p -> p.withName("Later"));
            assertEquals("name to Later", s.undoes());
            s.undo();
            assertEquals(finer, s.drafts().get(a.name()), "the settings are not those before");
            assertTrue(s.undoes().contains("bounces"), s.undoes());
            s.undo();
            assertEquals(a, s.drafts().get(a.name()));
            assertFalse(s.canUndo());
            s.redo();
            assertEquals(finer, s.drafts().get(a.name()));
            s.redo();
            assertEquals("Later", s.project().name());
            assertFalse(ProjectFile.toJson(s.project()).toString().contains(b.name()), "they are no part of the project");
            for (int i = 1; i < 4; i++) s.draft("clamp", s.drafts().get(a.name()), finer.withClamp(i));
            s.undo();
            assertEquals(finer, s.drafts().get(a.name()), "a dial that is turned is one step");
        }
    }
}
