package bake.studio.preset;

import bake.formats.Json;
import bake.formats.project.Preset;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Two changes to one preset brought together, setting by setting: what only one of both changed is taken from it; what both changed
 * differently is a conflict, and the artist chooses.
 *
 * @param merged all that is not in conflict; of conflicts what the shelf has
 * @param conflicts settings that both changed, each from what the first was to what the second is: {@code was} is theirs, {@code is} mine
 */
public record PresetMerge(Preset merged, List<PresetChanges.Change> conflicts) {
    /**
     * @param base the version that both were made from
     * @param theirs the newest on the shelf
     */
    public static PresetMerge of(Preset base, Preset theirs, Preset mine) {
        JsonNode b = Json.MAPPER.valueToTree(base), m = Json.MAPPER.valueToTree(mine);
        ObjectNode t = Json.MAPPER.valueToTree(theirs);
        List<PresetChanges.Change> both = new ArrayList<>();
        for (PresetChanges.Change c : PresetChanges.between(theirs, mine)) {
            String k = c.key();
            if (PresetChanges.same(b.get(k), m.get(k))) continue;
            if (!PresetChanges.same(b.get(k), t.get(k))) both.add(c);
            else if (m.get(k) == null) t.remove(k);
            else t.set(k, m.get(k));
        }
        return new PresetMerge(Json.MAPPER.convertValue(t, Preset.class), List.copyOf(both));
    }

    /**
     * The result with each conflict decided.
     *
     * @param takesMine by key; keys that are not there take theirs
     */
    public Preset decided(Preset mine, Map<String, Boolean> takesMine) {
        Preset p = merged;
        for (PresetChanges.Change c : conflicts) if (takesMine.getOrDefault(c.key(), false)) p = PresetChanges.back(p, mine, c.key());
        return p;
    }
}
