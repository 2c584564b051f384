package bake.core.work;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class WorkersTest {
    /** Every piece is run once, whoever may work. */
    @Test
    void fewerThreads() {
        try (Workers w = new Workers(3)) {
            AtomicInteger done = new AtomicInteger();
            Set<Integer> who = ConcurrentHashMap.newKeySet();
            w.allow(1);
            w.run(200, (worker, i) -> {
                who.add(worker);
                done.incrementAndGet();
            });
            assertEquals(Set.of(0), who);
            assertEquals(200, done.get());
            w.allow(0);
            w.run(5, (worker, i) -> done.incrementAndGet());
            assertEquals(205, done.get(), "one is always left");
            // Allowed again in the middle, the others come back.
            who.clear();
            w.run(400, (worker, i) -> {
                who.add(worker);
                if (i == 20) w.allow(3);
                try {
                    Thread.sleep(1);
                } catch (InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            });
            assertTrue(who.size() > 1, who.toString());
        }
    }
}
