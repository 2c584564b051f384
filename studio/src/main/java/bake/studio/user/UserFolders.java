package bake.studio.user;

import java.nio.file.Path;
import net.harawata.appdirs.AppDirs;
import net.harawata.appdirs.AppDirsFactory;

/** Where this user's files of Bake lie that belong to no project, by the customs of the platform. */
public final class UserFolders {
    private static final AppDirs DIRS = AppDirsFactory.getInstance();

    private UserFolders() {}

    /** What can be computed again and may be deleted at any time. */
    public static Path cache() {
        return Path.of(DIRS.getUserCacheDir("bake", null, null));
    }

    /** What the user has chosen. */
    public static Path settings() {
        return Path.of(DIRS.getUserConfigDir("bake", null, null));
    }

    /** Where this machine's queue lives, or where the variable BAKE_QUEUE says. */
    public static Path queue() {
        String env = System.getenv("BAKE_QUEUE");
        return env != null && !env.isBlank() ? Path.of(env) : Path.of(DIRS.getUserDataDir("bake", null, null)).resolve("queue");
    }

    /** The file that what went wrong is written to. */
    public static Path log() {
        return Path.of(DIRS.getUserLogDir("bake", null, null)).resolve("bake.log");
    }

    /** Says where the log is written; to be called before anything is logged. */
    public static void prepareLog() {
        if (System.getProperty("bake.log") == null) System.setProperty("bake.log", log().toString());
    }
}
