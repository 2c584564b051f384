package bake.formats.model;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;

/**
 * Words of a text file of OBJ or MTL, gone through line by line. A line that ends in a backslash goes on in the next one; what follows a #
 * is a remark. Names are UTF-8, or Windows-1252 where the file cannot be UTF-8.
 */
final class ObjText {
    private final byte[] b;
    private final Charset names;
    private int at, end, line;
    /** Bounds of the word that was read last. */
    private int from, to;

    ObjText(byte[] bytes) {
        b = bytes;
        names = charset(bytes);
        end = -1;
        // Some programs begin UTF-8 with a mark.
        if (b.length >= 3 && (b[0] & 255) == 0xEF && (b[1] & 255) == 0xBB && (b[2] & 255) == 0xBF) end = 2;
    }

    private static Charset charset(byte[] b) {
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(b));
            return StandardCharsets.UTF_8;
        } catch (CharacterCodingException e) {
            return Charset.forName("windows-1252");
        }
    }

    /** Goes on to the next line; false at the end of the file. */
    boolean line() {
        if (end + 1 >= b.length) return false;
        at = end + 1;
        line++;
        end = at;
        while (end < b.length && (b[end] != '\n' && !alone(end) || continued(end))) end++;
        return true;
    }

    /** Whether a carriage return ends a line by itself; before a line feed it is but a space. */
    private boolean alone(int i) {
        return b[i] == '\r' && (i + 1 == b.length || b[i + 1] != '\n');
    }

    /** Whether the end of a line is none because of a backslash before it, which then goes. */
    private boolean continued(int i) {
        int k = i - 1;
        if (b[i] == '\n' && k >= 0 && b[k] == '\r') k--;
        if (k < 0 || b[k] != '\\') return false;
        b[k] = ' ';
        b[i] = ' ';
        line++;
        return true;
    }

    /** Number of the line, from 1. */
    int number() {
        return line;
    }

    /** Goes on to the next word of the line; false where there is none. */
    boolean word() {
        while (at < end && b[at] <= ' ' && b[at] >= 0) at++;
        if (at >= end || b[at] == '#') return false;
        from = at;
        while (at < end && (b[at] > ' ' || b[at] < 0)) at++;
        to = at;
        return true;
    }

    boolean is(String w) {
        if (to - from != w.length()) return false;
        for (int i = 0; i < w.length(); i++) if (b[from + i] != w.charAt(i)) return false;
        return true;
    }

    /** The word as text. */
    String text() {
        return new String(b, from, to - from, names);
    }

    /** What is left of the line, without spaces around it. */
    String rest() {
        return new String(b, at, end - at, names).strip();
    }

    private static final double[] TENS = new double[23];

    static {
        TENS[0] = 1;
        for (int i = 1; i < TENS.length; i++) TENS[i] = 10 * TENS[i - 1];
    }

    /** The word as a number; NaN where it is none. */
    double value() {
        int i = from;
        boolean minus = i < to && b[i] == '-';
        if (i < to && (b[i] == '-' || b[i] == '+')) i++;
        long m = 0;
        int digits = 0, after = 0, seen = 0;
        boolean point = false;
        for (; i < to; i++) {
            int c = b[i];
            if (c == '.' && !point) point = true;
            else if (c >= '0' && c <= '9') {
                seen++;
                if (digits < 18) {
                    m = 10 * m + c - '0';
                    if (m != 0) digits++;
                    if (point) after++;
                } else if (!point) after--;
            } else break;
        }
        if (seen == 0) return Double.NaN;
        // Seldom written: exponents, and what needs more care than this.
        if (i < to || after > 22 || after < 0 || digits > 15) return slowly();
        double v = m / TENS[after];
        return minus ? -v : v;
    }

    private double slowly() {
        String t = text();
        if (!t.matches("[-+]?(\\d+\\.?\\d*|\\.\\d+)([eE][-+]?\\d+)?")) return Double.NaN;
        return Double.parseDouble(t);
    }

    /** Reads numbers parted by slashes from the word, such as 3/4/5 or 3//5; 0 for what is not there, false where it is no such thing. */
    boolean slashed(int[] out) {
        out[0] = out[1] = out[2] = 0;
        int part = 0, i = from;
        while (i < to) {
            boolean minus = b[i] == '-';
            if (minus) i++;
            long v = 0;
            int start = i;
            for (; i < to && b[i] >= '0' && b[i] <= '9' && v < Integer.MAX_VALUE; i++) v = 10 * v + b[i] - '0';
            if (v > Integer.MAX_VALUE || i == start && (part == 0 || minus)) return false;
            out[part] = (int) (minus ? -v : v);
            if (i == to) return true;
            if (b[i] != '/' || part == 2) return false;
            i++;
            part++;
        }
        return part > 0;
    }
}
