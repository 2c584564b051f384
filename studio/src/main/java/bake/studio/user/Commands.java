package bake.studio.user;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** Commands that a platform may have. */
public final class Commands {
    private static final long SECONDS = 3;

    private Commands() {}

    /** Whether there is one of that name. */
    public static boolean has(String command) {
        String path = System.getenv("PATH");
        if (path != null) for (String p : path.split(File.pathSeparator)) if (Files.isExecutable(Path.of(p).resolve(command))) return true;
        return false;
    }

    /** What a short one says; null where there is none, where it fails, and where it takes longer than some seconds. */
    public static String output(List<String> command) {
        if (!has(command.getFirst())) return null;
        try {
            Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
            p.getOutputStream().close();
            if (!p.waitFor(SECONDS, TimeUnit.SECONDS)) {
                p.destroyForcibly();
                return null;
            }
            return p.exitValue() == 0 ? new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8) : null;
        } catch (IOException e) {
            return null;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return null;
        }
    }

    /** Runs one and does not wait for it; whether there was one. */
    public static boolean run(List<String> command) {
        if (!has(command.getFirst())) return false;
        try {
            new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD).start();
            return true;
        } catch (IOException e) {
            return false;
        }
    }
}
