package bake.studio.preset;

import bake.formats.AtomicFile;
import bake.formats.project.SharedPreset;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** What was last known of a shelf, so that its presets can be used while its folder is away. */
record ShelfCopies(Path folder) {
    /** Copies what is new. Versions never change: one that is there is not looked at again. */
    void keep(Path shelf, List<PresetShelf.Entry> all) {
        for (PresetShelf.Entry e : all) {
            Path at = folder.resolve(PresetShelf.folderName(e.name())), from = shelf.resolve(PresetShelf.folderName(e.name()));
            try {
                for (SharedPreset p : e.versions()) {
                    Path f = at.resolve(String.format("v%04d.json", p.preset().version()));
                    if (!Files.exists(f)) p.write(f);
                }
                Path state = from.resolve("state.json");
                if (Files.isRegularFile(state)) {
                    byte[] b = Files.readAllBytes(state);
                    AtomicFile.write(at.resolve("state.json"), o -> o.write(b));
                }
            } catch (IOException x) {
                // Copies are a help for later; that they cannot be kept is no reason not to work now.
                org.slf4j.LoggerFactory.getLogger(ShelfCopies.class).warn("copies of {}: {}", e.name(), x.getMessage());
            }
        }
    }
}
