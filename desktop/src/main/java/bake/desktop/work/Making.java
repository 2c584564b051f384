package bake.desktop.work;

import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Finish;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectWrapper;

/** How far the proof in the making is, and what it looks like; shown as often as it does not cost much. */
final class Making {
    /** Width of pictures of what caches know so far, pixels. */
    private static final int PREPASS_WIDTH = 400;
    final ReadOnlyObjectWrapper<RenderJob.Progress> progress = new ReadOnlyObjectWrapper<>();
    final ReadOnlyObjectWrapper<Prover.Preview> preview = new ReadOnlyObjectWrapper<>();
    private final Consumer<Runnable> ui;
    private final BooleanSupplier running;
    /** When the next picture may be shown and when anything was shown last; of the job's thread. */
    private long next, told;

    /**
     * @param ui runs things on the interface's thread
     * @param running whether the proof is still wanted, asked there
     */
    Making(Consumer<Runnable> ui, BooleanSupplier running) {
        this.ui = ui;
        this.running = running;
    }

    void begin() {
        progress.set(null);
        next = told = 0;
    }

    void end() {
        preview.set(null);
    }

        /** Takes what a job says, on its thread. */
    void shown(RenderJob j, RenderJob.Progress g) {
        long now = System.nanoTime();
        boolean working = g.state() == RenderJob.State.RENDERING && g.passes() > 1, prepass = g.state() == RenderJob.State.RENDERING
                && g.passes() == 0;
        if (prepass && now - told > 400_000_000L) {
            Film cached = j.cachedPicture(PREPASS_WIDTH);
            if (cached != null) {
                Prover.Preview image = new Prover.Preview(cached.width(), cached.height(), j.finish().argb(cached, null));
                ui.accept(() -> {
                    if (running.getAsBoolean()) preview.set(image);
                });
            }
        }
        if (prepass || working && now < next) {
            if (now - told > 150_000_000L) {
                told = now;
                ui.accept(() -> progress.set(g));
            }
            return;
        }
        Finish f = j.finish();
        Prover.Preview image = new Prover.Preview(j.film().width(), j.film().height(), preview(j, f));
        // Showing takes time from making: no more than a tenth of it, whatever the size.
        long end = System.nanoTime();
        next = end + Math.max(150_000_000L, 10 * (end - now));
        told = end;
        ui.accept(() -> {
            progress.set(g);
            if (running.getAsBoolean()) preview.set(image);
        });
    }

    /** The picture so far, denoised where the proof will be and it is quick enough. */
    private static int[] preview(RenderJob j, Finish f) {
        boolean whole = j.order().region().width() == j.film().width() && j.order().region().height() == j.film().height();
        boolean small = (long) j.film().width() * j.film().height() < 1_500_000;
        return PictureOutput.quick(j.film(), f, null, Region.all(j.film().width(), j.film().height()), whole && small
                && j.order().preset().denoise(), () -> false);
    }
}
