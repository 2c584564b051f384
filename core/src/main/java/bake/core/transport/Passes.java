package bake.core.transport;

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
}
