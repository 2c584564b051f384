package bake.studio;

import bake.core.film.Film;
import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * A picture in the making, kept in a file after whole passes, so that it goes on after a crash or a stop and ends with the
 * same bits as if nothing had happened. The file belongs to one scene, view and way of rendering; for any other it is ignored.
 */
public final class Checkpoint {
    private static final int MAGIC = 0x42414b43, VERSION = 3;
    /** To be raised whenever the engine makes other bits of the same scene. */
    private static final int ENGINE = 3;
    private static final int MOST_FILES = 20_000;
    /** Time between two writes, and how much more work than writing there must be. */
    private static final long EVERY = 60_000_000_000L, SHARE = 20;

    /**
     * How far the picture was.
     *
     * @param worked nanoseconds
     * @param clamped luminance that the clamp took away, summed over samples, cd/m2
     */
    record State(int passes, long worked, long rays, double clamped) {}

    private final Path file;
    private final String identity;
    private final Consumer<IOException> failures;
    private volatile boolean asked;
    private long last = System.nanoTime(), wait = EVERY;

    /**
     * @param identity from {@link #identity}
     * @param failures told when the file could not be written, on the rendering thread; the picture goes on
     */
    public Checkpoint(Path file, String identity, Consumer<IOException> failures) {
        this.file = file;
        this.identity = identity;
        this.failures = failures;
    }

    /** The name of a picture's checkpoint, beside it. */
    public static Path beside(Path picture) {
        return picture.resolveSibling(picture.getFileName() + ".unfinished");
    }

    /** Names everything that decides on a picture's bits: project, files, view and order, but none of its limits. */
    public static String identity(Project p, Path folder, View v, RenderJob.Order o) throws IOException {
        try {
            MessageDigest d = MessageDigest.getInstance("SHA-256");
            Project seen = p.withPresets(List.of()).withViews(List.of(v)).withCurrent(v.name()).withName("");
            put(d, "bake " + ENGINE + " " + ProjectFile.toJson(seen) + " " + o.width() + "x" + o.height() + o.region() + o.seed() + o.keepGroups());
            put(d, RenderJob.paths(o.preset(), o.seed()).kinds() + " " + o.preset().bounces() + " " + o.preset().clamp() + " " + o.preset().filter() + " " + o.preset().filterRadius());
            for (Path f : p.models().stream().map(m -> folder.resolve(m.file()).normalize().getParent()).distinct().toList()) stampAll(d, f);
            stamp(d, folder, v.around());
            stamp(d, folder, v.around().backdrop());
            stamp(d, folder, v.around().mirrored());
            return HexFormat.of().formatHex(d.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void put(MessageDigest d, String s) {
        d.update(s.getBytes(StandardCharsets.UTF_8));
    }

    /** A model's folder with everything in it: buffers and pictures belong to the model too. */
    private static void stampAll(MessageDigest d, Path folder) throws IOException {
        if (!Files.isDirectory(folder)) return;
        try (Stream<Path> s = Files.walk(folder, 3)) {
            for (Path f : s.filter(Files::isRegularFile).limit(MOST_FILES).sorted().toList()) stamp(d, f);
        }
    }

    private static void stamp(MessageDigest d, Path folder, View.Around a) throws IOException {
        if (a != null && a.file() != null) stamp(d, folder.resolve(a.file()));
    }

    private static void stamp(MessageDigest d, Path f) throws IOException {
        if (Files.exists(f)) put(d, f.getFileName() + " " + Files.size(f) + " " + Files.getLastModifiedTime(f).toMillis());
    }

    /** Asks for the file to be written after the pass in work. */
    public void saveSoon() {
        asked = true;
    }

    /** Whether a file of this very picture is there. */
    public boolean exists() {
        try (DataInputStream in = open()) {
            return header(in) != null;
        } catch (IOException e) {
            return false;
        }
    }

    /**
     * Reads the picture back.
     *
     * @return null where there is nothing of this picture
     * @throws FormatException when the file is broken
     */
    State load(Film film) throws IOException {
        try (DataInputStream in = open()) {
            State s = header(in);
            if (s != null)
                film.load(b -> {
                    try {
                        in.readFully(b.array(), 0, b.limit());
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    }
                });
            return s;
        } catch (NoSuchFileException e) {
            return null;
        } catch (UncheckedIOException | EOFException e) {
            throw new FormatException(file.getFileName().toString(), null, "ends too early; delete it to begin the picture anew");
        }
    }

    private DataInputStream open() throws IOException {
        return new DataInputStream(new BufferedInputStream(Files.newInputStream(file), 1 << 18));
    }

    private State header(DataInputStream in) throws IOException {
        if (in.readInt() != MAGIC || in.readInt() != VERSION || !in.readUTF().equals(identity)) return null;
        int passes = in.readInt();
        long worked = in.readLong(), rays = in.readLong();
        double clamped = in.readDouble();
        return passes > 0 && worked >= 0 ? new State(passes, worked, rays, clamped) : null;
    }

    /** After a whole pass: writes the file when it is time to. */
    void passed(Film film, State s) {
        long now = System.nanoTime();
        if (!asked && now - last < wait) return;
        asked = false;
        try {
            AtomicFile.write(file, o -> {
                DataOutputStream out = new DataOutputStream(o);
                out.writeInt(MAGIC);
                out.writeInt(VERSION);
                out.writeUTF(identity);
                out.writeInt(s.passes());
                out.writeLong(s.worked());
                out.writeLong(s.rays());
                out.writeDouble(s.clamped());
                out.flush();
                film.save(b -> {
                    try {
                        o.write(b.array(), 0, b.limit());
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    }
                });
            });
        } catch (UncheckedIOException e) {
            failures.accept(e.getCause());
        } catch (IOException e) {
            failures.accept(e);
        }
        last = System.nanoTime();
        wait = Math.max(EVERY, SHARE * (last - now));
    }

    /** The picture is done. */
    void remove() {
        try {
            Files.deleteIfExists(file);
        } catch (IOException e) {
            failures.accept(e);
        }
    }
}
