package bake.studio.project;

import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Digests of project texts that have passed the check, as empty files in the user's cache folder. */
public final class CheckedTexts implements ProjectFile.Checked {
    private final Path folder;

    public CheckedTexts(Path folder) {
        this.folder = folder;
    }

    @Override
    public boolean has(String digest) {
        return Files.exists(folder.resolve(digest));
    }

    @Override
    public void add(String digest) {
        try {
            Files.createDirectories(folder);
            Files.createFile(folder.resolve(digest));
        } catch (IOException e) {
            // It will be checked again next time.
        }
    }
}
