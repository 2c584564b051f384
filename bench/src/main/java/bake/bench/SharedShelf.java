package bake.bench;

import bake.formats.project.Preset;
import bake.formats.project.SharedPreset;
import bake.studio.preset.PresetShelf;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;

/**
 * Two processes save to one shelf, are killed and begun again, until so many saves were said to be done; then every one of them has to be
 * there with its author's number in it, no file may be broken, and the next save has to go. Now and then the folder goes away and returns.
 *
 * <p>{@code ./bake bench shelf [COUNT]}
 */
public final class SharedShelf {
    private static final String NAME = "Client final";
    private static final int MOST_MILLIS = 4000;

    private SharedShelf() {}

    public static void main(String[] args) throws Exception {
        if (args.length == 3 && args[0].equals("work")) {
            work(Path.of(args[1]), Integer.parseInt(args[2]));
            return;
        }
        int count = args.length > 0 ? Integer.parseInt(args[0]) : 2000;
        Path dir = Files.createTempDirectory("bake-shelf");
        Path shelf = dir.resolve("shelf"), away = dir.resolve("away");
        new PresetShelf("studio", shelf, dir.resolve("copies")).save(SharedPreset.of(preset(-1)), "begun", "nobody");
        TreeMap<Integer, Integer> said = new TreeMap<>();
        Random random = new Random(77);
        int kills = 0, gone = 0, wrong = 0;
        while (said.size() < count) {
            List<Process> two = new ArrayList<>();
            List<BufferedReader> out = new ArrayList<>();
            for (int k = 0; k < 2; k++) {
                Process p = new ProcessBuilder(ProcessHandle.current().info().command().orElseThrow(), "-cp", System.getProperty("java.class.path"),
                        SharedShelf.class.getName(), "work", dir.toString(), "" + (1000 * kills + k)).redirectError(ProcessBuilder.Redirect.DISCARD)
                        .start();
                two.add(p);
                out.add(p.inputReader());
            }
            Thread.sleep(1500 + random.nextInt(MOST_MILLIS));
            if (kills % 5 == 4) {
                // A network share that is lost for a moment.
                gone++;
                Files.move(shelf, away);
                Thread.sleep(200);
                boolean again = Files.exists(shelf);
                if (again) merge(shelf, away);
                Files.move(away, shelf);
                Thread.sleep(300);
            }
            for (int k = 0; k < 2; k++) {
                two.get(k).toHandle().destroyForcibly();
                two.get(k).waitFor();
                for (String line = out.get(k).readLine(); line != null; line = out.get(k).readLine()) {
                    String[] w = line.split(" ");
                    if (w.length != 3 || !w[2].equals("saved")) continue; // cut by the kill
                    Integer before = said.put(Integer.parseInt(w[0]), Integer.parseInt(w[1]));
                    if (before != null) {
                        wrong++;
                        System.out.println("version " + w[0] + " was given twice");
                    }
                }
            }
            kills++;
        }
        PresetShelf s = new PresetShelf("studio", shelf, null);
        PresetShelf.Entry e = s.find(NAME);
        for (var v : said.entrySet()) {
            SharedPreset p = e.version(v.getKey());
            if (p == null || p.preset().bounces() != v.getValue() % 1000) {
                wrong++;
                System.out.println("version " + v.getKey() + (p == null ? " is gone" : " is another's"));
            }
        }
        try (Stream<Path> all = Files.list(shelf.resolve("client final"))) {
            for (Path f : all.filter(x -> x.toString().endsWith(".json") && !x.endsWith("state.json")).toList()) {
                try {
                    SharedPreset.read(f);
                } catch (IOException x) {
                    wrong++;
                    System.out.println(f.getFileName() + " is broken: " + x.getMessage());
                }
            }
        }
        s.save(e.newest(), "after all of it", "nobody");
        System.out.printf("%d saves by two processes, %d times both were killed, %d times the folder was away: %d things wrong%n", said.size(), kills,
                gone, wrong);
        System.exit(wrong == 0 ? 0 : 1);
    }

    /** A shelf that was begun anew while the real one was away holds nothing that was said to be saved there: it is put aside. */
    private static void merge(Path begun, Path real) throws IOException {
        Files.move(begun, begun.resolveSibling("begun while away " + System.nanoTime()));
        if (!Files.isDirectory(real)) throw new IOException("the shelf did not come back");
    }

    private static Preset preset(int bounces) {
        return Preset.of(NAME, 0, "final", "interior", 0, 2, 0, 4096, Math.max(0, bounces), 20, true);
    }

    private static void work(Path dir, int seed) throws Exception {
        PresetShelf s = new PresetShelf("studio", dir.resolve("shelf"), dir.resolve("copies"));
        Random random = new Random(seed);
        PresetShelf.Entry e = s.find(NAME);
        SharedPreset at = e.newest();
        while (true) {
            int mark = random.nextInt(1000);
            try {
                at = s.save(at.withPreset(at.preset().withBounces(mark)), "again", "p" + seed);
                System.out.println(at.preset().version() + " " + mark + " saved");
            } catch (PresetShelf.Conflict c) {
                at = c.theirs();
            } catch (IOException away) {
                Thread.sleep(20); // the shelf is away; it will be back
            }
        }
    }
}
