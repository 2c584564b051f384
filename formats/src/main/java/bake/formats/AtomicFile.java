package bake.formats;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermission;
import java.util.Set;
import java.util.concurrent.ThreadLocalRandom;

/** Writes files so that a crash at any moment leaves the old file or the new one, never half of it. */
public final class AtomicFile {
    private AtomicFile() {}

    /** What puts the bytes into the file. */
    public interface Content {
        void write(OutputStream out) throws IOException;
    }

    /** Writes to a temporary name beside the target, syncs, and renames. Missing folders are made. */
    public static void write(Path target, Content content) throws IOException {
        Path absolute = target.toAbsolutePath();
        Files.createDirectories(absolute.getParent());
        Path temp = part(absolute);
        try {
            try (FileChannel channel = FileChannel.open(temp, StandardOpenOption.WRITE)) {
                OutputStream out = new BufferedOutputStream(Channels.newOutputStream(channel), 1 << 16);
                content.write(out);
                out.flush();
                channel.force(true);
            }
            replace(temp, absolute);
        } finally {
            Files.deleteIfExists(temp);
        }
    }

    /**
     * A new, empty file beside a target under a name of its own, with the mode that files of this user have (not that of temporary files,
     * which others cannot read), or with the target's where that is there already.
     */
    public static Path part(Path target) throws IOException {
        while (true) {
            Path p = target.resolveSibling("." + target.getFileName() + "." + Long.toHexString(ThreadLocalRandom.current().nextLong())
                    + ".part");
            try {
                Files.createFile(p);
            } catch (FileAlreadyExistsException taken) {
                continue;
            }
            try {
                if (Files.exists(target)) Files.setPosixFilePermissions(p, mode(target));
            } catch (UnsupportedOperationException | IOException e) {
                // Not a file system with modes, or somebody else's file: the usual mode it is.
            }
            return p;
        }
    }

    private static Set<PosixFilePermission> mode(Path target) throws IOException {
        return Files.getPosixFilePermissions(target);
    }

    /** Puts a finished, synced part in the target's place. Once this returns the new file survives a loss of power. */
    public static void replace(Path part, Path target) throws IOException {
        Files.move(part, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        sync(target.toAbsolutePath().getParent());
    }

    /** Makes names that were given in a folder last. Where a platform cannot open folders it does so by itself. */
    public static void sync(Path folder) {
        try (FileChannel f = FileChannel.open(folder, StandardOpenOption.READ)) {
            f.force(true);
        } catch (IOException e) {
            // Windows.
        }
    }
}
