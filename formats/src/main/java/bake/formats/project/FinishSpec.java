package bake.formats.project;

import bake.core.finish.Look;
import bake.core.finish.SplineCurve;
import bake.core.finish.ToneCurve;
import bake.formats.Json;
import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;

/**
 * What is done to the picture of a view after it is rendered, beside its tone curve and white balance; null for what is not. Values are
 * those of {@link Look}.
 *
 * @param curve points of a curve of display values, x and y in turn; {@code red}, {@code green} and {@code blue} those of single colours
 * @param look name and version of the look that it began with, "NAME v2"
 * @param lut file of a colour table (.cube) in the project's folder
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@RecordBuilder
public record FinishSpec(Double toe, Double shoulder, Boolean keepHue, Double lighten, Double tint, Double highlights, Double shadows,
        Double contrast, List<Double> curve, List<Double> red, List<Double> green, List<Double> blue, Double saturation, Double vibrance,
        List<Double> slope, List<Double> offset, List<Double> power, Double glow, Double glowSize, Double vignette, Double fringe,
        Double sharpen, Double grain, Double grainSize, Double outline, Double outlineWeight, Double wobble, Double wash, Double washSize,
        Double skyLighten, Double skySaturation, Double skyWarmth, String look, String lut, Double lutStrength,
                @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) implements FinishSpecBuilder.With {
    public static final FinishSpec NONE = new FinishSpec(null, null, null, null, null, null, null, null, null, null, null, null, null, null,
            null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null,
                    Map.of());

    public FinishSpec {
        other = other == null ? Map.of() : other;
    }

    /**
     * A copy with another value under a name of the schema, for what goes through them all; null takes it away.
     *
     * @throws IllegalArgumentException for a name that is none, and for a value of another kind
     */
    public FinishSpec with(String key, Object value) {
        get(key);
        ObjectNode n = Json.MAPPER.valueToTree(this);
        n.set(key, Json.MAPPER.valueToTree(value));
        return Json.MAPPER.convertValue(n, FinishSpec.class);
    }

    /** Whether it does nothing. */
    @JsonIgnore
    public boolean isNothing() {
        return equals(NONE);
    }

    /** Names of the values that are otherwise in another finish, the look it began with aside; in the order of the schema. */
    public List<String> differences(FinishSpec o) {
        List<String> out = new java.util.ArrayList<>();
        for (java.lang.reflect.RecordComponent c : FinishSpec.class.getRecordComponents())
            if (!c.getName().equals("look") && !c.getName().equals("other") && !java.util.Objects.equals(value(c, this), value(c, o)))
                out.add(c.getName());
        return out;
    }

    private static Object value(java.lang.reflect.RecordComponent c, FinishSpec of) {
        try {
            return c.getAccessor().invoke(of);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    /** One of its values by its name; null where it has none. */
    public Object get(String key) {
        for (java.lang.reflect.RecordComponent c : FinishSpec.class.getRecordComponents()) if (c.getName().equals(key)) return value(c,
                this);
        throw new IllegalArgumentException(key + " is no value of a finish");
    }

    /** As the engine takes it, but for its colour table, which is a file. */
    public Look look(ToneCurve kind, double whiteBalance) {
        Look.Optics o = Look.Optics.NONE;
        Look.Drawing d = Look.Drawing.NONE;
        Look.Colours c = Look.Colours.NONE;
        return new Look(kind, or(toe, 0), or(shoulder, 0), Boolean.TRUE.equals(keepHue), or(lighten, 0), whiteBalance, or(tint, 0),
                new Look.Tones(or(highlights, 0), or(shadows, 0), or(contrast, 0), SplineCurve.of(curve), SplineCurve.of(red),
                SplineCurve.of(green), SplineCurve.of(blue)),
                new Look.Colours(or(saturation, 0), or(vibrance, 0), three(slope, c.slope()), three(offset, c.offset()), three(power,
                        c.power())),
                new Look.Optics(or(glow, 0), or(glowSize, o.glowSize()), or(vignette, 0), or(fringe, 0), or(sharpen, 0), or(grain, 0),
                or(grainSize, o.grainSize())),
                new Look.Drawing(or(outline, 0), or(outlineWeight, d.weight()), or(wobble, 0), or(wash, 0), or(washSize, d.washSize())),
                new Look.Sky(or(skyLighten, 0), or(skySaturation, 0), or(skyWarmth, 0)), null, or(lutStrength, 1));
    }

    /** What describes a look, but for its kind of curve, white balance and colour table; what does nothing is left out. */
    public static FinishSpec of(Look l) {
        Look p = Look.PLAIN;
        Look.Tones t = l.tones();
        Look.Colours c = l.colours();
        Look.Optics o = l.optics();
        Look.Drawing d = l.drawing();
        return FinishSpecBuilder.builder().toe(un(l.toe(), 0)).shoulder(un(l.shoulder(), 0)).keepHue(l.keepHue() ? true : null)
                .lighten(un(l.lighten(), 0)).tint(un(l.tint(), 0)).highlights(un(t.highlights(), 0)).shadows(un(t.shadows(), 0))
                .contrast(un(t.contrast(), 0)).curve(un(t.all().points())).red(un(t.red().points())).green(un(t.green().points()))
                .blue(un(t.blue().points())).saturation(un(c.saturation(), 0)).vibrance(un(c.vibrance(), 0))
                .slope(un(c.slope(), p.colours().slope())).offset(un(c.offset(), p.colours().offset()))
                .power(un(c.power(), p.colours().power())).glow(un(o.glow(), 0)).glowSize(un(o.glowSize(), p.optics().glowSize()))
                .vignette(un(o.vignette(), 0)).fringe(un(o.fringe(), 0)).sharpen(un(o.sharpen(), 0)).grain(un(o.grain(), 0))
                .grainSize(un(o.grainSize(), p.optics().grainSize())).outline(un(d.outline(), 0))
                .outlineWeight(un(d.weight(), p.drawing().weight())).wobble(un(d.wobble(), 0)).wash(un(d.wash(), 0))
                .washSize(un(d.washSize(), p.drawing().washSize())).skyLighten(un(l.sky().lighten(), 0))
                .skySaturation(un(l.sky().saturation(), 0)).skyWarmth(un(l.sky().warmth(), 0)).build();
    }

    private static Double un(double v, double usual) {
        return v == usual ? null : v;
    }

    private static List<Double> un(List<Double> v, List<Double> usual) {
        return v.equals(usual) ? null : v;
    }

    private static List<Double> un(List<Double> points) {
        return points.isEmpty() ? null : points;
    }

    private static double or(Double v, double otherwise) {
        return v == null ? otherwise : v;
    }

    private static List<Double> three(List<Double> v, List<Double> otherwise) {
        return v == null || v.size() != 3 ? otherwise : v;
    }
}
