package bake.studio.project;

import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/** Names an edit by what it has changed, for undo and redo: "time to 14:20", "lamp Desk taken away". */
final class EditNames {
    /** What keys of the project's file are called on the screen; others are said as they are written, word by word. */
    private static final Map<String, String> WORDS = Map.ofEntries(Map.entry("sunAzimuth", "sun"), Map.entry("sunHeight", "sun"),
            Map.entry("sunStops", "sun's level"), Map.entry("skyStops", "sky's level"), Map.entry("levels", "faders"),
            Map.entry("base", "colour"), Map.entry("fNumber", "aperture"), Map.entry("ev", "exposure"), Map.entry("off", "what is off"),
            Map.entry("file", "file"), Map.entry("kind", "kind"), Map.entry("size", "size"), Map.entry("due", "due date"));
    private static final Map<String, String> THINGS = Map.of("models", "model", "shapes", "shape", "materials", "material", "lamps", "lamp",
            "portals", "portal", "layers", "layer", "views", "view", "presets", "preset",
            "efforts", "effort for", "deliveries", "delivery");
    private static final int LONGEST = 28;

    private EditNames() {}

    /** What leads from one state to another. */
    static String of(Project before, Project after) {
        JsonNode a = ProjectFile.toJson(before.withCurrent(null)), b = ProjectFile.toJson(after.withCurrent(null));
        List<String> found = new ArrayList<>();
        compare("", null, a, b, found);
        if (found.isEmpty()) return "view";
        String first = found.getFirst();
        return new TreeSet<>(found).size() > 3 && !first.contains(" added") && !first.contains(" taken") ? "several things" : first;
    }

    private static void compare(String key, String thing, JsonNode a, JsonNode b, List<String> out) {
        if (a.equals(b) || out.size() > 8) return;
        if (a.isObject() && b.isObject()) {
            TreeSet<String> names = new TreeSet<>();
            for (Iterator<String> i = a.fieldNames(); i.hasNext(); ) names.add(i.next());
            for (Iterator<String> i = b.fieldNames(); i.hasNext(); ) names.add(i.next());
            for (String n : names) compare(n, thing, a.path(n), b.path(n), out);
        } else if (a.isArray() && b.isArray() && THINGS.containsKey(key)) things(THINGS.get(key), a, b, out);
        else out.add((thing == null ? "" : thing + ": ") + word(key) + value(b));
    }

    private static void things(String kind, JsonNode a, JsonNode b, List<String> out) {
        for (JsonNode x : b) if (find(a, name(x)) == null && b.size() > a.size()) out.add(kind + " " + name(x) + " added");
        for (JsonNode x : a) if (find(b, name(x)) == null && a.size() > b.size()) out.add(kind + " " + name(x) + " taken away");
        if (a.size() == b.size())
            for (int i = 0; i < a.size(); i++) {
                // The view that is worked on need not be named.
                if (!a.get(i).equals(b.get(i))) compare(kind, kind.equals("view") ? null : kind + " " + name(b.get(i)), a.get(i), b.get(i), out);
            }
        if (out.isEmpty()) out.add(kind + "s");
    }

    private static JsonNode find(JsonNode list, String name) {
        for (JsonNode x : list) if (name(x).equals(name)) return x;
        return null;
    }

    private static String name(JsonNode x) {
        return x.path("name").asText(x.path("file").asText(""));
    }

    private static String word(String key) {
        String w = WORDS.get(key);
        return w != null ? w : key.replaceAll("([a-z])([A-Z])", "$1 $2").toLowerCase(java.util.Locale.ROOT);
    }

    private static String value(JsonNode b) {
        String v = b.isNumber() ? String.format(java.util.Locale.ROOT, "%.4g", b.asDouble()).replaceAll("(\\.\\d*?)0+$", "$1")
                .replaceAll("\\.$", "") : b.isTextual() ? b.asText() : b.isBoolean() ? b.asBoolean() ? "on" : "off" : "";
        return v.isEmpty() || v.length() > LONGEST ? "" : " to " + v;
    }
}
