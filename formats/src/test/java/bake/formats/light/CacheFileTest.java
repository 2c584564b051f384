package bake.formats.light;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assertions.fail;

import bake.core.cache.CellSamples;
import bake.core.cache.IrradianceCache;
import bake.core.cache.RadianceCache;
import bake.core.cache.RecordSamples;
import bake.formats.FormatException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.zip.CRC32;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Caches in files: what is written is read, and what is damaged is refused with a reason. */
class CacheFileTest {
    private static final int CHANNELS = 6, FILES = Integer.getInteger("damaged", 2500);

    @TempDir
    Path dir;

    private static RadianceCache cells() {
        RadianceCache c = new RadianceCache(CHANNELS);
        CellSamples s = new CellSamples(CHANNELS);
        SplittableRandom r = new SplittableRandom(2);
        for (int i = 0; i < 80; i++) s.add(r.nextFloat(), r.nextFloat(), 0, 0, 0, 1, 2, new float[] {1, 2, 3, 4, 5, r.nextFloat()}, 0);
        for (int k = 0; k < RadianceCache.SHARDS; k++) c.merge(k, new CellSamples[] {s});
        c.merged();
        return c;
    }

    private static IrradianceCache records() {
        IrradianceCache c = new IrradianceCache(CHANNELS);
        RecordSamples s = new RecordSamples(CHANNELS);
        SplittableRandom r = new SplittableRandom(3);
        for (int i = 0; i < 15; i++) s.add(r.nextFloat(), r.nextFloat(), 0, 0, 0, 1, 0.3f, new float[] {0, 0, 0, 0.5f, 0, 0},
                new float[] {1, 2, 3, 4, 5, r.nextFloat()});
        s.mark(3, 3, 0, 0, 0, 1, 0.1f);
        c.merge(new RecordSamples[] {s});
        return c;
    }

    @Test
    void writtenAndRead() throws IOException {
        Path a = dir.resolve("a.cache"), b = dir.resolve("b.cache");
        CacheFile.write(a, cells(), Map.of("view", "One"));
        CacheFile.write(b, records(), Map.of("view", "Two"));
        CacheFile.Kept k = CacheFile.read(a), q = CacheFile.read(b);
        assertNull(k.records());
        assertEquals("One", k.head().words().get("view"));
        assertEquals(cells().cells(), k.cells().cells());
        assertEquals(1, k.cells().rounds());
        float[] x = new float[CHANNELS], y = new float[CHANNELS];
        assertTrue(cells().read(0.5f, 0.5f, 0, 0, 0, 1, 0.5f, 0.5f, 0.5f, x)
                && k.cells().read(0.5f, 0.5f, 0, 0, 0, 1, 0.5f, 0.5f, 0.5f, y));
        assertArrayEquals(x, y);
        records().read(0.5f, 0.5f, 0, 0, 0, 1, x);
        q.records().read(0.5f, 0.5f, 0, 0, 0, 1, y);
        assertArrayEquals(x, y);
        assertEquals(IrradianceCache.Known.NARROW, q.records().read(3, 3, 0, 0, 0, 1, null));
        assertEquals("irradiance", CacheFile.head(b).kind());
    }

    /**
     * 2,500 files, or as many as the property "damaged" says (10,000 were read so), with flipped bits, missing ends, added bytes and heads
     * that lie; the last with sums that are right all the same.
     */
    @Test
    void damagedFiles() throws IOException {
        Path f = dir.resolve("bad.cache");
        CacheFile.write(f, cells(), Map.of("view", "One"));
        byte[] a = Files.readAllBytes(f);
        CacheFile.write(f, records(), Map.of("view", "One"));
        byte[] b = Files.readAllBytes(f);
        SplittableRandom r = new SplittableRandom(7);
        int read = 0;
        for (int i = 0; i < FILES; i++) {
            byte[] bytes = damage((i & 1) == 0 ? a : b, i % 5, r);
            Files.write(f, bytes);
            try {
                CacheFile.read(f);
                read++;
            } catch (FormatException e) {
                assertTrue(e.getMessage().contains("bad.cache") && e.getMessage().contains("delete it"), e.getMessage());
            } catch (RuntimeException e) {
                fail("damage of kind " + i % 5 + " in file " + i, e);
            }
        }
        // Only numbers that could be true pass: light of another amount, with a sum that fits.
        assertTrue(read < FILES / 5, read + " read");
    }

    private static byte[] damage(byte[] good, int kind, SplittableRandom r) {
        byte[] b = good.clone();
        switch (kind) {
            case 0 -> b[r.nextInt(b.length)] ^= (byte) (1 << r.nextInt(8));
            case 1 -> b = Arrays.copyOf(b, r.nextInt(b.length));
            case 2 -> b = Arrays.copyOf(b, b.length + 1 + r.nextInt(5000));
            case 3 -> {
                // Numbers of the head are changed, and the sum is made to fit.
                int at = 12 + r.nextInt(60);
                if (b[at] >= '0' && b[at] <= '9') b[at] = (byte) ('0' + r.nextInt(10));
                else b[at] = (byte) (32 + r.nextInt(90));
                sum(b);
            }
            default -> {
                for (int k = 0; k < 4; k++) b[b.length - 5 - r.nextInt(b.length / 2)] = (byte) r.nextInt(256);
                sum(b);
            }
        }
        return b;
    }

    private static void sum(byte[] b) {
        CRC32 c = new CRC32();
        c.update(b, 0, b.length - 4);
        ByteBuffer.wrap(b).order(ByteOrder.LITTLE_ENDIAN).putInt(b.length - 4, (int) c.getValue());
    }

    /** A head that promises more than there is takes no memory: it is refused by the file's length. */
    @Test
    void promisesOfMuch() throws IOException {
        Path f = dir.resolve("much.cache");
        for (String head : new String[] {"{\"kind\":\"radiance\",\"channels\":6,\"rows\":9000000000000000000,\"rounds\":1,\"words\":{}}",
                "{\"kind\":\"irradiance\",\"channels\":2000000001,\"rows\":1,\"rounds\":1}", "[]", "{}", "{\"kind\":7}"}) {
            byte[] text = head.getBytes(StandardCharsets.UTF_8);
            Files.write(f, ByteBuffer.allocate(12 + text.length + 40).order(ByteOrder.LITTLE_ENDIAN)
                    .put("bakelux1".getBytes(StandardCharsets.US_ASCII)).putInt(text.length).put(text).array());
            org.junit.jupiter.api.Assertions.assertThrows(FormatException.class, () -> CacheFile.read(f));
        }
    }
}
