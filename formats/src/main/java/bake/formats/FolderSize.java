package bake.formats;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Set;

/** What folders take on disk. */
public final class FolderSize {
    private FolderSize() {}

    /**
     * Bytes of the plain files in a folder. What vanishes while it is counted, as something that another thread takes off, counts nothing,
     * and so does what cannot be read; the rest is counted.
     *
     * @param deep how many levels down, at least 1
     */
    public static long bytes(Path folder, int deep) {
        long[] sum = {0};
        try {
            Files.walkFileTree(folder, Set.of(), deep, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult visitFile(Path file, BasicFileAttributes a) {
                    if (a.isRegularFile()) sum[0] += a.size();
                    return FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult visitFileFailed(Path file, IOException gone) {
                    return FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult postVisitDirectory(Path folder, IOException gone) {
                    return FileVisitResult.CONTINUE;
                }
            });
        } catch (IOException e) {
            // The visitor goes on past all that fails.
            throw new UncheckedIOException(e);
        }
        return sum[0];
    }
}
