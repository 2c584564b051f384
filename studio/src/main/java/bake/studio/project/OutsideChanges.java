package bake.studio.project;

import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Arrays;

/** Notices when somebody else has written a project's file. */
final class OutsideChanges {
    private record Stamp(long size, long time) {
        static Stamp of(Path f) throws IOException {
            BasicFileAttributes a = Files.readAttributes(f, BasicFileAttributes.class);
            return new Stamp(a.size(), a.lastModifiedTime().toMillis());
        }
    }

    private final Path file;
    private Stamp stamp;
    private byte[] content;
    private boolean undecided;

    OutsideChanges(Path file) throws IOException {
        this.file = file;
        content = Files.readAllBytes(file);
        stamp = Stamp.of(file);
    }

    /** What the file holds now is what we know. */
    synchronized void known() {
        try {
            content = Files.readAllBytes(file);
            stamp = Stamp.of(file);
            undecided = false;
        } catch (IOException e) {
            // Gone again; the next look tells.
        }
    }

    /** Whether something was found that nobody has decided on. */
    synchronized boolean undecided() {
        return undecided;
    }

    /** What somebody else has written since the last look, or null; half a file or a broken one is left for the next look. */
    synchronized Project changed() {
        try {
            Stamp now = Stamp.of(file);
            if (now.equals(stamp)) return null;
            byte[] c = Files.readAllBytes(file);
            if (Arrays.equals(c, content)) {
                stamp = now;
                return null;
            }
            Project p = ProjectFile.read(file);
            stamp = now;
            content = c;
            undecided = true;
            return p;
        } catch (IOException e) {
            return null;
        }
    }

    /** Reads the file, which is known from then on. */
    synchronized Project read() throws IOException {
        Project p = ProjectFile.read(file);
        known();
        return p;
    }
}
