package bake.formats;

import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;

/** Resolves references in files without ever leaving a folder. */
public final class SafePath {
    private SafePath() {}

    /**
     * The file that {@code reference} names inside of {@code folder}; symbolic links are followed before judging.
     *
     * @param owner file that holds the reference, for the message
     * @throws FormatException when the reference is absolute, climbs out of the folder, or names no file
     */
    public static Path inside(Path folder, String reference, String owner) throws IOException {
        // Nothing is fetched from anywhere: what is to be used lies beside the file.
        if (reference != null && reference.matches("[A-Za-z][A-Za-z0-9+.-]+://.*")) throw new FormatException(owner, "reference '" + reference
                + "'", "lies on the network, from where nothing is fetched; put the file beside and name it");
        Path p;
        try {
            if (reference == null || reference.isBlank() || reference.contains("\0")) throw new InvalidPathException("", "empty");
            p = Path.of(reference.replace('\\', '/'));
        } catch (InvalidPathException e) {
            throw new FormatException(owner, "reference '" + reference + "'", "is not a file name; name a file in the project's folder");
        }
        Path root = folder.toRealPath(), full = root.resolve(p).normalize();
        if (p.isAbsolute() || !full.startsWith(root))
            throw new FormatException(owner, "reference '" + reference + "'",
                    "leads out of the folder " + root.getFileName() + "; copy the file into it and name it from there");
        if (!Files.isRegularFile(full))
            throw new FormatException(owner, "reference '" + reference + "'", "there is no such file; put it there or correct the name");
        if (!full.toRealPath().startsWith(root))
            throw new FormatException(owner, "reference '" + reference + "'", "is a link out of the folder; copy the file itself");
        return full;
    }

    /** Like {@link #inside}, for references with percent escapes as in glTF. */
    public static Path insideUri(Path folder, String uri, String owner) throws IOException {
        try {
            return inside(folder, URLDecoder.decode(uri.replace("+", "%2B"), StandardCharsets.UTF_8), owner);
        } catch (IllegalArgumentException e) {
            throw new FormatException(owner, "reference '" + uri + "'", "has a broken escape; export the file again");
        }
    }
}
