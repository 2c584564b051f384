package bake.formats.picture;

import bake.formats.Json;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SortedMap;

/**
 * Mattes that can be picked by name in a compositor: for each pixel the numbers of the things that share it and how much of it each fills,
 * two of them a layer, with flat colours to look at. Layout, hash and header texts are those of the open Cryptomatte specification,
 * version 1.2
 * (from memory): MurmurHash3 of the name as the bits of a number, ranks by share.
 */
public final class IdMatte {
    private IdMatte() {}

    /** What fills a pixel: number of a thing or -1, and its share, 0 to 1, by rank. */
    public interface Shares {
        int thing(int pixel, int rank);

        float share(int pixel, int rank);
    }

    /**
     * Adds the planes of a set of mattes.
     *
     * @param set its name, such as CryptoMaterial
     * @param things names by number
     * @param ranks how many a pixel can have, even
     * @param planes takes them, {@code notes} what the file says of them
     */
    public static void add(String set, List<String> things, int pixels, int ranks, Shares shares, SortedMap<String, float[]> planes,
            Map<String, String> notes) {
        float[] ids = new float[things.size()];
        ObjectNode manifest = Json.MAPPER.createObjectNode();
        for (int i = 0; i < ids.length; i++) {
            int bits = bits(hash(things.get(i)));
            ids[i] = Float.intBitsToFloat(bits);
            manifest.put(things.get(i), String.format(Locale.ROOT, "%08x", bits));
        }
        float[][] flat = new float[3][pixels];
        for (int layer = 0; layer < ranks / 2; layer++) {
            float[][] p = new float[4][pixels];
            for (int i = 0; i < pixels; i++)
                for (int k = 0; k < 2; k++) {
                    int thing = shares.thing(i, 2 * layer + k);
                    if (thing < 0) continue;
                    float share = shares.share(i, 2 * layer + k);
                    p[2 * k][i] = ids[thing];
                    p[2 * k + 1][i] = share;
                    int h = Float.floatToRawIntBits(ids[thing]);
                    for (int c = 0; c < 3; c++) flat[c][i] += share * (h >> 8 * c & 255) / 255f;
                }
            for (int c = 0; c < 4; c++) planes.put(String.format(Locale.ROOT, "%s%02d.%s", set, layer, "RGBA".charAt(c)), p[c]);
        }
        for (int c = 0; c < 3; c++) planes.put(set + "." + "RGB".charAt(c), flat[c]);
        String key = "cryptomatte/" + String.format(Locale.ROOT, "%08x", hash(set)).substring(0, 7) + "/";
        notes.put(key + "name", set);
        notes.put(key + "hash", "MurmurHash3_32");
        notes.put(key + "conversion", "uint32_to_float32");
        notes.put(key + "manifest", manifest.toString());
    }

    /** Whether a channel holds numbers that must not be rounded. */
    static boolean exact(String channel) {
        return channel.matches("Crypto\\w+\\d\\d\\.[RGBA]");
    }

    /** MurmurHash3 for 32 bit of a name in UTF-8, seed 0 (Appleby 2011, public domain). */
    static int hash(String name) {
        byte[] b = name.getBytes(StandardCharsets.UTF_8);
        int h = 0, whole = b.length & ~3;
        for (int i = 0; i < whole; i += 4) {
            int k = b[i] & 255 | (b[i + 1] & 255) << 8 | (b[i + 2] & 255) << 16 | (b[i + 3] & 255) << 24;
            h = Integer.rotateLeft(h ^ mixed(k), 13) * 5 + 0xe6546b64;
        }
        int k = 0;
        for (int i = b.length - 1; i >= whole; i--) k = k << 8 | b[i] & 255;
        h ^= mixed(k) ^ b.length;
        h = (h ^ h >>> 16) * 0x85ebca6b;
        h = (h ^ h >>> 13) * 0xc2b2ae35;
        return h ^ h >>> 16;
    }

    private static int mixed(int k) {
        return Integer.rotateLeft(k * 0xcc9e2d51, 15) * 0x1b873593;
    }

    /** A hash as the bits of a usual number: those that would be none, or not normal, get another exponent. */
    static int bits(int hash) {
        int exponent = hash >>> 23 & 255;
        return exponent == 0 || exponent == 255 ? hash ^ 1 << 23 : hash;
    }
}
