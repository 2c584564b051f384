package bake.formats.project;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * A project as its file describes it; docs/project-format.md says every key. Immutable: an edit makes a new value.
 * Keys that are not known are kept in {@code other} and written back.
 *
 * @param bake version of the format
 * @param due local date and time of the delivery, ISO 8601 without zone, or null
 * @param layers layers that are switched off or renamed; layers of the models that are not listed are on
 * @param current name of the view that was last worked on
 * @param clay whether all is shown matt grey but for what is clear or glows; absent means no
 * @param deliveries what is promised to whom, round by round; the last one is worked on
 * @param nudges objects that stand a little elsewhere than their models say
 * @param efforts what is done for single things beyond what is done for all
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@RecordBuilder
public record Project(
        int bake, String name, String due, Place place, List<ModelRef> models, List<Shape> shapes, List<Surface> materials,
        List<LampSpec> lamps, List<PortalSpec> portals, List<Layer> layers, List<View> views, List<Preset> presets, String current,
                List<EffortSpec> efforts, Boolean clay,
        List<DeliverySpec> deliveries, List<Nudge> nudges,
        @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) implements ProjectBuilder.With {

    public static final int VERSION = 1;

    public Project {
        models = list(models);
        shapes = list(shapes);
        materials = list(materials);
        lamps = list(lamps);
        portals = list(portals);
        layers = list(layers);
        views = list(views);
        presets = list(presets);
        efforts = list(efforts);
        deliveries = list(deliveries);
        nudges = list(nudges);
        other = other == null ? Map.of() : other;
        place = place == null ? Place.DEFAULT : place;
    }

    private static <T> List<T> list(List<T> l) {
        return l == null ? List.of() : List.copyOf(l);
    }

    /**
     * Where the building stands.
     *
     * @param latitude degrees north
     * @param longitude degrees east
     * @param zone time zone by its IANA name or offset
     * @param north direction of north, degrees clockwise from +y
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Place(double latitude, double longitude, String zone, double north,
            @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {
        public static final Place DEFAULT = new Place(47.1, 8.9, "+01:00", 0, Map.of());
    }

    /**
     * A model file of the project.
     *
     * @param unit metres per unit, for files that do not say it or say it wrongly
     * @param up "y" or "z", likewise
     * @param variant material variant of a glTF file that is shown, or null
     * @param layersBy what makes a layer: "node" (default), "material" or "file"
     * @param at where its origin is put, metres; of one that replaces an object how far it is moved there; null for nowhere else
     * @param turn about the vertical, degrees counter-clockwise from above
     * @param scale factor on its size
     * @param replaces name of an object of the models before it, in whose places it stands, once for each copy
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    @RecordBuilder
    public record ModelRef(String file, Double unit, String up, String variant, String layersBy, double[] at, Double turn, Double scale,
            String replaces, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) implements ProjectModelRefBuilder.With {
        /** A model as its file says it is. */
        public static ModelRef of(String file) {
            return new ModelRef(file, null, null, null, null, null, null, null, null, Map.of());
        }

        public ModelRef placed(double[] where, Double degrees, Double factor) {
            return withAt(where).withTurn(degrees).withScale(factor);
        }

        public ModelRef inPlaceOf(String object) {
            return withReplaces(object);
        }

        @Override
        public boolean equals(Object o) {
            return o instanceof ModelRef m && sameFile(m) && Objects.equals(layersBy, m.layersBy) && Arrays.equals(at, m.at)
                    && Objects.equals(turn, m.turn) && Objects.equals(scale, m.scale) && Objects.equals(replaces, m.replaces)
                    && Objects.equals(other, m.other);
        }

        /** Whether another one is read from the same file in the same way, wherever it stands. */
        public boolean sameFile(ModelRef m) {
            return file.equals(m.file) && Objects.equals(unit, m.unit) && Objects.equals(up, m.up) && Objects.equals(variant, m.variant);
        }

        @Override
        public int hashCode() {
            return Objects.hash(file, unit, up, variant);
        }
    }

    /**
     * A simple shape written in the project itself.
     *
     * @param type quad, box, sphere or disc
     * @param center middle, metres
     * @param size quad: width, height; box: x, y, z; sphere and disc: diameter
     * @param normal quad and disc: the way it faces; up when absent
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Shape(String name, String type, double[] center, double[] size, double[] normal, String material, String layer,
            @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {}

    /**
     * A material: new for shapes, or in place of the model's material of the same name.
     *
     * @param from what to start from, in the library that ships with Bake; absent for the model's own
     * @param base linear Rec. 709, or absent for the model's
     * @param emission cd/m2 by colour
     * @param coat share under a clear coat
     * @param sheen colour of fuzz, linear Rec. 709
     * @param anisotropy how much the gloss is stretched along the texture's u
     * @param attenuation what white light becomes after {@code attenuationDistance} metres in a solid
     * @param round radius that hard edges look rounded with, metres
     * @param scatter whether repeats of pictures are broken up
     * @param reach distance that reflections see things at, metres; not true to nature
     * @param weight share of paths that go on from the surface; the mean stays, noise rises
     * @param bump factor on how far the bumps of the model's pictures stand out; absent for 1
     * @param cutOut coverage by the model's picture below which the surface is not there; 0 for whole; absent for as the model says
     * @param catcher whether the camera sees only shadow and bounce of the surface, on what lies behind it
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    @RecordBuilder
    public record Surface(String name, double[] base, Double metallic, Double roughness, Double ior, Double transmission, Boolean thin,
            Double translucency, double[] emission, String from, Double coat, Double coatRoughness, double[] sheen, Double sheenRoughness,
            Double anisotropy,
            double[] attenuation, Double attenuationDistance, Double round, Boolean scatter, Double reach, Double weight, Boolean catcher,
            Double bump, Double cutOut,
            @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) implements ProjectSurfaceBuilder.With {
        /** A material that is just what the library has. */
        public static Surface of(String name, String from) {
            return new Surface(name, null, null, null, null, null, null, null, null, from, null, null, null, null, null, null, null, null,
                    null, null, null, null, null, null, Map.of());
        }
    }

    /**
     * A portal.
     *
     * @param corners three or more, metres, in one plane; it faces the side from which they run counter-clockwise
     * @param on whether it is used; absent for yes
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record PortalSpec(String name, double[][] corners, Boolean on, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {
        public boolean used() {
            return on == null || on;
        }
    }

    /**
     * An object that is moved a little, such as one whose face lies in another's plane.
     *
     * @param object name of what stands somewhere in the models; all of that name are moved
     * @param by metres along x, y and z
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Nudge(String object, double[] by, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {
        public Nudge {
            other = other == null ? Map.of() : other;
        }
    }

    /** A layer that is switched. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Layer(String name, boolean on, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {}

    /** Whether all is matt grey but for what is clear or glows. */
    public boolean inClay() {
        return Boolean.TRUE.equals(clay);
    }

    /** Whether another project has the same in it but for its views and presets. */
    public boolean showsTheSame(Project o) {
        return o == this || models == o.models && shapes == o.shapes && materials == o.materials && lamps == o.lamps && layers == o.layers
                && portals == o.portals && nudges == o.nudges && efforts == o.efforts && inClay() == o.inClay()
                && place.equals(o.place);
    }

    /** The view of a name, or null. */
    public View view(String n) {
        return views.stream().filter(v -> v.name().equals(n)).findFirst().orElse(null);
    }

    /** The view last worked on, or the first, or null when there is none. */
    public View currentView() {
        View v = view(current);
        return v != null ? v : views.isEmpty() ? null : views.getFirst();
    }

    public boolean layerOn(String layer) {
        return layers.stream().filter(l -> l.name().equals(layer)).map(Layer::on).findFirst().orElse(true);
    }
}
