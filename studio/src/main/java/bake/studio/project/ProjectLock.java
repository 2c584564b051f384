package bake.studio.project;

import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.Json;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.io.IOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The right to write a project, which one session has at a time. A file in the project's folder is locked by the operating system, which
 * lets it go when its process dies; another names who has it. Between machines whose file system passes no locks on, the holder's sign of
 * life in the second counts. They are two files because a process that closes a file anywhere loses its locks on it (POSIX).
 */
public final class ProjectLock implements AutoCloseable {
    /** The locked file and the one with the holder's name, in the project's folder. */
    static final String NAME = ".project.lock", NAMED = ".project.holder";
    /** Folders that sessions of this process write, with their tokens: the system does not keep them from each other. */
    private static final Map<Path, String> HERE = new ConcurrentHashMap<>();
    /** Without a sign of life for so long a holder on another machine is taken for dead; signs come six times as often. */
    private static final Duration DEAD = Duration.ofSeconds(60);
    private static final int LONGEST = 4096;

    /**
     * Who writes a project.
     *
     * @param since local time, ISO 8601, {@code alive} that of the last sign of life
     */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Holder(String token, String user, String host, long process, String since, String alive) {
        /** "anna on box since 14:05 (process 4711)". */
        public String words() {
            return user + " on " + host + " since " + (since.length() >= 16 ? since.substring(0, 16).replace('T', ' ') : since) + " (process "
                    + process + ")";
        }

        private Holder living() {
            return new Holder(token, user, host, process, since, now());
        }
    }

    /** Somebody else writes the project. */
    public static final class Held extends FormatException {
        private static final long serialVersionUID = 1;
        private final transient Holder holder;

        private Held(Path folder, Holder h) {
            super(folder.getFileName().toString(), null, "is open for writing: " + (h == null ? "by another process" : h.words())
                    + "; close it there, or open it here to read and take it over");
            holder = h;
        }

        /** Who it is, or null where that cannot be read. */
        public Holder holder() {
            return holder;
        }
    }

    private final Path folder;
    private final FileChannel channel;
    private volatile Holder own;

    private ProjectLock(Path folder, FileChannel channel, Holder own) {
        this.folder = folder;
        this.channel = channel;
        this.own = own;
    }

    /**
     * Takes the right.
     *
     * @throws Held when somebody else has it
     */
    public static ProjectLock take(Path folder) throws IOException {
        Path real = folder.toRealPath();
        Holder own = new Holder(UUID.randomUUID().toString(), System.getProperty("user.name", "somebody"), host(),
                ProcessHandle.current().pid(), now(), now());
        if (HERE.putIfAbsent(real, own.token) != null) throw new Held(real, holder(real));
        FileChannel c = null;
        try {
            c = FileChannel.open(real.resolve(NAME), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
            Holder before = holder(real);
            if (!lock(c) || alive(before)) throw new Held(real, before);
            ProjectLock l = new ProjectLock(real, c, own);
            l.write();
            // Somebody may have put another file there meanwhile, and locked that.
            if (!l.held()) throw new Held(real, holder(real));
            return l;
        } catch (IOException | RuntimeException e) {
            HERE.remove(real, own.token);
            if (c != null) c.close();
            throw e;
        }
    }

    /** Takes the right from whoever has it; the former holder finds out with its next sign of life, or before it writes. */
    public static ProjectLock takeOver(Path folder) throws IOException {
        Path real = folder.toRealPath();
        HERE.remove(real);
        // The former holder's lock is on a file that has no name any more.
        Files.deleteIfExists(real.resolve(NAME));
        Files.deleteIfExists(real.resolve(NAMED));
        return take(real);
    }

    /** Whether the system's lock is ours; true as well where the file system knows no locks. */
    private static boolean lock(FileChannel c) {
        try {
            FileLock l = c.tryLock();
            return l != null;
        } catch (OverlappingFileLockException e) {
            return false;
        } catch (IOException e) {
            return true;
        }
    }

    /** Whether a holder, whose lock did not stop us, lives on another machine all the same. */
    private static boolean alive(Holder h) {
        if (h == null || h.host.equals(host())) return false;
        try {
            return Duration.between(LocalDateTime.parse(h.alive), LocalDateTime.now()).abs().compareTo(DEAD) < 0;
        } catch (java.time.DateTimeException e) {
            return false;
        }
    }

    private void write() throws IOException {
        byte[] b = Json.MAPPER.writeValueAsBytes(own);
        AtomicFile.write(folder.resolve(NAMED), o -> o.write(b));
    }

    /** Whether nobody has taken the right over. */
    public boolean held() {
        Holder h = channel.isOpen() ? holder(folder) : null;
        return h != null && h.token.equals(own.token);
    }

    /** Gives a sign of life; to be called every ten seconds. */
    public void live() throws IOException {
        if (!held()) return;
        own = own.living();
        write();
    }

    /** Who has the right to write a project, or had it last and was killed; null for nobody. */
    public static Holder holder(Path folder) {
        Path f = folder.resolve(NAMED);
        try {
            return Files.size(f) > LONGEST ? null : Json.MAPPER.readValue(Files.readString(f), Holder.class);
        } catch (IOException e) {
            return null;
        }
    }

    private static String now() {
        return LocalDateTime.now().truncatedTo(ChronoUnit.SECONDS).toString();
    }

    private static String host() {
        try {
            return InetAddress.getLocalHost().getHostName();
        } catch (UnknownHostException e) {
            return "this machine";
        }
    }

    @Override
    public void close() {
        try {
            if (held()) Files.deleteIfExists(folder.resolve(NAMED));
            channel.close();
        } catch (IOException e) {
            // A lock that stays is dead with its process.
        }
        HERE.remove(folder, own.token);
    }
}
