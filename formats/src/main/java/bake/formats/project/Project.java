package bake.formats.project;

import bake.formats.Json;
import bake.formats.Records;
import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
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
 * @param efforts what is done for single things beyond what is done for all
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Project(
        int bake, String name, String due, Place place, List<ModelRef> models, List<Shape> shapes, List<Surface> materials,
        List<LampSpec> lamps, List<PortalSpec> portals, List<Layer> layers, List<View> views, List<Preset> presets, String current,
                List<EffortSpec> efforts, Boolean clay,
        List<DeliverySpec> deliveries,
        @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {

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
    public record ModelRef(String file, Double unit, String up, String variant, String layersBy, double[] at, Double turn, Double scale,
            String replaces, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {
        /** A model as its file says it is. */
        public static ModelRef of(String file) {
            return new ModelRef(file, null, null, null, null, null, null, null, null, Map.of());
        }

        public ModelRef withFile(String f) {
            return Records.with(this, "file", f);
        }

        public ModelRef withUnit(Double metres) {
            return Records.with(this, "unit", metres);
        }

        public ModelRef withUp(String axis) {
            return Records.with(this, "up", axis);
        }

        public ModelRef withVariant(String v) {
            return Records.with(this, "variant", v);
        }

        public ModelRef withLayersBy(String what) {
            return Records.with(this, "layersBy", what);
        }

        public ModelRef placed(double[] where, Double degrees, Double factor) {
            return Records.with(this, "at", where, "turn", degrees, "scale", factor);
        }

        public ModelRef inPlaceOf(String object) {
            return Records.with(this, "replaces", object);
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
     * @param catcher whether the camera sees only shadow and bounce of the surface, on what lies behind it
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Surface(String name, double[] base, Double metallic, Double roughness, Double ior, Double transmission, Boolean thin,
            Double translucency, double[] emission, String from, Double coat, Double coatRoughness, double[] sheen, Double sheenRoughness,
            Double anisotropy,
            double[] attenuation, Double attenuationDistance, Double round, Boolean scatter, Double reach, Double weight, Boolean catcher,
            @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {
        private Surface with(Object... keysAndValues) {
            return Json.with(this, Surface.class, keysAndValues);
        }

        /** @param linear Rec. 709 */
        public Surface withBase(double[] linear) {
            return with("base", linear);
        }

        public Surface withRoughness(Double r) {
            return with("roughness", r);
        }

        public Surface withMetallic(Double m) {
            return with("metallic", m);
        }

        public Surface withIor(Double n) {
            return with("ior", n);
        }

        public Surface withTransmission(Double t) {
            return with("transmission", t);
        }

        /** @param cdm2 by colour, or null for the model's */
        public Surface withEmission(double[] cdm2) {
            return with("emission", cdm2);
        }

        /** A material that is just what the library has. */
        public static Surface of(String name, String from) {
            return new Surface(name, null, null, null, null, null, null, null, null, from, null, null, null, null, null, null, null, null,
                    null, null, null, null, Map.of());
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

    /** A layer that is switched. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Layer(String name, boolean on, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {}

    public Project withLamps(List<LampSpec> l) {
        return Records.with(this, "lamps", l);
    }

    /** @param d local date and time, ISO 8601 without zone, or null */
    public Project withDue(String d) {
        return Records.with(this, "due", d);
    }

    public Project withPortals(List<PortalSpec> l) {
        return Records.with(this, "portals", l);
    }

    public Project withPlace(Place p) {
        return Records.with(this, "place", p);
    }

    public Project withViews(List<View> v) {
        return Records.with(this, "views", v);
    }

    public Project withLayers(List<Layer> l) {
        return Records.with(this, "layers", l);
    }

    public Project withCurrent(String view) {
        return Records.with(this, "current", view);
    }

    public Project withPresets(List<Preset> p) {
        return Records.with(this, "presets", p);
    }

    public Project withEfforts(List<EffortSpec> e) {
        return Records.with(this, "efforts", e);
    }

    public Project withDeliveries(List<DeliverySpec> d) {
        return Records.with(this, "deliveries", d);
    }

    /** Whether all is matt grey but for what is clear or glows. */
    public boolean inClay() {
        return Boolean.TRUE.equals(clay);
    }

    public Project withClay(Boolean c) {
        return Records.with(this, "clay", c);
    }

    public Project withMaterials(List<Surface> m) {
        return Records.with(this, "materials", m);
    }

    public Project withShapes(List<Shape> s) {
        return Records.with(this, "shapes", s);
    }

    public Project withModels(List<ModelRef> m) {
        return Records.with(this, "models", m);
    }

    public Project withName(String n) {
        return Records.with(this, "name", n);
    }

    /** Whether another project has the same in it but for its views and presets. */
    public boolean showsTheSame(Project o) {
        return o == this || models == o.models && shapes == o.shapes && materials == o.materials && lamps == o.lamps && layers == o.layers
                && portals == o.portals && efforts == o.efforts && inClay() == o.inClay()
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
