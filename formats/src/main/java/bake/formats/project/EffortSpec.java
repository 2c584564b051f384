package bake.formats.project;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import java.util.Map;

/**
 * What is done for a single material, object, layer or lamp beyond what is done for all.
 *
 * @param of "material", "object", "layer" or "lamp"; an object is called as its mesh is
 * @param samples paths that each pass gives a pixel that shows it, 1 to 16; of a lamp, how often it is looked at against others; absent
 *     means 1
 * @param edges the same for pixels in which it ends, 1 to 16; absent for as the preset says
 * @param reflections most bounces in gloss and mirrors from it on, 0 to 1000; absent for no limit of its own
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record EffortSpec(String of, String name, Integer samples, Integer edges, Integer reflections,
        @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {
    public EffortSpec {
        other = other == null ? Map.of() : other;
    }

    public EffortSpec(String of, String name) {
        this(of, name, null, null, null, Map.of());
    }

    public EffortSpec withSamples(Integer n) {
        return new EffortSpec(of, name, n, edges, reflections, other);
    }

    public EffortSpec withEdges(Integer n) {
        return new EffortSpec(of, name, samples, n, reflections, other);
    }

    public EffortSpec withReflections(Integer n) {
        return new EffortSpec(of, name, samples, edges, n, other);
    }

    /** Whether it asks for nothing. */
    public boolean usual() {
        return samples == null && edges == null && reflections == null;
    }
}
