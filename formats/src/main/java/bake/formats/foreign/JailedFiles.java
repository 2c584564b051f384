package bake.formats.foreign;

import bake.formats.SafePath;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.lwjgl.assimp.AIFile;
import org.lwjgl.assimp.AIFileIO;
import org.lwjgl.assimp.Assimp;
import org.lwjgl.system.MemoryUtil;

/** What the native library sees of the disk: the files in the model's folder and below it, to read. */
final class JailedFiles {
    private static final long MOST_BYTES = 1L << 31;

    private final Path folder;
    private final Map<Long, ByteBuffer> open = new HashMap<>();
    /** Callbacks live as long as their files may be used. */
    private final List<AIFile> kept = new ArrayList<>();

    JailedFiles(Path folder) {
        this.folder = folder;
    }

    /** The callbacks, to be kept until the import is over. */
    AIFileIO create() {
        return AIFileIO.create().OpenProc((io, name, mode) -> open(MemoryUtil.memUTF8(name), MemoryUtil.memUTF8(mode)))
                .CloseProc((io, file) -> close(file));
    }

    private long open(String name, String mode) {
        if (mode.contains("w") || mode.contains("a") || mode.contains("+")) return 0;
        Path p = resolve(name);
        if (p == null) return 0;
        ByteBuffer data;
        try {
            long size = Files.size(p);
            if (!Files.isRegularFile(p) || size >= MOST_BYTES) return 0;
            data = MemoryUtil.memAlloc((int) Math.max(1, size));
            try (var c = Files.newByteChannel(p)) {
                data.limit((int) size);
                while (data.hasRemaining() && c.read(data) >= 0) {}
            }
            data.flip();
        } catch (IOException e) {
            return 0;
        }
        long[] at = {0};
        AIFile f = AIFile.create();
        f.ReadProc((file, buffer, size, count) -> {
            long n = size == 0 ? 0 : Math.min(count, (data.limit() - at[0]) / size);
            MemoryUtil.memCopy(MemoryUtil.memAddress0(data) + at[0], buffer, n * size);
            at[0] += n * size;
            return n;
        });
        f.WriteProc((file, buffer, size, count) -> 0);
        f.TellProc(file -> at[0]);
        f.FileSizeProc(file -> data.limit());
        f.SeekProc((file, offset, origin) -> {
            long to = origin == Assimp.aiOrigin_CUR ? at[0] + offset : origin == Assimp.aiOrigin_END ? data.limit() + offset : offset;
            if (to < 0 || to > data.limit()) return Assimp.aiReturn_FAILURE;
            at[0] = to;
            return Assimp.aiReturn_SUCCESS;
        });
        f.FlushProc(file -> {});
        open.put(f.address(), data);
        kept.add(f);
        return f.address();
    }

    private Path resolve(String name) {
        try {
            Path given = Path.of(name.replace('\\', '/'));
            Path p = given.isAbsolute() ? given.normalize() : folder.resolve(given).normalize();
            if (!p.startsWith(folder)) return null;
            return SafePath.inside(folder, folder.relativize(p).toString(), name);
        } catch (IOException | RuntimeException e) {
            return null;
        }
    }

    private void close(long file) {
        ByteBuffer b = open.remove(file);
        if (b != null) MemoryUtil.memFree(b);
    }
}
