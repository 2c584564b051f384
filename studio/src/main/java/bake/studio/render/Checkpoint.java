package bake.studio.render;

import bake.core.film.Film;
import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.project.Digests;
import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.List;
import java.util.function.Consumer;

/**
 * A picture in the making, kept in a file after whole passes, so that it goes on after a crash or a stop and ends with the
 * same bits as if nothing had happened. The file belongs to one scene, view and way of rendering; for any other it is ignored.
 */
public final class Checkpoint {
    private static final int MAGIC = 0x42414b43, VERSION = 7;
    /** To be raised whenever the engine makes other bits of the same scene. */
    private static final int ENGINE = 18;
    /** Time between two writes, and how much more work than writing there must be. */
    private static final long EVERY = 60_000_000_000L, SHARE = 20;

    /**
     * How far the picture was.
     *
     * @param worked nanoseconds
     * @param clamped luminance that the clamp took away, summed over samples, cd/m2
     * @param done whether no pass is to follow
     */
    record State(int passes, long worked, long rays, double clamped, boolean done) {}

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
        return identity(p, folder, v, o, "");
    }

    /** @param begun names what the picture begins with: guides and caches that were kept */
    public static String identity(Project p, Path folder, View v, RenderJob.Order o, String begun) throws IOException {
        MessageDigest d = Digests.sha();
        Project seen = p.withPresets(List.of()).withViews(List.of(v)).withCurrent(v.name()).withName("");
        Digests.put(d, "bake " + ENGINE + " " + ProjectFile.toJson(seen) + " " + o.width() + "x" + o.height() + o.region() + o.seed()
                + o.split());
        Digests.put(d, EngineSettings.paths(o.preset(), o.seed()).kinds() + " " + o.preset().bounces() + " " + o.preset().clamp() + " "
                + EngineSettings.paths(o.preset(), o.seed()).bounced() + " " + o.preset().filter() + " " + o.preset().filterRadius() + " "
                + EngineSettings.paths(o.preset(), o.seed()).edges() + " " + o.preset().adaptive() + " " + EngineSettings.occlusion(o.preset()));
        Fingerprint.models(d, p, folder);
        Fingerprint.stamp(d, folder, v.around());
        Fingerprint.stamp(d, folder, v.around().backdrop());
        Fingerprint.stamp(d, folder, v.around().mirrored());
        Digests.put(d, begun);
        return Digests.hex(d);
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
        } catch (IllegalArgumentException e) {
            throw new FormatException(file.getFileName().toString(), null, "holds what no picture can (" + e.getMessage()
                    + "); delete it to begin the picture anew", e);
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
        boolean done = in.readBoolean();
        return passes > 0 && worked >= 0 ? new State(passes, worked, rays, clamped, done) : null;
    }

    /** After a whole pass: writes the file when it is time to, and after the last one. */
    void passed(Film film, State s) {
        long now = System.nanoTime();
        if (!asked && !s.done() && now - last < wait) return;
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
                out.writeBoolean(s.done());
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
