package bake.core.finish;

import java.util.function.IntConsumer;
import java.util.stream.IntStream;

/** Work on the rows of a picture side by side. */
final class Rows {
    private static final int BLOCK = 16;

    private Rows() {}

    static void each(int rows, IntConsumer row) {
        IntStream.range(0, (rows + BLOCK - 1) / BLOCK).parallel().forEach(b -> {
            for (int y = b * BLOCK; y < Math.min(rows, (b + 1) * BLOCK); y++) row.accept(y);
        });
    }
}
