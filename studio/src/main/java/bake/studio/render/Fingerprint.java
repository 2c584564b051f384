package bake.studio.render;

import bake.formats.Json;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.project.Digests;
import bake.studio.project.ModelStore;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Names what guides are learnt from, part by part, so that it can be said what has changed since.
 *
 * @param model shapes, layers and the model files
 * @param materials a line for each edited material, its name and what it is
 * @param openings portals
 * @param sun when it is, and where the sun was put by hand
 * @param sky surroundings that give the light, and where the building stands
 * @param lamps lamps and which of their groups are on
 */
public record Fingerprint(String model, String materials, String openings, String sun, String sky, String lamps) {
    private static final int MOST_FILES = 20_000;
    /** To be changed whenever the same haze gives another sky. */
    private static final String AIR = "air 2 ";

    /** @throws IOException when a file of the project cannot be looked at */
    public static Fingerprint of(Project p, Path folder, View v) throws IOException {
        MessageDigest model = Digests.sha();
        Digests.put(model, Json.MAPPER.writeValueAsString(List.of(p.models(), p.shapes(), p.layers(), v.off().contains("Glowing materials"))));
        if (!p.nudges().isEmpty()) Digests.put(model, Json.MAPPER.writeValueAsString(p.nudges()));
        models(model, p, folder);
        MessageDigest openings = Digests.sha();
        Digests.put(openings, Json.MAPPER.writeValueAsString(p.portals()));
        MessageDigest sky = Digests.sha();
        Digests.put(sky, AIR);
        // What is only seen has nothing to do with where light is looked for.
        Digests.put(sky, Json.MAPPER.writeValueAsString(List.of(p.place(), v.around()
                .withBackdrop(null).withMirrored(null).withApart(null).withGround(null).withSkyStops(null).withDate(null).withTime(null)
                .withSunAzimuth(null).withSunHeight(null))));
        stamp(sky, folder, v.around());
        MessageDigest lamps = Digests.sha();
        Digests.put(lamps, Json.MAPPER.writeValueAsString(List.of(p.lamps(), v.off())));
        return new Fingerprint(Digests.hex(model), materials(p), Digests.hex(openings), sun(v.around()), Digests.hex(sky),
                Digests.hex(lamps));
    }

    private static String materials(Project p) throws IOException {
        StringBuilder out = new StringBuilder(p.inClay() ? "clay=1\n" : "");
        for (var m : p.materials()) {
            MessageDigest d = Digests.sha();
            Digests.put(d, Json.MAPPER.writeValueAsString(m));
            out.append(m.name()).append('=').append(Digests.hex(d), 0, 12).append('\n');
        }
        return out.toString();
    }

    private static String sun(View.Around a) {
        return a.date() + " " + a.time() + " " + a.sunAzimuth() + " " + a.sunHeight();
    }

    /** One name for all that decides on how much light is where. */
    public String light() {
        MessageDigest d = Digests.sha();
        Digests.put(d, model + materials + sun + sky + lamps);
        return Digests.hex(d);
    }

    public Map<String, String> words() {
        return Map.of("model", model, "materials", materials, "openings", openings, "sun", sun, "sky", sky, "lamps", lamps);
    }

    /** What has changed between what some words tell and this, in words for the artist; empty for nothing. */
    public List<String> changedFrom(Map<String, String> words) {
        List<String> out = new ArrayList<>();
        if (!model.equals(words.get("model"))) out.add("the model");
        int n = changedMaterials(words.getOrDefault("materials", ""));
        if (n > 0) out.add(n == 1 ? "one material" : n + " materials");
        if (!openings.equals(words.get("openings"))) out.add("the portals");
        if (!sun.equals(words.get("sun"))) out.add("the sun");
        if (!sky.equals(words.get("sky"))) out.add("the sky");
        if (!lamps.equals(words.get("lamps"))) out.add("the lamps");
        return out;
    }

    private int changedMaterials(String before) {
        Set<String> now = new HashSet<>(List.of(materials.split("\n"))), then = new HashSet<>(List.of(before.split("\n"))),
                names = new HashSet<>();
        for (String line : now) if (!then.contains(line)) names.add(line.substring(0, Math.max(0, line.lastIndexOf('='))));
        for (String line : then) if (!now.contains(line)) names.add(line.substring(0, Math.max(0, line.lastIndexOf('='))));
        names.remove("");
        return names.size();
    }

    /**
     * A project's models with everything that belongs to them: buffers and pictures too. A model in the project's own folder lies beside
     * proofs and autosaves, which are no part of it.
     */
    static void models(MessageDigest d, Project p, Path folder) throws IOException {
        for (Path f : p.models().stream().map(m -> folder.resolve(m.file()).normalize().getParent()).distinct().toList()) {
            if (!Files.isDirectory(f)) continue;
            if (f.equals(folder.toAbsolutePath().normalize()) || f.equals(folder)) {
                for (Project.ModelRef m : p.models()) if (Files.isRegularFile(f.resolve(m.file())))
                    for (Path x : ModelStore.parts(f.resolve(m.file()))) Digests.stamp(d, x);
                continue;
            }
            try (Stream<Path> s = Files.walk(f, 3)) {
                for (Path x : s.filter(Files::isRegularFile).limit(MOST_FILES).sorted().toList()) Digests.stamp(d, x);
            }
        }
    }

    static void stamp(MessageDigest d, Path folder, View.Around a) throws IOException {
        if (a != null && a.file() != null) Digests.stamp(d, folder.resolve(a.file()));
    }
}
