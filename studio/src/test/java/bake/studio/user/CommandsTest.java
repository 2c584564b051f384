package bake.studio.user;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.util.List;
import org.junit.jupiter.api.Test;

/** Commands of the platform: there or not, long-winded, failing, never ending. */
class CommandsTest {
    @Test
    void outputs() {
        assertNull(Commands.output(List.of("no-such-command-here")));
        assertFalse(Commands.run(List.of("no-such-command-here")));
        assumeTrue(Commands.has("sh"));
        assertEquals("hello", Commands.output(List.of("sh", "-c", "echo hello")).strip());
        assertTrue(Commands.output(List.of("sh", "-c", "i=0; while [ $i -lt 4000 ]; do echo a line of some forty letters, so that it fills; i=$((i+1)); done"))
                .length() > 150_000, "more than a pipe holds");
        assertNull(Commands.output(List.of("sh", "-c", "exit 3")));
        long t = System.nanoTime();
        assertNull(Commands.output(List.of("sh", "-c", "exec sleep 30")));
        assertTrue(System.nanoTime() - t < 10_000_000_000L, "it is not waited for");
    }
}
