package bake.studio.proof;

import bake.core.film.Region;
import bake.core.finish.DeliveredError;
import bake.formats.AtomicFile;
import bake.formats.FolderSize;
import bake.formats.Json;
import bake.formats.picture.DisplayPicture;
import bake.formats.picture.ExrNotes;
import bake.formats.picture.Stamp;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.render.FileOptions;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import javax.imageio.ImageIO;

/** The proofs of a project, one folder each below {@code proofs/}: picture.png, picture.exr and proof.json. */
public final class ProofStore {
    private static final ObjectMapper MAPPER = Json.MAPPER.copy().configure(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES, false);
    /** Numbers are never given twice, even those of proofs that were deleted. */
    private static final String LAST = "last-number.txt";
    private static final String STATE = "state.json", BIN = "taken off";
    private final Path folder;

    public ProofStore(Path projectFolder) {
        folder = projectFolder.resolve("proofs");
    }

    private Path of(int number) {
        return folder.resolve(String.format("%04d", number));
    }

    public Path picture(Proof p) {
        return of(p.number()).resolve("picture.png");
    }

    /** The proof of a folder; null where it is none, or damaged. */
    private static Proof read(Path p) {
        Path f = p.resolve("proof.json");
        if (!Files.isRegularFile(f) || !Files.isRegularFile(p.resolve("picture.png"))) return null;
        try {
            return MAPPER.readValue(f.toFile(), Proof.class);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(ProofStore.class).warn("proof {} cannot be read: {}", p.getFileName(), e.getMessage());
            return null;
        }
    }

    /** All proofs, newest first. A damaged one is passed over. */
    public synchronized List<Proof> list() {
        if (!Files.isDirectory(folder)) return new ArrayList<>();
        List<Path> all;
        try (Stream<Path> s = Files.list(folder)) {
            all = s.toList();
        } catch (IOException e) {
            return new ArrayList<>();
        }
        // Hundreds are read by all processors.
        List<Proof> out = new ArrayList<>(all.parallelStream().map(ProofStore::read).filter(Objects::nonNull).toList());
        out.sort(Comparator.comparingInt(Proof::number).reversed());
        return out;
    }

    /**
     * Keeps what a job has made so far. A region is laid over the last whole proof of its view and size, so that several add up.
     *
     * @param project as it was when the picture was begun
     */
    public synchronized Proof keep(RenderJob job, View view, Project project, int threads) throws IOException {
        int number = claim();
        RenderJob.Progress g = job.progress();
        Region r = job.order().region();
        int w = job.order().width(), h = job.order().height();
        Proof below = r.equals(Region.all(w, h)) ? null : list().stream().filter(p -> p.view().name().equals(view.name()) && p.width() == w
                && p.height() == h).findFirst().orElse(null);
        DeliveredError off = job.delivered();
        Proof p = new Proof(number, "", "", view, job.order().preset(), below == null ? r.width() : w, below == null ? r.height() : h,
                LocalDateTime.now().truncatedTo(ChronoUnit.SECONDS).toString(),
                g.seconds(), job.phases().caches(), g.passes(), Double.isFinite(job.rawNoise()) ? job.rawNoise() : 100, g.rays(),
                job.clampedShare(),
                job.order().seed(), job.state() == RenderJob.State.STOPPED, false, below == null ? 0 : below.number(), threads,
                off == null ? null : off.percent(), off == null ? null : off.worst());
        Path at = of(number);
        FileOptions how = FileOptions.SCREEN.beside(job.order().preset());
        if (how.channels().isEmpty()) PictureOutput.writeWhole(at.resolve("picture.exr"), job.film(), r, PictureOutput.notes(job.order()));
        else PictureOutput.write(at.resolve("picture.exr"), job, how);
        if (below == null) PictureOutput.writePng8(at.resolve("picture.png"), job.film(), job.finish(), null, r, job.order().preset().denoise());
        else laidOver(picture(below), at.resolve("picture.png"), r, PictureOutput.argb(job.film(), job.finish(), null, r,
                job.order().preset().denoise()));
        // What the picture was made of, so that it can be made again and taken back from.
        ProjectFile.write(at.resolve(STATE), project);
        save(p);
        return p;
    }

    private static void laidOver(Path below, Path target, Region r, int[] argb) throws IOException {
        BufferedImage whole = ImageIO.read(below.toFile());
        if (whole == null) throw new IOException(below.getFileName() + " cannot be read; make a whole proof again");
        whole.setRGB(r.x(), r.y(), r.width(), r.height(), argb, 0, r.width());
        int w = whole.getWidth(), h = whole.getHeight();
        DisplayPicture.writePng(target, DisplayPicture.image8(w, h, whole.getRGB(0, 0, w, h, null, 0, w), false), 72);
    }

    /** The project as it was when a proof was made; null for one that was kept before that was kept. */
    public Project project(Proof p) throws IOException {
        Path f = of(p.number()).resolve(STATE);
        return Files.isRegularFile(f) ? ProjectFile.read(f) : null;
    }

    /** A number that no proof of the project has or had: its folder is made, which only one process can do. */
    private int claim() throws IOException {
        Files.createDirectories(folder);
        for (int number = 1 + last(); ; number++) {
            try {
                Files.createDirectory(of(number));
            } catch (FileAlreadyExistsException taken) {
                continue;
            }
            remember(number);
            return number;
        }
    }

    /** The highest number that was ever given. */
    private int last() throws IOException {
        int there, told = 0;
        try (Stream<Path> s = Files.list(folder)) {
            there = s.map(p -> p.getFileName().toString()).filter(n -> n.matches("\\d{1,8}")).mapToInt(Integer::parseInt).max().orElse(0);
        }
        Path f = folder.resolve(LAST);
        if (Files.isRegularFile(f) && Files.size(f) < 20) {
            String t = Files.readString(f).strip();
            if (t.matches("\\d{1,8}")) told = Integer.parseInt(t);
        }
        return Math.max(there, told);
    }

    private void remember(int number) throws IOException {
        AtomicFile.write(folder.resolve(LAST), o -> o.write((number + "\n").getBytes(java.nio.charset.StandardCharsets.US_ASCII)));
    }

    public synchronized void save(Proof p) throws IOException {
        byte[] json = MAPPER.writeValueAsBytes(p);
        AtomicFile.write(of(p.number()).resolve("proof.json"), o -> o.write(json));
    }

    /** Takes a proof off. Until {@link #empty} it can be put back. */
    public synchronized void delete(Proof p) throws IOException {
        remember(Math.max(p.number(), last()));
        Files.createDirectories(folder.resolve(BIN));
        Path gone = folder.resolve(BIN).resolve(of(p.number()).getFileName());
        if (Files.isDirectory(of(p.number()))) Files.move(of(p.number()), gone);
    }

    /** Puts a proof back that was taken off. */
    public synchronized void putBack(Proof p) throws IOException {
        Path gone = folder.resolve(BIN).resolve(of(p.number()).getFileName());
        if (Files.isDirectory(gone)) Files.move(gone, of(p.number()));
    }

    /** Deletes for good what was taken off, but for files that somebody else put there. */
    public synchronized void empty() throws IOException {
        Path bin = folder.resolve(BIN);
        if (!Files.isDirectory(bin)) return;
        try (Stream<Path> all = Files.list(bin)) {
            for (Path d : all.toList()) {
                for (String f : new String[] {"proof.json", "picture.png", "picture.exr", STATE}) Files.deleteIfExists(d.resolve(f));
                try {
                    Files.deleteIfExists(d);
                } catch (java.nio.file.DirectoryNotEmptyException e) {
                    // the user put something of their own there; it stays
                }
            }
        }
    }

    /** A proof's picture as a PNG anywhere, with a stamp where there are lines for one. */
    public void export(Proof p, Path target, List<String> stamp, Stamp.Corner corner) throws IOException {
        BufferedImage whole = ImageIO.read(picture(p).toFile());
        if (whole == null) throw new IOException(picture(p).getFileName() + " of proof " + p.number() + " cannot be read");
        int w = whole.getWidth(), h = whole.getHeight();
        BufferedImage plain = DisplayPicture.image8(w, h, whole.getRGB(0, 0, w, h, null, 0, w), false);
        Stamp.draw(plain, stamp, corner);
        DisplayPicture.writePng(target, plain, 72);
    }

    /** A proof's scene light, cd/m2: of a region only its part. */
    public Path light(Proof p) {
        return of(p.number()).resolve("picture.exr");
    }

    /** Bytes that a proof takes on disk. */
    public long bytes(Proof p) {
        return FolderSize.bytes(of(p.number()), 1);
    }

    /** Bytes that all proofs take on disk, those that were taken off with them. */
    public long bytes() {
        return FolderSize.bytes(folder, 3);
    }
}
