package bake.formats.project;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;

/**
 * A lamp as a project writes it; see docs/project-format.md. Lengths in metres, angles in degrees.
 *
 * @param like name of the lamp whose settings this one shares: all but its name, group, position, direction and turn; or null
 * @param direction that light leaves in; of a tube the way it lies
 * @param turn about the direction, degrees
 * @param lux illuminance at the distance {@code at} straight ahead
 * @param mirrored whether reflections see the body; absent for as {@code visible}
 * @param weight of the lamp when light is looked for; the mean stays
 * @param file photometric file, in the project's folder
 * @param multiplier on the output that the photometric file states
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@RecordBuilder
public record LampSpec(String name, String group, String like, String kind, double[] position, double[] direction, Double turn,
        Double width, Double height,
        Double diameter, Double lumens, Double candela, Double luminance, Double lux, Double at, Double kelvin, double[] colour,
        Double beam, Double field, Boolean visible,
        Boolean mirrored, Boolean twoSided, Double weight, String file, Double multiplier,
        @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) implements LampSpecBuilder.With {
    /** The group of lamps that name none. */
    public static final String NO_GROUP = "Lamps";

    public LampSpec {
        other = other == null ? Map.of() : other;
    }

    public static LampSpec of(String name, String group, String kind, double[] position, double[] direction) {
        return new LampSpec(name, group, null, kind, position, direction, null, null, null, null, null, null, null, null, null, null, null,
                null, null, null, null, null, null, null, null, Map.of());
    }

    public String groupName() {
        return group == null ? NO_GROUP : group;
    }

    /**
     * This lamp with the settings that it shares written out.
     *
     * @param all lamps of the project
     * @return itself where it shares none; a lamp that names nothing, or itself in a circle, keeps what it has
     */
    public LampSpec alone(List<LampSpec> all) {
        LampSpec from = this;
        for (int steps = 0; from.like != null && steps < 16; steps++) {
            String wanted = from.like;
            LampSpec next = all.stream().filter(l -> l.name().equals(wanted)).findFirst().orElse(null);
            if (next == null || next == from) break;
            from = next;
        }
        if (from == this) return this;
        return from.withName(name).withGroup(group).withLike(null).withPosition(position).withDirection(direction).withTurn(turn);
    }
}
