package bake.studio.cache;

import bake.core.geometry.Blas;
import bake.core.geometry.BlasStore;
import bake.core.geometry.Bvh;
import bake.formats.AtomicFile;
import bake.studio.user.UserFolders;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.channels.WritableByteChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.CRC32C;

/**
 * Finished hierarchies as files in the user's cache folder, so that a model that was open before shows its first picture
 * sooner. A file that is damaged, or that does not add up, is passed over and built anew. The folder may be deleted at any
 * time.
 *
 * <p>A file: magic, six lengths, then the arrays as little-endian ints, and a CRC-32C of all of it.
 */
public final class HierarchyCache implements BlasStore {
    private static final int MAGIC = 0x42484933, HEAD = 15;
    /** Smaller hierarchies are built as fast as they are read. */
    private static final int LEAST_TRIANGLES = 20_000;
    private static final long MOST_BYTES = 2L << 30;
    private static final HierarchyCache SHARED = new HierarchyCache(UserFolders.cache().resolve("hierarchies"));

    private final Path folder;

    public HierarchyCache(Path folder) {
        this.folder = folder;
    }

    /** The one in the user's cache folder. */
    public static HierarchyCache shared() {
        return SHARED;
    }

    private Path file(String key) {
        return folder.resolve(key + ".bvh");
    }

    @Override
    public Blas find(String key) {
        Path f = file(key);
        if (!Files.isRegularFile(f)) return null;
        try (FileChannel c = FileChannel.open(f, StandardOpenOption.READ)) {
            if (c.size() > Integer.MAX_VALUE || c.size() < 4L * (HEAD + 1)) return null;
            Blas b = read(c.map(FileChannel.MapMode.READ_ONLY, 0, c.size()).order(ByteOrder.LITTLE_ENDIAN));
            if (b != null) Files.setLastModifiedTime(f, FileTime.from(java.time.Instant.now()));
            return b;
        } catch (IOException e) {
            return null;
        }
    }

    private static Blas read(ByteBuffer in) {
        CRC32C sum = new CRC32C();
        sum.update(in.duplicate().limit(in.limit() - 4));
        if (in.getInt() != MAGIC || (int) sum.getValue() != in.getInt(in.limit() - 4)) return null;
        int nodes = in.getInt(), places = in.getInt(), normals = in.getInt(), uvs = in.getInt(), colours = in.getInt(),
                triangles = in.getInt();
        float[] bounds = new float[6];
        in.position(4 * (HEAD - 6));
        for (int k = 0; k < 6; k++) bounds[k] = in.getFloat();
        if (nodes < 0 || places < 0 || normals < 0 || uvs < 0 || colours < 0
                || 4L * (HEAD + nodes + 14L * places + normals + uvs + (long) colours + 1) != in.limit()) return null;
        int[] n = ints(in, nodes);
        float[] packets = floats(in, 9 * places);
        int[] vertices = ints(in, 3 * places);
        float[] nrm = floats(in, normals), uv = floats(in, uvs), col = floats(in, colours);
        return new Blas(new Bvh(n, new int[0], 4, bounds), packets, vertices, nrm, uv, col, ints(in, places), ints(in, places), triangles);
    }

    private static int[] ints(ByteBuffer in, int n) {
        int[] out = new int[n];
        in.slice().order(ByteOrder.LITTLE_ENDIAN).asIntBuffer().get(out);
        in.position(in.position() + 4 * n);
        return out;
    }

    private static float[] floats(ByteBuffer in, int n) {
        float[] out = new float[n];
        in.slice().order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(out);
        in.position(in.position() + 4 * n);
        return out;
    }

    /** Written later and with low priority: the first picture comes first. */
    @Override
    public void keep(String key, Blas b) {
        long bytes = 4L * (HEAD + b.bvh().nodes().length + 14L * b.places() + b.normals().length + b.uvs().length + b.colours().length + 1);
        if (b.triangles() < LEAST_TRIANGLES || bytes > Integer.MAX_VALUE) return;
        Thread t = new Thread(() -> {
            try {
                Thread.sleep(2500);
                write(key, b);
                trim();
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(HierarchyCache.class).info("hierarchy not kept: {}", e.toString());
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }, "hierarchy cache");
        t.setDaemon(true);
        t.setPriority(Thread.MIN_PRIORITY);
        t.start();
    }

    void write(String key, Blas b) throws IOException {
        Files.createDirectories(folder);
        AtomicFile.write(file(key), o -> {
            CRC32C sum = new CRC32C();
            WritableByteChannel out = Channels.newChannel(o);
            ByteBuffer head = ByteBuffer.allocate(4 * HEAD).order(ByteOrder.LITTLE_ENDIAN);
            head.putInt(MAGIC).putInt(b.bvh().nodes().length).putInt(b.places()).putInt(b.normals().length).putInt(b.uvs().length)
                    .putInt(b.colours().length).putInt(b.triangles());
            head.position(4 * (HEAD - 6));
            for (float x : b.bvh().bounds()) head.putFloat(x);
            put(out, sum, head.flip());
            Object[] arrays = {b.bvh().nodes(), b.packets(), b.vertices(), b.normals(), b.uvs(), b.colours(), b.materials(), b.sources()};
            for (Object a : arrays) put(out, sum, a);
            out.write(ByteBuffer.allocate(4).order(ByteOrder.LITTLE_ENDIAN).putInt((int) sum.getValue()).flip());
        });
    }

    private static void put(WritableByteChannel out, CRC32C sum, ByteBuffer b) throws IOException {
        sum.update(b.duplicate());
        out.write(b);
    }

    private static void put(WritableByteChannel out, CRC32C sum, Object array) throws IOException {
        int n = java.lang.reflect.Array.getLength(array), step = 1 << 16;
        for (int at = 0; at < n; at += step) {
            int m = Math.min(step, n - at);
            ByteBuffer b = ByteBuffer.allocate(4 * m).order(ByteOrder.LITTLE_ENDIAN);
            if (array instanceof int[] i) b.asIntBuffer().put(i, at, m);
            else b.asFloatBuffer().put((float[]) array, at, m);
            put(out, sum, b);
        }
    }

    /** Deletes what has not been used for longest. */
    private void trim() throws IOException {
        List<Path> all;
        try (Stream<Path> s = Files.list(folder)) {
            all = s.filter(p -> p.toString().endsWith(".bvh")).sorted(Comparator.comparing(HierarchyCache::used).reversed()).toList();
        }
        long sum = 0;
        for (Path p : all) {
            sum += Files.size(p);
            if (sum > MOST_BYTES) Files.deleteIfExists(p);
        }
    }

    private static FileTime used(Path p) {
        try {
            return Files.getLastModifiedTime(p);
        } catch (IOException e) {
            return FileTime.fromMillis(0);
        }
    }
}
