package bake.formats;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;

/** Writes files so that a crash at any moment leaves the old file or the new one, never half of it. */
public final class AtomicFile {
    private AtomicFile() {}

    /** What puts the bytes into the file. */
    public interface Content {
        void write(OutputStream out) throws IOException;
    }

    /** Writes to a temporary name beside the target, syncs, and renames. Missing folders are made. */
    public static void write(Path target, Content content) throws IOException {
        Path absolute = target.toAbsolutePath(), folder = absolute.getParent();
        Files.createDirectories(folder);
        Path temp = Files.createTempFile(folder, "." + absolute.getFileName(), ".part");
        try {
            try (FileChannel channel = FileChannel.open(temp, StandardOpenOption.WRITE)) {
                OutputStream out = new BufferedOutputStream(Channels.newOutputStream(channel), 1 << 16);
                content.write(out);
                out.flush();
                channel.force(true);
            }
            Files.move(temp, absolute, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(temp);
        }
    }
}
