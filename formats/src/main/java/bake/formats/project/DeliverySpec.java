package bake.formats.project;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;

/**
 * A delivery: the pictures that are promised, and when. Views that are not listed are made with what suits them.
 *
 * @param name such as R1
 * @param due local date and time, ISO 8601 without zone; absent for the project's
 * @param folder where the files go, in the project's folder or absolute; absent for "finals"
 * @param files endings of the kinds that are written: png, tif, jpg, exr, hdr; absent for png
 * @param names template of the files' names; absent for the view's name
 * @param order names of views in the order in which they are made; those not listed come after them, as the project has them
 * @param channels what EXR files hold beside the picture; absent for nothing
 * @param points places whose illuminance the report says
 * @param dpi of print; {@code bits} of PNG and TIFF, {@code quality} of JPEG, {@code gamut} of all three
 *     (srgb, p3, bt2020; absent for srgb), {@code floats} whether EXR is 32 bit throughout
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@RecordBuilder
public record DeliverySpec(String name, String due, String folder, List<String> files, String names, Integer dpi, Integer bits,
        Integer quality, String gamut,
        Boolean floats, List<Item> views, List<String> order, List<Point> points, List<String> channels,
                @JsonAnySetter @JsonAnyGetter Map<String,
                JsonNode> other) implements DeliverySpecBuilder.With {
    public DeliverySpec {
        files = files == null || files.isEmpty() ? List.of("png") : List.copyOf(files);
        views = views == null ? List.of() : List.copyOf(views);
        order = order == null ? List.of() : List.copyOf(order);
        points = points == null ? List.of() : List.copyOf(points);
        channels = channels == null ? List.of() : List.copyOf(channels);
        other = other == null ? Map.of() : other;
    }

    /**
     * What is otherwise for a view of a delivery.
     *
     * @param off whether it is left out
     * @param preset name of the preset; absent for the final that suits the view
     * @param scale on the view's size, 0.05 to 4
     * @param noise aim in percent, {@code time} limit in seconds, {@code samples} most passes; absent for the preset's
     * @param cached whether bounced light comes from caches; absent for as the preset says
     * @param locked whether it keeps its place and its settings when others are moved and the delivery is made to fit
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    @RecordBuilder
    public record Item(String view, Boolean off, String preset, Double scale, Double noise, Double time, Integer samples, Boolean cached,
            Boolean locked,
            @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) implements DeliverySpecItemBuilder.With {
        public Item {
            other = other == null ? Map.of() : other;
        }

        public Item(String view) {
            this(view, null, null, null, null, null, null, null, null, Map.of());
        }

        public boolean isOff() {
            return Boolean.TRUE.equals(off);
        }

        public boolean isLocked() {
            return Boolean.TRUE.equals(locked);
        }
    }

    /**
     * A place of the model.
     *
     * @param at metres
     * @param facing direction that a light meter there faces; up when absent
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Point(String name, double[] at, double[] facing, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {
        public Point {
            other = other == null ? Map.of() : other;
        }
    }

    /** A delivery of all views by what suits them. */
    public static DeliverySpec of(String name) {
        return new DeliverySpec(name, null, null, null, null, null, null, null, null, null, null, null, null, null, Map.of());
    }

    /** What is otherwise for a view; nothing where it is not listed. */
    public Item item(String view) {
        return views.stream().filter(i -> i.view().equals(view)).findFirst().orElseGet(() -> new Item(view));
    }
}
