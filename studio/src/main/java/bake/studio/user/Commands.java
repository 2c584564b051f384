package bake.studio.user;

import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

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
        Process p = null;
        try {
            p = new ProcessBuilder(command).redirectErrorStream(true).start();
            p.getOutputStream().close();
            InputStream from = p.getInputStream();
            // What says much waits until somebody listens.
            byte[] said = CompletableFuture.supplyAsync(() -> all(from)).get(SECONDS, TimeUnit.SECONDS);
            return p.waitFor(SECONDS, TimeUnit.SECONDS) && p.exitValue() == 0 ? new String(said, StandardCharsets.UTF_8) : null;
        } catch (IOException | ExecutionException | TimeoutException e) {
            return null;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return null;
        } finally {
            if (p != null) p.destroyForcibly();
        }
    }

    private static byte[] all(InputStream from) {
        try {
            return from.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
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
