package bake.studio.project;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Names for what is in texts and files, by SHA-256. */
public final class Digests {
    private Digests() {}

    public static MessageDigest sha() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // every Java has it
        }
    }

    public static void put(MessageDigest d, String s) {
        d.update(s.getBytes(StandardCharsets.UTF_8));
    }

    /** Name, size and time of a file, where it is there. */
    public static void stamp(MessageDigest d, Path f) throws IOException {
        if (Files.exists(f)) put(d, f.getFileName() + " " + Files.size(f) + " " + Files.getLastModifiedTime(f).toMillis());
    }

    /** 64 hexadecimal digits. */
    public static String hex(MessageDigest d) {
        return HexFormat.of().formatHex(d.digest());
    }
}
