package bake.formats.project;

import bake.formats.Json;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;

/** What ships with Bake. Widths and aims are common practice, no source; docs/presets.md says what each took. */
public final class ShippedPresets {
    /** With descriptions and advice, those first that suit most. */
    public static final List<SharedPreset> ALL = load();
    public static final List<Preset> PRESETS = ALL.stream().map(SharedPreset::preset).toList();

    private ShippedPresets() {}

    private static List<SharedPreset> load() {
        try (InputStream in = ShippedPresets.class.getResourceAsStream("/bake/presets.json")) {
            List<SharedPreset> out = new ArrayList<>();
            for (JsonNode n : Json.MAPPER.readTree(in)) out.add(SharedPreset.read(n, "presets.json"));
            return List.copyOf(out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The one of a name, whatever its case, and version; any version for 0; null for none. */
    public static SharedPreset find(String name, int version) {
        return ALL.stream().filter(s -> s.preset().name().equalsIgnoreCase(name) && (version == 0 || s.preset().version() == version))
                .findFirst().orElse(null);
    }
}
