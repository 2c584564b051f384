package bake.studio.render;

import bake.formats.FormatException;
import java.io.Closeable;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/**
 * The place that a picture is to be written to, looked at before anything is computed, and held while it is: two pictures cannot be made
 * for one file at once.
 */
public final class OutputPlace implements Closeable {
    /** Bytes a pixel of the largest kind of file, not packed: four channels of 32 bit. */
    private static final long PIXEL = 16;
    /** Parts of files that a killed process has left are old by then. */
    private static final Duration OLD = Duration.ofDays(1);
    private final Path marker;
    private final FileChannel channel;

    private OutputPlace(Path marker, FileChannel channel) {
        this.marker = marker;
        this.channel = channel;
    }

    /**
     * Looks whether a picture can be written, and holds its place.
     *
     * @param pixels that it has
     * @throws FormatException when it cannot be written there; the message says what to do
     */
    public static OutputPlace hold(Path file, long pixels) throws IOException {
        PictureOutput.checkEnding(file);
        Path target = file.toAbsolutePath().normalize(), folder = target.getParent();
        String name = target.getFileName().toString();
        if (Files.isDirectory(target)) throw new FormatException(name, null, "is a folder; give the picture another name");
        Path there = folder;
        while (there != null && !Files.exists(there)) there = there.getParent();
        if (there != null && !Files.isDirectory(there)) throw new FormatException(name, null, "cannot lie in " + there
                + ", which is a file and no folder; choose another place");
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new FormatException(name, null, "cannot be written: the folder " + folder + " cannot be made; choose another place", e);
        }
        sweep(folder);
        Path marker = folder.resolve("." + name + ".making");
        FileChannel channel;
        try {
            channel = FileChannel.open(marker, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        } catch (IOException e) {
            throw new FormatException(name, null, "cannot be written: nothing may be written in " + folder
                    + "; choose another folder or ask for the right to write there", e);
        }
        try {
            FileLock lock = channel.tryLock();
            if (lock == null) throw taken(name);
        } catch (OverlappingFileLockException e) {
            channel.close();
            throw taken(name);
        } catch (FormatException e) {
            channel.close();
            throw e;
        } catch (IOException e) {
            // Some network folders have no locks; the picture can be written all the same.
            org.slf4j.LoggerFactory.getLogger(OutputPlace.class).info("no lock on {}: {}", marker, e.toString());
        }
        OutputPlace place = new OutputPlace(marker, channel);
        long need = pixels * PIXEL, free = Files.getFileStore(folder).getUsableSpace();
        if (free < need) {
            place.close();
            throw new FormatException(name, null, String.format(Locale.ROOT,
                    "may need %,d MB, and %s has %,d MB left; make room or choose another place", need / 1_000_000 + 1, folder,
                    free / 1_000_000));
        }
        return place;
    }

    private static FormatException taken(String name) {
        return new FormatException(name, null, "is being made by another run; wait for it, or give this picture another name");
    }

    /** What killed processes have left of files half written. */
    private static void sweep(Path folder) {
        Instant old = Instant.now().minus(OLD);
        try (Stream<Path> s = Files.list(folder)) {
            List<Path> left = s.filter(p -> p.getFileName().toString().matches("\\..*\\.([0-9a-f]+\\.part|making)")).toList();
            for (Path p : left) if (Files.getLastModifiedTime(p).toInstant().isBefore(old)) Files.deleteIfExists(p);
        } catch (IOException e) {
            // They are in nobody's way.
        }
    }

    @Override
    public void close() throws IOException {
        Files.deleteIfExists(marker);
        channel.close();
    }
}
