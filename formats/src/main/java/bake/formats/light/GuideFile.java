package bake.formats.light;

import bake.core.guide.Guides;
import bake.core.guide.LightGuide;
import bake.formats.AtomicFile;
import bake.formats.FormatException;
import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.CRC32;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;

/**
 * Keeps what a picture's training has learnt. A file is: magic number, version, length and CRC-32 of the rest, then, deflated, named words
 * (of what it was learnt from), and the guides as {@link LightGuide.Data}; docs/guide-format.md says it byte by byte.
 */
public final class GuideFile {
    private static final int MAGIC = 0x42474944, VERSION = 1, HEAD = 20;
    private static final long MOST_BYTES = 256L << 20;
    private static final int MOST_WORDS = 64;

    private GuideFile() {}

    /**
     * What a file holds.
     *
     * @param words what the writer says of where it comes from, by name
     */
    public record Kept(Map<String, String> words, Guides guides) {}

    public static void write(Path file, Kept k) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        DataOutputStream out = new DataOutputStream(bytes);
        out.writeInt(k.words.size());
        for (var w : k.words.entrySet()) {
            text(out, w.getKey());
            text(out, w.getValue());
        }
        out.writeInt(k.guides.rounds());
        longs(out, k.guides.brought());
        longs(out, k.guides.bounced());
        guide(out, k.guides.sky());
        out.writeBoolean(k.guides.lamps() != null);
        if (k.guides.lamps() != null) guide(out, k.guides.lamps());
        byte[] raw = bytes.toByteArray(), packed = new byte[raw.length + raw.length / 100 + 64];
        Deflater d = new Deflater(4);
        d.setInput(raw);
        d.finish();
        int n = d.deflate(packed);
        d.end();
        CRC32 crc = new CRC32();
        crc.update(packed, 0, n);
        ByteBuffer head = ByteBuffer.allocate(HEAD).putInt(MAGIC).putInt(VERSION).putInt(n).putInt(raw.length).putInt((int) crc.getValue());
        AtomicFile.write(file, o -> {
            o.write(head.array());
            o.write(packed, 0, n);
        });
    }

    private static void text(DataOutputStream out, String s) throws IOException {
        byte[] b = s.getBytes(StandardCharsets.UTF_8);
        out.writeInt(b.length);
        out.write(b);
    }

    private static void longs(DataOutputStream out, long[] a) throws IOException {
        out.writeInt(a.length);
        for (long v : a) out.writeLong(v);
    }

    private static void ints(DataOutputStream out, int[] a) throws IOException {
        out.writeInt(a.length);
        for (int v : a) out.writeInt(v);
    }

    private static void floats(DataOutputStream out, float[] a) throws IOException {
        out.writeInt(a.length);
        for (float v : a) out.writeFloat(v);
    }

    private static void guide(DataOutputStream out, LightGuide g) throws IOException {
        LightGuide.Data d = g.data();
        out.writeInt(d.targets());
        ints(out, d.nodes());
        floats(out, d.cuts());
        ints(out, d.roots());
        floats(out, d.weights());
        ints(out, d.learnt());
    }

    /** @throws FormatException when the file is damaged or none of these */
    public static Kept read(Path file) throws IOException {
        String name = file.getFileName().toString();
        if (Files.size(file) > MOST_BYTES) throw new FormatException(name, null, "is larger than any guide");
        byte[] all = Files.readAllBytes(file);
        ByteBuffer b = ByteBuffer.wrap(all);
        if (all.length < HEAD || b.getInt() != MAGIC) throw new FormatException(name, null, "is not a guide; let a proof learn one again");
        if (b.getInt() != VERSION) throw new FormatException(name, null, "was kept by another version of Bake; let a proof learn it again");
        int n = b.getInt(), size = b.getInt(), sum = b.getInt();
        CRC32 crc = new CRC32();
        crc.update(all, HEAD, all.length - HEAD);
        // Deflate packs a thousandfold at most.
        if (n != all.length - HEAD || size < 0 || size > MOST_BYTES || size > 1040L * n + 64 || (int) crc.getValue() != sum)
            throw damaged(name, null);
        byte[] raw = new byte[size];
        Inflater i = new Inflater();
        i.setInput(all, HEAD, n);
        try {
            if (i.inflate(raw) != size) throw damaged(name, null);
            return content(ByteBuffer.wrap(raw));
        } catch (DataFormatException | BufferUnderflowException | IllegalArgumentException e) {
            throw damaged(name, e);
        } finally {
            i.end();
        }
    }

    private static FormatException damaged(String name, Exception e) {
        return new FormatException(name, null, "is damaged; let a proof learn it again", e);
    }

    private static Kept content(ByteBuffer b) {
        Map<String, String> words = new LinkedHashMap<>();
        int n = b.getInt();
        if (n < 0 || n > MOST_WORDS) throw new IllegalArgumentException("words");
        for (int k = 0; k < n; k++) words.put(text(b), text(b));
        int rounds = b.getInt();
        long[] brought = longs(b), bounced = longs(b);
        LightGuide sky = guide(b), lamps = b.get() != 0 ? guide(b) : null;
        return new Kept(words, new Guides(sky, lamps, rounds, brought, bounced));
    }

    /** A length that the rest can hold. */
    private static int length(ByteBuffer b, int each) {
        int n = b.getInt();
        if (n < 0 || (long) n * each > b.remaining()) throw new BufferUnderflowException();
        return n;
    }

    private static String text(ByteBuffer b) {
        byte[] s = new byte[length(b, 1)];
        b.get(s);
        return new String(s, StandardCharsets.UTF_8);
    }

    private static long[] longs(ByteBuffer b) {
        long[] out = new long[length(b, 8)];
        for (int i = 0; i < out.length; i++) out[i] = b.getLong();
        return out;
    }

    private static int[] ints(ByteBuffer b) {
        int[] out = new int[length(b, 4)];
        for (int i = 0; i < out.length; i++) out[i] = b.getInt();
        return out;
    }

    private static float[] floats(ByteBuffer b) {
        float[] out = new float[length(b, 4)];
        for (int i = 0; i < out.length; i++) out[i] = b.getFloat();
        return out;
    }

    private static LightGuide guide(ByteBuffer b) {
        int targets = b.getInt();
        return LightGuide.of(new LightGuide.Data(targets, ints(b), floats(b), ints(b), floats(b), ints(b)));
    }
}
