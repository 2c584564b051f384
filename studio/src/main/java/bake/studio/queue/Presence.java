package bake.studio.queue;

import bake.studio.user.Commands;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.util.List;
import java.util.OptionalLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Whether somebody works at the machine: in a window of ours, which leaves a sign in the queue's folder, or at all, where the platform has
 * a command that says when the last key was struck.
 */
public final class Presence {
    /** How long after the last sign somebody still counts as being there. */
    static final long STAYS_MILLIS = 120_000;
    private static final long ASK_MILLIS = 15_000;
    private static final Pattern MAC_IDLE = Pattern.compile("\"HIDIdleTime\" = (\\d+)");
    private final Path sign;
    private final Clock clock;
    private long asked = Long.MIN_VALUE / 2, lastAtAll;

    Presence(Path queue, Clock clock) {
        sign = sign(queue);
        this.clock = clock;
    }

    private static Path sign(Path queue) {
        return queue.resolve("present");
    }

    /** Says that somebody works in a window of ours. */
    public static void tell(Path queue) {
        try {
            Path f = sign(queue);
            if (!Files.isDirectory(queue)) return;
            if (!Files.exists(f)) Files.createFile(f);
            Files.setLastModifiedTime(f, FileTime.fromMillis(System.currentTimeMillis()));
        } catch (IOException e) {
            // The queue then takes more of the machine than it was to.
        }
    }

    /** Whether somebody is there now. */
    synchronized boolean here() {
        long now = clock.millis();
        if (now - asked > ASK_MILLIS) {
            asked = now;
            idleMillis().ifPresent(i -> lastAtAll = now - i);
        }
        return now - Math.max(lastAtAll, told()) < STAYS_MILLIS;
    }

    private long told() {
        try {
            return Files.getLastModifiedTime(sign).toMillis();
        } catch (IOException e) {
            return 0;
        }
    }

    /** Milliseconds since the last key or move of the pointer; nothing where no command says it. */
    private static OptionalLong idleMillis() {
        String x = Commands.output(List.of("xprintidle"));
        if (x != null && x.strip().matches("\\d{1,15}")) return OptionalLong.of(Long.parseLong(x.strip()));
        String m = Commands.output(List.of("ioreg", "-c", "IOHIDSystem", "-d", "4"));
        Matcher f = m == null ? null : MAC_IDLE.matcher(m);
        return f != null && f.find() ? OptionalLong.of(Long.parseLong(f.group(1)) / 1_000_000) : OptionalLong.empty();
    }
}
