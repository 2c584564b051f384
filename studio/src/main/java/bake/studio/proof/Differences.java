package bake.studio.proof;

import bake.formats.Json;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.preset.PresetChanges;
import com.fasterxml.jackson.databind.JsonNode;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;

/** What differs between two proofs, or between a proof and how things stand now, in words: nothing that is the same is named. */
public final class Differences {
    private static final Map<String, String> WORDS = Map.ofEntries(Map.entry("sunAzimuth", "sun's azimuth"), Map.entry("sunHeight", "sun's height"),
            Map.entry("sunStops", "sun's level"), Map.entry("skyStops", "sky's level"), Map.entry("fNumber", "aperture"), Map.entry("off", "switched off"),
            Map.entry("base", "colour"), Map.entry("whiteBalance", "white balance"), Map.entry("curve", "tone curve"), Map.entry("muted", "muted"),
            Map.entry("faders", "faders"), Map.entry("shifts", "colour shifts"), Map.entry("from", "material of the library"));
    private static final int LONGEST = 40;

    private Differences() {}

    /**
     * One thing that differs.
     *
     * @param part what it belongs to
     * @param what in words
     * @param a how it is in the first, {@code b} in the second; a dash where there is none
     */
    public record Difference(Part part, String what, String a, String b) {}

    /** A project with the view and preset that a picture is made of. */
    public record State(Project project, View view, bake.formats.project.Preset preset) {
        /** As a proof was made; of older proofs only view and preset are known. */
        public static State of(Proof p, Project kept) {
            return new State(kept, p.view(), p.preset());
        }
    }

    /** All that differs, part by part. */
    public static List<Difference> between(State a, State b) {
        List<Difference> out = new ArrayList<>();
        if (!a.preset.name().equals(b.preset.name()) || a.preset.version() != b.preset.version())
            out.add(new Difference(Part.PRESET, "preset", a.preset.name() + " v" + a.preset.version(), b.preset.name() + " v" + b.preset.version()));
        for (PresetChanges.Change c : PresetChanges.between(a.preset, b.preset)) out.add(new Difference(Part.PRESET, c.name(), c.was(),
                c.is()));
        JsonNode x = Json.MAPPER.valueToTree(a.view), y = Json.MAPPER.valueToTree(b.view);
        for (String k : List.of("around", "faders", "off", "shifts", "muted")) node(Part.LIGHT, k.equals("around") ? "" : word(k), x.path(k), y.path(k), out);
        for (String k : List.of("camera", "size", "curve", "whiteBalance", "finish", "setting", "name"))
            node(Part.VIEW, k.equals("camera") || k.equals("finish") ? "" : word(k), x.path(k), y.path(k), out);
        if (a.project == null || b.project == null) return out;
        JsonNode p = ProjectFile.toJson(a.project), q = ProjectFile.toJson(b.project);
        things(Part.LIGHT, "lamp", p.path("lamps"), q.path("lamps"), out);
        node(Part.LIGHT, "place", p.path("place"), q.path("place"), out);
        things(Part.MATERIALS, "material", p.path("materials"), q.path("materials"), out);
        things(Part.MATERIALS, "effort for", p.path("efforts"), q.path("efforts"), out);
        node(Part.MATERIALS, "clay", p.path("clay"), q.path("clay"), out);
        things(Part.LAYERS, "layer", p.path("layers"), q.path("layers"), out);
        things(Part.MODEL, "model", p.path("models"), q.path("models"), out);
        things(Part.MODEL, "shape", p.path("shapes"), q.path("shapes"), out);
        things(Part.MODEL, "portal", p.path("portals"), q.path("portals"), out);
        return out;
    }

    private static void node(Part part, String name, JsonNode a, JsonNode b, List<Difference> out) {
        if (a.equals(b)) return;
        if (a.isObject() && b.isObject()) {
            TreeSet<String> keys = new TreeSet<>();
            a.fieldNames().forEachRemaining(keys::add);
            b.fieldNames().forEachRemaining(keys::add);
            for (String k : keys) node(part, (name.isEmpty() ? "" : name + ", ") + word(k), a.path(k), b.path(k), out);
            return;
        }
        String x = value(a), y = value(b);
        if (!x.equals(y)) out.add(new Difference(part, name, x, y));
    }

    private static void things(Part part, String kind, JsonNode a, JsonNode b, List<Difference> out) {
        for (JsonNode x : a) {
            JsonNode y = find(b, name(x));
            if (y == null) out.add(new Difference(part, kind + " " + name(x), "there", "\u2013"));
            else node(part, kind + " " + name(x), x, y, out);
        }
        for (JsonNode y : b) if (find(a, name(y)) == null) out.add(new Difference(part, kind + " " + name(y), "\u2013", "there"));
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
        return w != null ? w : key.replaceAll("([a-z])([A-Z])", "$1 $2").toLowerCase(Locale.ROOT);
    }

    private static String value(JsonNode v) {
        if (v.isMissingNode() || v.isNull() || v.isContainerNode() && v.isEmpty()) return "\u2013";
        if (v.isBoolean()) return v.asBoolean() ? "yes" : "no";
        if (v.isNumber()) return v.decimalValue().round(new MathContext(5)).stripTrailingZeros().toPlainString();
        if (v.isTextual()) return cut(v.asText());
        if (!v.isArray()) return cut(v.toString());
        List<String> all = new ArrayList<>();
        for (JsonNode e : v) all.add(value(e));
        return cut(String.join(", ", all));
    }

    private static String cut(String s) {
        return s.length() > LONGEST ? s.substring(0, LONGEST - 1) + "\u2026" : s;
    }
}
