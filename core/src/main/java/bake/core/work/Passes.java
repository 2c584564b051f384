package bake.core.work;

import bake.core.film.Film;
import java.util.function.BooleanSupplier;

/** A picture that is made pass by pass. */
public interface Passes {
    /**
     * Adds pass {@code number} (counted from zero) to the film.
     *
     * @param stop asked before each tile; when it says true the rest of the pass is left out
     * @return true when the pass was finished
     */
    boolean pass(int number, Workers workers, BooleanSupplier stop);

    /** Rays traced so far by all threads. Read between passes. */
    long rays();

    /** One tile of a pass, by its left upper pixel. */
    interface Tile {
        void make(int worker, int x, int y);
    }

    /** Goes over a film tile by tile; false when it was stopped. */
    static boolean tiles(Film film, int size, Workers workers, BooleanSupplier stop, Tile tile) {
        int across = (film.width() + size - 1) / size, down = (film.height() + size - 1) / size;
        boolean[] stopped = new boolean[workers.threads()];
        workers.run(across * down, (worker, k) -> {
            if (stopped[worker] || stop.getAsBoolean()) stopped[worker] = true;
            else tile.make(worker, k % across * size, k / across * size);
        });
        for (boolean s : stopped) if (s) return false;
        return true;
    }
}
