package bake.studio.project;

import java.io.IOException;
import java.io.InputStream;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;

/**
 * Names of files that a model file holds, of whatever kind it is: what ends like a picture's, a buffer's or a material file's name. A name
 * may begin at any word before that, since it may have spaces.
 */
final class NamedFiles {
    private static final Set<String> ENDINGS = Set.of("png", "jpg", "jpeg", "bmp", "tga", "tif", "tiff", "gif", "dds", "exr", "hdr", "ktx2",
            "webp", "psd", "bin", "mtl");
    private static final int LONGEST = 300, BLOCK = 1 << 20;
    private final Set<String> names = new HashSet<>();

    private NamedFiles() {}

    static NamedFiles in(Path file) throws IOException {
        NamedFiles out = new NamedFiles();
        byte[] block = new byte[BLOCK + LONGEST];
        int kept = 0;
        try (InputStream in = Files.newInputStream(file)) {
            for (int n = in.readNBytes(block, kept, BLOCK); n > 0; n = in.readNBytes(block, kept, BLOCK)) {
                int end = kept + n;
                out.search(block, end);
                // What lies across two blocks is found in the second.
                kept = Math.min(LONGEST, end);
                System.arraycopy(block, end - kept, block, 0, kept);
            }
        }
        return out;
    }

    private void search(byte[] b, int end) {
        for (int dot = 0; dot < end; dot++) {
            if (b[dot] != '.') continue;
            int to = dot + 1;
            while (to < end && to - dot <= 5 && (Character.isLetter(b[to] & 255) || b[to] >= '0' && b[to] <= '9')) to++;
            if (to - dot < 4 || !ENDINGS.contains(text(b, dot + 1, to).toLowerCase(Locale.ROOT))) continue;
            int from = dot;
            while (from > 0 && dot - from < LONGEST - 6 && plain(b[from - 1])) from--;
            take(text(b, from, to));
        }
    }

    private static boolean plain(byte c) {
        return (c < 0 || c >= ' ') && "\"<>|*?/\\:".indexOf(c & 255) < 0;
    }

    private static String text(byte[] b, int from, int to) {
        return new String(b, from, to - from, StandardCharsets.ISO_8859_1);
    }

    private void take(String token) {
        for (int i = 0; i < token.length(); i++)
            if (i == 0 || " '=,;(\t".indexOf(token.charAt(i - 1)) >= 0) names.add(token.substring(i).toLowerCase(Locale.ROOT));
    }

    /** Whether a file of this name is meant. */
    boolean names(String file) {
        String lower = file.toLowerCase(Locale.ROOT);
        if (names.contains(lower)) return true;
        String utf = new String(file.getBytes(StandardCharsets.UTF_8), StandardCharsets.ISO_8859_1).toLowerCase(Locale.ROOT);
        return names.contains(utf) || names.stream().anyMatch(n -> n.indexOf('%') >= 0 && lower.equals(decoded(n)));
    }

    private static String decoded(String n) {
        try {
            return URLDecoder.decode(n.replace("+", "%2B"), StandardCharsets.UTF_8).toLowerCase(Locale.ROOT);
        } catch (IllegalArgumentException e) {
            return n;
        }
    }

    boolean any() {
        return !names.isEmpty();
    }
}
