package bake.studio.project;

import bake.formats.Json;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.io.IOException;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;

/** Changes a project by path, as {@code --set views[0].around.haze=4} does. */
public final class Settings {
    private Settings() {}

    /**
     * @param assignment path=value; the path names keys with dots and list entries by number or by their name in brackets
     * @throws IllegalArgumentException when the path leads nowhere
     * @throws IOException when the result is no valid project
     */
    public static Project set(Project p, String assignment) throws IOException {
        int eq = assignment.indexOf('=');
        if (eq < 1) throw new IllegalArgumentException("--set needs path=value, not '" + assignment + "'");
        String path = assignment.substring(0, eq).trim(), text = assignment.substring(eq + 1).trim();
        JsonNode root = ProjectFile.toJson(p), value;
        try {
            value = Json.MAPPER.readTree(text);
            if (value == null || value.isMissingNode()) value = TextNode.valueOf(text);
        } catch (JsonProcessingException e) {
            value = TextNode.valueOf(text);
        }
        String[] keys = keys(path);
        JsonNode at = root;
        for (int i = 0; i + 1 < keys.length; i++) {
            if (keys[i].equals("materials") && i + 1 < keys.length && keys[i + 1].startsWith("[")) own(root, keys[i + 1]);
            JsonNode next = step(at, keys[i]);
            if (next == null && at instanceof ObjectNode o && !keys[i].startsWith("[") && !keys[i + 1].startsWith("["))
                next = o.putObject(keys[i]);
            if (next == null) throw new IllegalArgumentException("--set " + path + ": there is no '" + keys[i] + "'");
            at = next;
        }
        String last = keys[keys.length - 1];
        if (at instanceof ArrayNode a) a.set(index(a, last), value);
        else if (at instanceof ObjectNode o && !last.startsWith("[")) o.set(last, value);
        else throw new IllegalArgumentException("--set " + path + ": '" + last + "' cannot be set");
        return ProjectFile.read(root, "--set " + path);
    }

    /** A material of a model that the project has not touched yet gets an entry of its own, which then changes it. */
    private static void own(JsonNode root, String key) {
        String name = key.substring(1, key.length() - 1);
        ArrayNode all = ((ObjectNode) root).withArrayProperty("materials");
        if (name.matches("\\d{1,9}")) return;
        for (JsonNode m : all) if (m.path("name").asText("").equals(name)) return;
        all.addObject().put("name", name);
    }

    /** The steps of a path; names in brackets may have dots. */
    private static String[] keys(String path) {
        return Pattern.compile("\\[[^\\]]*\\]|[^.\\[]+").matcher(path).results().map(MatchResult::group).toArray(String[]::new);
    }

    private static JsonNode step(JsonNode at, String key) {
        if (at instanceof ArrayNode a) return a.get(index(a, key));
        return at.get(key);
    }

    private static int index(ArrayNode a, String key) {
        String k = key.startsWith("[") && key.endsWith("]") ? key.substring(1, key.length() - 1) : key;
        if (k.matches("\\d{1,9}") && Integer.parseInt(k) < a.size()) return Integer.parseInt(k);
        for (int i = 0; i < a.size(); i++) if (a.get(i).path("name").asText("").equals(k)) return i;
        throw new IllegalArgumentException("--set: there is no entry '" + k + "'");
    }
}
