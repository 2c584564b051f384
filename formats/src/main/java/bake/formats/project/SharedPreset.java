package bake.formats.project;

import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.Json;
import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/**
 * One version of a preset as it lies on a shelf: a file of its own, see docs/presets.md. It never changes; what is improved becomes the
 * next version.
 *
 * @param bakePreset version of the format, {@value #FORMAT}
 * @param preset name, version and all settings
 * @param description what it is for, in the artist's words
 * @param author who saved this version
 * @param reason why it was changed
 * @param from the version that it was made from; absent for the first
 * @param saved local date and time, ISO 8601
 * @param exposure advice, EV at ISO 100 that suits the setting; absent for none
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record SharedPreset(int bakePreset, Preset preset, String description, String author, String reason, Integer from, String saved,
        Double exposure, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {
    public static final int FORMAT = 1;
    private static final long MOST_BYTES = 1 << 20;
    private static final List<String> TEXTS = List.of("description", "author", "reason", "saved");

    public SharedPreset {
        other = other == null ? Map.of() : other;
    }

    /** One that ships, or that came from a project: nobody said anything about it. */
    public static SharedPreset of(Preset p) {
        return new SharedPreset(FORMAT, p, null, null, null, null, null, null, Map.of());
    }

    public SharedPreset withPreset(Preset p) {
        return new SharedPreset(bakePreset, p, description, author, reason, from, saved, exposure, other);
    }

    /** Who says what about a new version, and what it was made from. */
    public SharedPreset told(String why, String by, Integer before, String when) {
        return new SharedPreset(bakePreset, preset, description, by, why, before, when, exposure, other);
    }

    public SharedPreset withDescription(String d) {
        return new SharedPreset(bakePreset, preset, d, author, reason, from, saved, exposure, other);
    }

    /** Name and version, as scripts write it. */
    public String id() {
        return preset.name() + "@" + preset.version();
    }

    /** @throws FormatException naming the key that is wrong */
    public static SharedPreset read(Path file) throws IOException {
        String name = file.getFileName().toString();
        if (Files.size(file) > MOST_BYTES) throw new FormatException(name, null, "is larger than a megabyte, which no preset is");
        return read(Json.parse(Json.text(Files.readAllBytes(file), name), name), name);
    }

    static SharedPreset read(JsonNode n, String name) throws IOException {
        int format = n.path("bakePreset").asInt(-1);
        if (format < 1) throw new FormatException(name, "bakePreset", "is missing: this is no preset, or its version was lost; write 1");
        if (format > FORMAT) throw new FormatException(name, "bakePreset", "was saved by a newer Bake (format " + format + ", this one reads "
                + FORMAT + "); update this one");
        if (!n.path("preset").isObject()) throw new FormatException(name, "preset", "is missing");
        for (String t : TEXTS) if (n.has(t) && !n.get(t).isTextual()) throw new FormatException(name, t, "must be a text");
        if (n.has("from") && !n.get("from").canConvertToInt()) throw new FormatException(name, "from", "must be a version's number");
        if (n.has("exposure") && !(Math.abs(n.get("exposure").asDouble(Double.NaN)) <= 25))
            throw new FormatException(name, "exposure", "must be an EV from -25 to 25");
        // Settings are checked as those of a project are.
        ObjectNode project = Json.MAPPER.createObjectNode().put("bake", Project.VERSION).put("name", "preset");
        project.putArray("presets").add(n.get("preset"));
        ProjectFile.read(project, name);
        try {
            return Json.MAPPER.treeToValue(n, SharedPreset.class);
        } catch (JsonProcessingException e) {
            throw new FormatException(name, null, "is no preset: " + e.getOriginalMessage(), e);
        }
    }

    /** The file's bytes: keys in a fixed order, a line each, good to read in a diff. */
    public byte[] bytes() throws IOException {
        return (Json.MAPPER.writeValueAsString(this) + "\n").getBytes(StandardCharsets.UTF_8);
    }

    public void write(Path file) throws IOException {
        byte[] b = bytes();
        AtomicFile.write(file, o -> o.write(b));
    }
}
