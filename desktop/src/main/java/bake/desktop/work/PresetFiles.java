package bake.desktop.work;

import bake.formats.project.Preset;
import bake.formats.project.SharedPreset;
import bake.studio.preset.PresetShelf;
import bake.studio.preset.Shelves;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Executor;

/** Presets that leave and come as single files. Holds no control. */
public final class PresetFiles {
    private final Workbench bench;
    private final Executor background;
    private final PresetHand hand;

    PresetFiles(Workbench bench, Executor background, PresetHand hand) {
        this.bench = bench;
        this.background = background;
        this.hand = hand;
    }

    /** The preset as a file of its own that can be dragged away; null where it cannot be written. */
    public File asFile(Preset p) {
        try {
            Path f = Files.createTempDirectory("bake").resolve(p.name() + ".json");
            SharedPreset.of(p).write(f);
            f.toFile().deleteOnExit();
            return f.toFile();
        } catch (IOException e) {
            bench.notices().fail(e);
            return null;
        }
    }

    /** Writes a preset to a file of its own, with what is said about it. */
    public void write(Preset p, Path file) {
        SharedPreset told = hand.aboutProperty().get();
        background.execute(() -> {
            try {
                (told == null ? SharedPreset.of(p) : told.withPreset(p)).write(file);
                bench.notices().say("Saved " + file.getFileName() + ".");
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Brings a file that was dropped to the artist's own shelf, and makes the next proofs with it. */
    public void bring(Path file) {
        background.execute(() -> {
            try {
                PresetShelf s = Shelves.own();
                SharedPreset made = s.bring(file, System.getProperty("user.name"));
                bench.later(() -> hand.saved(s, made));
            } catch (PresetShelf.Conflict c) {
                bench.notices().say(c.theirs().preset().name() + " is on your own shelf already, with other settings in version "
                        + c.theirs().preset().version() + "; rename the file's preset, or merge it on the command line.");
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }
}
