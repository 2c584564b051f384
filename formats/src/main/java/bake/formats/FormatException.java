package bake.formats;

import java.io.IOException;

/** A file that cannot be used: names the file, the place in it, and what to do, in words for the user. */
public class FormatException extends IOException {
    private static final long serialVersionUID = 1;

    /**
     * @param file the file's name as the user knows it
     * @param place where in the file, or null
     * @param problem what is wrong and what to do
     */
    public FormatException(String file, String place, String problem) {
        super(file + ": " + (place == null ? "" : place + ": ") + problem);
    }

    public FormatException(String file, String place, String problem, Throwable cause) {
        this(file, place, problem);
        initCause(cause);
    }
}
