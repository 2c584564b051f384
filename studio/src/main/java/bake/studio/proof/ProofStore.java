package bake.studio.proof;

import bake.core.film.Region;
import bake.formats.AtomicFile;
import bake.formats.Json;
import bake.formats.picture.ExrNotes;
import bake.formats.project.View;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** The proofs of a project, one folder each below {@code proofs/}: picture.png, picture.exr and proof.json. */
public final class ProofStore {
    private static final ObjectMapper MAPPER = Json.MAPPER.copy().configure(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES, false);
    /** Numbers are never given twice, even those of proofs that were deleted. */
    private static final String LAST = "last-number.txt";
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

    /** All proofs, newest first. A damaged one is passed over. */
    public synchronized List<Proof> list() {
        List<Proof> out = new ArrayList<>();
        if (!Files.isDirectory(folder)) return out;
        try (Stream<Path> s = Files.list(folder)) {
            for (Path p : s.toList()) {
                Path f = p.resolve("proof.json");
                if (!Files.isRegularFile(f) || !Files.isRegularFile(p.resolve("picture.png"))) continue;
                try {
                    out.add(MAPPER.readValue(f.toFile(), Proof.class));
                } catch (IOException e) {
                    org.slf4j.LoggerFactory.getLogger(ProofStore.class)
                            .warn("proof {} cannot be read: {}", p.getFileName(), e.getMessage());
                }
            }
        } catch (IOException e) {
            return out;
        }
        out.sort(Comparator.comparingInt(Proof::number).reversed());
        return out;
    }

    /** Keeps what a job has made so far. */
    public synchronized Proof keep(RenderJob job, View view) throws IOException {
        int number = claim();
        RenderJob.Progress g = job.progress();
        Region r = job.order().region();
        Proof p = new Proof(number, "", view, job.order().preset(), r.width(), r.height(),
                LocalDateTime.now().truncatedTo(ChronoUnit.SECONDS).toString(),
                g.seconds(), g.passes(), Double.isFinite(g.noise()) ? g.noise() : 100, g.rays(), job.clampedShare(), job.order().seed(),
                job.state() == RenderJob.State.STOPPED, false);
        Path at = of(number);
        PictureOutput.writeWhole(at.resolve("picture.exr"), job.film(), r,
                ExrNotes.of(job.order().view(), job.order().camera()));
        PictureOutput.writePng8(at.resolve("picture.png"), job.film(), job.finish(), null, r, job.order().preset().denoise());
        save(p);
        return p;
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

    /** Takes a proof off for good. */
    public synchronized void delete(Proof p) throws IOException {
        remember(Math.max(p.number(), last()));
        for (String f : new String[] {"proof.json", "picture.png", "picture.exr"}) Files.deleteIfExists(of(p.number()).resolve(f));
        try {
            Files.deleteIfExists(of(p.number()));
        } catch (java.nio.file.DirectoryNotEmptyException e) {
            // the user put something of their own there; it stays
        }
    }
}
