package bake.formats.picture;

import bake.core.scene.Camera;
import java.util.Map;
import java.util.TreeMap;

/**
 * What an OpenEXR picture says of itself besides its numbers, under the names that the format's standard attributes have. The time is not
 * among them: the same picture made twice is the same file.
 */
public record ExrNotes(Map<String, String> texts, Map<String, Float> numbers) {
    public static final ExrNotes PLAIN = new ExrNotes(Map.of("software", "Bake"), Map.of());

    /** The same with the resolution that it is meant to be printed at. */
    public ExrNotes withDensity(double dpi) {
        TreeMap<String, Float> n = new TreeMap<>(numbers);
        n.put("xDensity", (float) dpi);
        return new ExrNotes(texts, n);
    }

    /** The same with more texts. */
    public ExrNotes with(Map<String, String> more) {
        TreeMap<String, String> t = new TreeMap<>(texts);
        t.putAll(more);
        return new ExrNotes(t, numbers);
    }

    /** At least as many bytes as it takes in a file's head. */
    int bytes() {
        int n = 64 * numbers.size();
        for (Map.Entry<String, String> e : texts.entrySet()) n += 64 + e.getKey().length() + 4 * e.getValue().length();
        return n;
    }

    /** Of a view and its exposure. */
    public static ExrNotes of(String view, Camera c) {
        return new ExrNotes(new TreeMap<>(Map.of("software", "Bake", "view", view)), new TreeMap<>(Map.of("expTime", (float) c.shutter(),
                "aperture", (float) c.fNumber(), "isoSpeed", (float) c.iso())));
    }
}
