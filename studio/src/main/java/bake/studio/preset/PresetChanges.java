package bake.studio.preset;

import bake.formats.Json;
import bake.formats.project.Preset;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;

/** What differs between two presets, in words. */
public final class PresetChanges {
    /** Keys in the order in which they are said, with their words and units. */
    private static final Map<String, String[]> WORDS = new LinkedHashMap<>();

    static {
        String[][] all = {{"purpose", "purpose"}, {"setting", "setting"}, {"width", "width", " px"}, {"noiseAim", "noise aim", " %"}, {"aimDenoised", "aim after denoising"},
            {"timeLimit", "time limit", " s"}, {"samples", "most passes"}, {"bounces", "bounces"}, {"clamp", "clamp"},
            {"denoise", "denoised"}, {"diffuse", "matt bounces"}, {"mirrored", "gloss bounces"}, {"refracted", "clear bounces"},
            {"filter", "pixel filter"}, {"filterRadius", "filter radius", " px"}, {"firstBounce", "first bounce"},
            {"laterBounces", "later bounces"}, {"cachedSurroundings", "surroundings cached"}, {"gatherRays", "gather rays"},
            {"gatherRadius", "gather radius", " m"}, {"nearField", "near field", " m"}, {"photons", "photons"}, {"caustics", "caustics"},
            {"exact", "exact"}, {"darkCorners", "dark corners"}, {"darkWithin", "dark within", " m"}, {"edges", "paths at edges"}, {"clay", "clay"},
            {"adaptive", "more where noise is"}, {"channels", "channels"}};
        for (String[] w : all) WORDS.put(w[0], w);
    }

    private PresetChanges() {}

    /**
     * One setting that differs.
     *
     * @param key as written in files
     * @param name in words
     * @param was in words; "usual" where nothing is said
     */
    public record Change(String key, String name, String was, String is) {
        /** Such as: noise aim 6 % to 4 %. */
        public String line() {
            return name + " " + was + " \u2192 " + is;
        }
    }

    /** All that differs, in a fixed order; what they are called, and their versions, are no differences. */
    public static List<Change> between(Preset a, Preset b) {
        JsonNode x = Json.MAPPER.valueToTree(a), y = Json.MAPPER.valueToTree(b);
        List<Change> out = new ArrayList<>();
        for (String[] w : WORDS.values()) {
            if (same(x.get(w[0]), y.get(w[0]))) continue;
            String unit = w.length > 2 ? w[2] : "";
            out.add(new Change(w[0], w[1], words(w[0], x.get(w[0]), unit), words(w[0], y.get(w[0]), unit)));
        }
        return out;
    }

    /** Numbers are the same whether they are written 2 or 2.0; nothing said is the same as nothing. */
    static boolean same(JsonNode a, JsonNode b) {
        if (a == null || b == null || a.isNull() || b.isNull()) return (a == null || a.isNull()) && (b == null || b.isNull());
        return a.isNumber() && b.isNumber() ? a.asDouble() == b.asDouble() : a.equals(b);
    }

    private static String words(String key, JsonNode v, String unit) {
        if (v == null || v.isNull()) return key.equals("channels") ? "none" : "usual";
        if (v.isBoolean()) return v.asBoolean() ? "yes" : "no";
        if (v.isArray()) return StreamSupport.stream(v.spliterator(), false).map(JsonNode::asText).collect(Collectors.joining(", "));
        if (!v.isNumber()) return v.asText();
        double d = v.asDouble();
        boolean none = d == 0 && (key.equals("noiseAim") || key.equals("timeLimit") || key.equals("samples") || key.equals("clamp"));
        if (none) return "none";
        if (d == 0 && key.equals("width")) return "the view's own";
        return (d == Math.rint(d) ? String.format(Locale.ROOT, "%.0f", d) : String.format(Locale.ROOT, "%.4g", d)) + unit;
    }

    /** A preset with one setting taken from another. */
    public static Preset back(Preset from, Preset to, String key) {
        ObjectNode n = Json.MAPPER.valueToTree(from);
        JsonNode old = Json.MAPPER.<JsonNode>valueToTree(to).get(key);
        if (old == null) n.remove(key);
        else n.set(key, old);
        return Json.MAPPER.convertValue(n, Preset.class);
    }

    /** The words for a key. */
    static String name(String key) {
        return WORDS.containsKey(key) ? WORDS.get(key)[1] : key;
    }

    static List<String> keys() {
        return List.copyOf(WORDS.keySet());
    }
}
