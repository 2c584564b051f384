package bake.studio.preset;

import bake.formats.Json;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.io.IOException;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.List;

/** Changes single values of a preset by their keys, as {@code --set laterBounces="radiance cache"} does. */
public final class PresetKeys {
    private static final List<String> NOT = List.of("name", "version", "purpose", "setting", "other");
    private static final List<String> KEYS = Arrays.stream(Preset.class.getRecordComponents()).map(RecordComponent::getName)
            .filter(n -> !NOT.contains(n)).toList();

    private PresetKeys() {}

    /** Whether an assignment key=value is about the preset and not about the project. */
    public static boolean about(String assignment) {
        int eq = assignment.indexOf('=');
        return eq > 0 && KEYS.contains(assignment.substring(0, eq).trim());
    }

    /** All of some assignments that are about the preset. */
    public static Preset set(Project p, Preset preset, List<String> assignments) throws IOException {
        Preset out = preset;
        for (String a : assignments == null ? List.<String>of() : assignments) if (about(a)) out = set(p, out, a);
        return out;
    }

    /**
     * @param assignment one that is {@link #about} a preset
     * @throws IOException when the value is not one that the key takes
     */
    public static Preset set(Project p, Preset preset, String assignment) throws IOException {
        int eq = assignment.indexOf('=');
        String text = assignment.substring(eq + 1).trim();
        JsonNode value;
        try {
            value = Json.MAPPER.readTree(text);
            if (value == null || value.isMissingNode()) value = TextNode.valueOf(text);
        } catch (JsonProcessingException e) {
            value = TextNode.valueOf(text);
        }
        ObjectNode n = Json.MAPPER.valueToTree(preset);
        n.set(assignment.substring(0, eq).trim(), value);
        // Read as part of a project, so that it is checked as one that was written by hand.
        JsonNode project = ProjectFile.toJson(p.withPresets(List.of()));
        ((ObjectNode) project).putArray("presets").add(n);
        return ProjectFile.read(project, "--set " + assignment).presets().getFirst();
    }
}
