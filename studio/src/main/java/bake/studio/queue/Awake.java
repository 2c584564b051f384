package bake.studio.queue;

import bake.studio.user.Commands;
import java.io.IOException;
import java.util.List;

/** Keeps the machine from going to sleep, by the platform's own command where there is one. */
final class Awake implements AutoCloseable {
    private static final List<List<String>> WAYS = List.of(
            List.of("systemd-inhibit", "--what=sleep", "--who=Bake", "--why=rendering finals", "sleep", "infinity"), List.of("caffeinate", "-i"));
    private final Process process;

    private Awake(Process p) {
        process = p;
    }

    static Awake hold() {
        for (List<String> w : WAYS) {
            if (!Commands.has(w.getFirst())) continue;
            try {
                return new Awake(new ProcessBuilder(w).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD).start());
            } catch (IOException e) {
                // The next way, or none: a machine that sleeps goes on when it wakes.
            }
        }
        return new Awake(null);
    }

    @Override
    public void close() {
        if (process != null) process.destroy();
    }
}
