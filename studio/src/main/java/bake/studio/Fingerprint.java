package bake.studio;

import bake.formats.Json;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/**
 * Names what guides are learnt from, part by part, so that it can be said what has changed since.
 *
 * @param model shapes, materials, layers and the model files
 * @param openings portals
 * @param sky surroundings that give the light, and where the building stands
 * @param lamps lamps and which of their groups are on
 */
public record Fingerprint(String model, String openings, String sky, String lamps) {
    private static final int MOST_FILES = 20_000;

    /** @throws IOException when a file of the project cannot be looked at */
    public static Fingerprint of(Project p, Path folder, View v) throws IOException {
        MessageDigest model = digest();
        put(model, Json.MAPPER.writeValueAsString(List.of(p.models(), p.shapes(), p.materials(), p.layers(), v.off().contains("Glowing materials"))));
        models(model, p, folder);
        MessageDigest openings = digest();
        put(openings, Json.MAPPER.writeValueAsString(p.portals()));
        MessageDigest sky = digest();
        // What is only seen has nothing to do with where light is looked for.
        put(sky, Json.MAPPER.writeValueAsString(List.of(p.place(), v.around().with("backdrop", null, "mirrored", null, "apart", null, "ground", null, "skyStops", null))));
        stamp(sky, folder, v.around());
        MessageDigest lamps = digest();
        put(lamps, Json.MAPPER.writeValueAsString(List.of(p.lamps(), v.off())));
        return new Fingerprint(hex(model), hex(openings), hex(sky), hex(lamps));
    }

    Map<String, String> words() {
        return Map.of("model", model, "openings", openings, "sky", sky, "lamps", lamps);
    }

    /** What has changed between what some words tell and this, in words for the artist; empty for nothing. */
    public List<String> changedFrom(Map<String, String> words) {
        List<String> out = new ArrayList<>();
        if (!model.equals(words.get("model"))) out.add("the model");
        if (!openings.equals(words.get("openings"))) out.add("the portals");
        if (!sky.equals(words.get("sky"))) out.add("the sky");
        if (!lamps.equals(words.get("lamps"))) out.add("the lamps");
        return out;
    }

    static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // every Java has it
        }
    }

    static String hex(MessageDigest d) {
        return HexFormat.of().formatHex(d.digest());
    }

    static void put(MessageDigest d, String s) {
        d.update(s.getBytes(StandardCharsets.UTF_8));
    }

    /** The folders of a project's models with everything in them: buffers and pictures belong to a model too. */
    static void models(MessageDigest d, Project p, Path folder) throws IOException {
        for (Path f : p.models().stream().map(m -> folder.resolve(m.file()).normalize().getParent()).distinct().toList()) {
            if (!Files.isDirectory(f)) continue;
            try (Stream<Path> s = Files.walk(f, 3)) {
                for (Path x : s.filter(Files::isRegularFile).limit(MOST_FILES).sorted().toList()) stamp(d, x);
            }
        }
    }

    static void stamp(MessageDigest d, Path folder, View.Around a) throws IOException {
        if (a != null && a.file() != null) stamp(d, folder.resolve(a.file()));
    }

    static void stamp(MessageDigest d, Path f) throws IOException {
        if (Files.exists(f)) put(d, f.getFileName() + " " + Files.size(f) + " " + Files.getLastModifiedTime(f).toMillis());
    }
}
