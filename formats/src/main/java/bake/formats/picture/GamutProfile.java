package bake.formats.picture;

import bake.core.finish.Gamut;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.Deflater;

/**
 * What tells others which colours the codes of a picture are: an ICC profile (ICC.1:2022, a display's three matrix columns and curves, to
 * XYZ
 * under D50), and the code points of ITU-T H.273 that PNG's chunk cICP holds.
 */
final class GamutProfile {
    private static final double[] D50 = {0.9642, 1, 0.8249};
    private GamutProfile() {}

    static String name(Gamut g) {
        return switch (g) {
            case SRGB -> "sRGB (IEC 61966-2-1)";
            case P3 -> "P3 primaries, D65, sRGB curve";
            case BT2020 -> "ITU-R BT.2020";
        };
    }

    /** Colour primaries, transfer characteristics, matrix coefficients (none: RGB), full range. */
    static byte[] codePoints(Gamut g) {
        return switch (g) {
            case SRGB -> new byte[] {1, 13, 0, 1};
            case P3 -> new byte[] {12, 13, 0, 1};
            case BT2020 -> new byte[] {9, 14, 0, 1};
        };
    }

    static byte[] icc(Gamut g) {
        double[] xyz = g.toXyz(), adapt = g.adaptedTo(D50);
        Map<String, byte[]> tags = new LinkedHashMap<>();
        tags.put("desc", text(name(g)));
        tags.put("cprt", text("No rights reserved."));
        tags.put("wtpt", triple(D50));
        ByteBuffer chad = ByteBuffer.allocate(8 + 36).put(ascii("sf32")).putInt(0);
        for (double v : adapt) chad.putInt(fixed(v));
        tags.put("chad", chad.array());
        for (int c = 0; c < 3; c++) {
            double[] column = new double[3];
            for (int r = 0; r < 3; r++) for (int k = 0; k < 3; k++) column[r] += adapt[3 * r + k] * xyz[3 * k + c];
            tags.put("rgb".charAt(c) + "XYZ", triple(column));
        }
        for (char c : "rgb".toCharArray()) tags.put(c + "TRC", curve(g));
        return file(tags);
    }

    /** The profile as PNG's chunk iCCP holds it. */
    static byte[] deflated(Gamut g) {
        byte[] in = icc(g), out = new byte[in.length + 64];
        Deflater d = new Deflater();
        d.setInput(in);
        d.finish();
        int n = d.deflate(out);
        d.end();
        return java.util.Arrays.copyOf(out, n);
    }

    private static byte[] file(Map<String, byte[]> tags) {
        int begin = 128 + 4 + 12 * tags.size(), size = begin;
        for (byte[] t : tags.values()) size += t.length + 3 & ~3;
        ByteBuffer b = ByteBuffer.allocate(size).putInt(size).putInt(0).putInt(0x04400000).put(ascii("mntr")).put(ascii("RGB "))
                .put(ascii("XYZ "));
        for (int v : new int[] {2026, 1, 1, 0, 0, 0}) b.putShort((short) v);
        b.put(ascii("acsp")).position(68);
        for (double v : D50) b.putInt(fixed(v));
        b.position(128).putInt(tags.size());
        int at = begin;
        for (Map.Entry<String, byte[]> t : tags.entrySet()) {
            b.put(ascii(t.getKey())).putInt(at).putInt(t.getValue().length);
            at += t.getValue().length + 3 & ~3;
        }
        b.position(begin);
        for (byte[] t : tags.values()) b.put(t).position(b.position() + 3 & ~3);
        return b.array();
    }

    private static byte[] ascii(String s) {
        return s.getBytes(StandardCharsets.US_ASCII);
    }

    private static int fixed(double v) {
        return (int) Math.round(v * 65536);
    }

    private static byte[] triple(double[] v) {
        return ByteBuffer.allocate(20).put(ascii("XYZ ")).putInt(0).putInt(fixed(v[0])).putInt(fixed(v[1])).putInt(fixed(v[2])).array();
    }

    private static byte[] text(String s) {
        byte[] t = s.getBytes(StandardCharsets.UTF_16BE);
        return ByteBuffer.allocate(28 + t.length).put(ascii("mluc")).putInt(0).putInt(1).putInt(12).put(ascii("enUS")).putInt(t.length)
                .putInt(28).put(t).array();
    }

    /** Parametric curve of kind 3: a power above a straight piece. */
    private static byte[] curve(Gamut g) {
        double[] p = g == Gamut.BT2020 ? power(1 / 0.45, 1.09929682680944, 4.5, 4.5 * 0.018053968510807) : power(2.4, 1.055, 12.92,
                0.04045);
        ByteBuffer b = ByteBuffer.allocate(12 + 20).put(ascii("para")).putInt(0).putShort((short) 3).putShort((short) 0);
        for (double v : p) b.putInt(fixed(v));
        return b.array();
    }

    private static double[] power(double gamma, double scale, double slope, double from) {
        return new double[] {gamma, 1 / scale, (scale - 1) / scale, 1 / slope, from};
    }
}
