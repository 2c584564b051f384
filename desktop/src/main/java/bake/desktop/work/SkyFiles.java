package bake.desktop.work;

import bake.formats.picture.PanoramaReader;
import bake.formats.picture.TextureReader;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.ExecutorService;
import java.util.function.Consumer;

/** Brings panoramas and flat pictures into the project, once they have proved to be readable. Holds no control. */
final class SkyFiles {
    private static final long TELL = 400_000_000L;
    private final Workbench bench;
    private final ExecutorService background;

    SkyFiles(Workbench bench, ExecutorService background) {
        this.bench = bench;
        this.background = background;
    }

    /** Brings a panorama; {@code take} gets its name in the project, on the interface's thread. */
    void panorama(Path file, Consumer<String> take) {
        read(file, "sky", () -> {
            long[] told = {System.nanoTime()};
            PanoramaReader.read(file, d -> {
                if (System.nanoTime() - told[0] < TELL) return;
                told[0] = System.nanoTime();
                bench.notices().say("Reading " + file.getFileName() + ", " + Math.round(100 * d) + " %\u2026");
            }, background::isShutdown);
        }, take);
    }

    /** The same for a flat picture. */
    void picture(Path file, Consumer<String> take) {
        String n = file.getFileName().toString().toLowerCase(Locale.ROOT);
        read(file, "backdrops", () -> {
            if (n.endsWith(".exr") || n.endsWith(".hdr")) return; // read with the scene, which says what is wrong
            try (InputStream in = Files.newInputStream(file)) {
                TextureReader.read(in, file.getFileName().toString(), true);
            }
        }, take);
    }

    /** The same for any file that a trial accepts. */
    void file(Path file, String into, Trial trial, Consumer<String> take) {
        read(file, into, trial, take);
    }

    interface Trial {
        void run() throws IOException;
    }

    private void read(Path file, String into, Trial trial, Consumer<String> take) {
        Path folder = bench.folder();
        if (folder == null) return;
        bench.notices().say("Reading " + file.getFileName() + "\u2026");
        background.execute(() -> {
            try {
                trial.run();
                String name = bring(folder, file, into);
                bench.later(() -> {
                    bench.notices().lastProperty().set(null);
                    // Another project may have been opened meanwhile.
                    if (folder.equals(bench.folder())) take.accept(name);
                });
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    /**
     * Copies a file into a folder of the project where it is not in the project already; returns its name as a project writes it. Another
     * file of the same name stays what it is.
     */
    String bring(Path folder, Path file, String into) throws IOException {
        Path real = file.toAbsolutePath().normalize(), inside = real;
        if (!real.startsWith(folder)) {
            Path to = Files.createDirectories(folder.resolve(into));
            String name = file.getFileName().toString();
            int dot = name.lastIndexOf('.');
            inside = to.resolve(name);
            for (int n = 2; Files.exists(inside) && Files.mismatch(real, inside) >= 0; n++)
                inside = to.resolve(name.substring(0, dot) + "-" + n + name.substring(dot));
            if (!Files.exists(inside)) Files.copy(real, inside);
        }
        return folder.relativize(inside).toString().replace('\\', '/');
    }
}
