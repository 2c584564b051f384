package bake.formats.project;

import bake.core.finish.Look;
import bake.core.finish.ToneCurve;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.CameraForm;
import bake.formats.Json;
import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;

/**
 * A saved camera with its own exposure, light, finish and output size.
 *
 * @param setting "interior" or "exterior": which presets suit it
 * @param size final picture, pixels: width, height
 * @param curve tone curve, "film" or "linear"
 * @param whiteBalance colour temperature that is to look white, kelvin; null for that of the display
 * @param finish what else is done to the picture after it is rendered; null for nothing
 * @param print the paper that its size was made for; null for none
 * @param faders level of source groups in stops; groups not named stand at zero
 * @param off source groups that are switched off and not rendered
 * @param shifts colour shift of source groups, mired; above 0 is warmer
 * @param muted source groups that are rendered but not shown
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@RecordBuilder
public record View(
        String name, String setting, CameraSpec camera, Around around, int[] size, String curve, Double whiteBalance,
        @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Unfinished.class) FinishSpec finish, PrintSpec print,
        Map<String, Double> faders, List<String> off,
        Map<String, Double> shifts, List<String> muted, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other)
        implements ViewBuilder.With {

    public View {
        setting = setting == null ? "interior" : setting;
        curve = curve == null ? "film" : curve;
        size = size == null || size.length != 2 ? new int[] {1920, 1080} : size;
        around = around == null ? Around.DEFAULT : around;
        faders = faders == null ? Map.of() : Map.copyOf(faders);
        off = off == null ? List.of() : List.copyOf(off);
        shifts = shifts == null ? Map.of() : Map.copyOf(shifts);
        muted = muted == null ? List.of() : List.copyOf(muted);
        finish = finish == null ? FinishSpec.NONE : finish;
        other = other == null ? Map.of() : other;
    }

    /** Says that a finish which does nothing is not written. */
    static final class Unfinished {
        @Override
        public boolean equals(Object o) {
            return o == null || o instanceof FinishSpec f && f.isNothing();
        }

        @Override
        public int hashCode() {
            return 0;
        }
    }

    /** A view that is not finished in any way. */
    public View(String name, String setting, CameraSpec camera, Around around, int[] size, String curve, Double whiteBalance,
            Map<String, Double> faders, List<String> off, Map<String, Double> shifts, List<String> muted, Map<String, JsonNode> other) {
        this(name, setting, camera, around, size, curve, whiteBalance, null, null, faders, off, shifts, muted, other);
    }

    /** The camera as written: lengths in metres, lens in mm, shutter in seconds. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    @RecordBuilder
    public record CameraSpec(double[] position, double[] target, Double focal, Double fNumber, Double shutter, Double iso, Double focus,
            Boolean depthOfField, Boolean straightVerticals, Double shift, Double shiftAcross, String kind, Double sensor, Double roll,
            Double clip, Integer blades, Double catEye, Double across, Double eyes, @JsonAnySetter @JsonAnyGetter Map<String,
                    JsonNode> other) implements ViewCameraSpecBuilder.With {

        public static CameraSpec of(Camera c) {
            CameraForm f = c.form(), u = CameraForm.USUAL;
            return new CameraSpec(array(c.position()), array(c.target()), c.focal(), c.fNumber(), c.shutter(), c.iso(), c.focus(),
                    c.depthOfField(), c.straightVerticals(), c.shift(), un(c.shiftAcross(), 0),
                    f.kind() == u.kind() ? null : f.kind().name().toLowerCase(Locale.ROOT), un(f.sensor(), u.sensor()), un(f.roll(), 0),
                    un(f.clip(), 0), f.blades() == 0 ? null : f.blades(), un(f.catEye(), 0), un(f.across(), u.across()),
                    un(f.eyes(), u.eyes()), Map.of());
        }

        private static Double un(double v, double usual) {
            return v == usual ? null : v;
        }

        public Camera camera() {
            CameraForm u = CameraForm.USUAL;
            return new Camera(vec(position), vec(target), or(focal, 24), or(fNumber, 8), or(shutter, 1 / 125.0), or(iso, 100), or(focus, 5),
                    depthOfField != null && depthOfField, straightVerticals == null || straightVerticals, or(shift, 0),
                    or(shiftAcross, 0), new CameraForm(kind == null ? u.kind() : CameraForm.Kind.valueOf(kind.toUpperCase(Locale.ROOT)),
                    or(sensor, u.sensor()), or(roll, 0), or(clip, 0), blades == null ? 0 : blades, or(catEye, 0), or(across, u.across()),
                    or(eyes, u.eyes())));
        }

        /** The same keys and unknown ones with another camera's values. */
        public CameraSpec with(Camera c) {
            return of(c).withOther(other);
        }

        private static double or(Double d, double otherwise) {
            return d == null ? otherwise : d;
        }

        private static Vec3 vec(double[] a) {
            return new Vec3(a[0], a[1], a[2]);
        }

        private static double[] array(Vec3 v) {
            return new double[] {v.x(), v.y(), v.z()};
        }
    }

    /**
     * What lies around the model in this view.
     *
     * @param kind "sun and sky", "standard sky", "hdri" or "plain"
     * @param date local date, ISO 8601
     * @param time local clock time, HH:MM or HH:MM:SS
     * @param haze turbidity, 1 to 10
     * @param sunStops level of the sun, stops
     * @param skyStops level of sky, HDRI or plain colour, stops
     * @param sunSize apparent diameter of the sun, degrees
     * @param albedo reflectance of the land around
     * @param file HDRI, in the project's folder
     * @param rotation of the HDRI, degrees clockwise from above
     * @param luminance plain colour, cd/m2
     * @param skyType of the standard sky, 1 to 15
     * @param sunAzimuth of a sun set by hand, degrees clockwise from north; together with {@code sunHeight}, degrees; else date and time
     *     tell
     * @param sunDisc whether the sun's disc is seen; its light stays; absent for yes
     * @param moon whether the moon lights the night, opposite to the sun, as when it is full
     * @param tilt degrees by which an HDRI's middle is lowered, {@code roll} by which it leans to the right
     * @param gamma exponent on an HDRI's luminance around its mean, saturation factor on its colours; 1 for both leaves it
     * @param lux horizontal illuminance that an HDRI is brought to before its level; absent for as stored
     * @param sunOut whether the sun is taken out of an HDRI and shines as a sun of its own
     * @param ground how an HDRI stands on the ground for camera and mirrors; absent for infinitely far away
     * @param backdrop what the camera sees behind the model instead; values it lacks are those of the light. Its kind may be "picture" as
     *     well: a flat one
     * @param mirrored what mirrors and gloss show instead, likewise
     * @param apart whether the backdrop is left out of picture files, which then carry how much of it is covered
     * @param ev exposure at which a flat picture was taken, EV at ISO 100
     * @param size of a flat picture, 1 for as small as fills the frame; {@code across} and {@code up} move it by shares of the frame
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    @RecordBuilder
    public record Around(String kind, String date, String time, Double haze, Double sunStops, Double skyStops, Double sunSize,
            Double albedo,
            String file, Double rotation, double[] luminance, Integer skyType, Double sunAzimuth, Double sunHeight, Boolean sunDisc,
            Boolean moon, Double tilt, Double roll, Double gamma, Double saturation,
            Double lux, Boolean sunOut, GroundSpec ground, Around backdrop, Around mirrored, Boolean apart, Double ev, Double size,
            Double across, Double up, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) implements ViewAroundBuilder.With {
        public static final Around DEFAULT = sunAndSky("2027-03-14", "09:10", 2.5);

        public Around {
            kind = kind == null ? "sun and sky" : kind;
            other = other == null ? Map.of() : other;
        }

        public static Around sunAndSky(String date, String time, double haze) {
            return ViewAroundBuilder.builder().kind("sun and sky").date(date).time(time).haze(haze).sunStops(0.0).skyStops(0.0).sunSize(0.533)
                    .albedo(0.2).build();
        }

        public static Around hdri(String file, double rotation, double stops) {
            return ViewAroundBuilder.builder().kind("hdri").skyStops(stops).file(file).rotation(rotation).build();
        }

        public double or(Double v, double otherwise) {
            return v == null ? otherwise : v;
        }

        /** This, with the values of the light where it has none itself. */
        public Around over(Around light) {
            return Json.over(this, light.withBackdrop(null).withMirrored(null).withGround(null).withApart(null), Around.class);
        }

        /** Whether the backdrop is left out of picture files. */
        @JsonIgnore
        public boolean leavesBackdropOut() {
            return apart != null && apart;
        }

        /** At another moment; a sun set by hand follows the clock again. */
        public Around withTime(String d, String t) {
            return withDate(d).withTime(t).withSunAzimuth(null).withSunHeight(null);
        }

        public Around withStops(double sun, double sky) {
            return withSunStops(sun).withSkyStops(sky);
        }

        /** Type of the standard sky, 1 where none was chosen. */
        @JsonIgnore
        public int standardSky() {
            return skyType == null ? 1 : skyType;
        }

        public boolean takesSunOut() {
            return sunOut != null && sunOut;
        }

        /** Whether the sun is set by hand. */
        public boolean byHand() {
            return sunAzimuth != null && sunHeight != null;
        }

        public Around withStandardSky(int t) {
            return withKind("standard sky").withSkyType(t);
        }
    }

    /**
     * How a panorama stands on the ground, metres.
     *
     * @param x middle of the floor, likewise {@code y} and {@code z}
     * @param radius of the floor
     * @param tripod height of the lens when the panorama was taken
     * @param softness of the rim, 0 to 1
     * @param stretch height of the upright wall in radii
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    @RecordBuilder
    public record GroundSpec(Double x, Double y, Double z, Double radius, Double tripod, Double softness, Double stretch,
            @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) implements ViewGroundSpecBuilder.With {
        public GroundSpec {
            x = x == null ? 0 : x;
            y = y == null ? 0 : y;
            z = z == null ? 0 : z;
            radius = radius == null ? 25 : radius;
            tripod = tripod == null ? 1.6 : tripod;
            softness = softness == null ? 0.3 : softness;
            stretch = stretch == null ? 0.5 : stretch;
            other = other == null ? Map.of() : other;
        }

    }

    /**
     * Paper.
     *
     * @param dpi pixels by inch, 20 to 2400
     * @param bleed what is cut off on each side, mm, 0 to 50; absent for nothing
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record PrintSpec(double dpi, Double bleed, @JsonAnySetter @JsonAnyGetter Map<String, JsonNode> other) {
        public PrintSpec {
            other = other == null ? Map.of() : other;
        }

        public PrintSpec(double dpi, double bleed) {
            this(dpi, bleed > 0 ? bleed : null, Map.of());
        }
    }

    /** What is cut off on each side of its paper, pixels. */
    public double trim() {
        return print == null || print.bleed() == null ? 0 : print.bleed() / 25.4 * print.dpi();
    }

    /** This view in the light of another: its surroundings, levels, colours and which lamps are on. */
    public View withLightOf(View o) {
        return withAround(o.around).withFaders(o.faders).withOff(o.off).withShifts(o.shifts).withMuted(o.muted);
    }

    public View withCamera(Camera c) {
        return withCamera(camera.with(c));
    }

    public View withSize(int w, int h) {
        return withSize(new int[] {w, h});
    }

    public View withFader(String group, double stops) {
        return withFaders(put(faders, group, stops));
    }

    public View withShift(String group, double mired) {
        return withShifts(put(shifts, group, mired));
    }

    private static Map<String, Double> put(Map<String, Double> all, String group, double value) {
        Map<String, Double> f = new TreeMap<>(all);
        if (value == 0) f.remove(group);
        else f.put(group, value);
        return f;
    }

    public View withMuted(String group, boolean is) {
        return withMuted(listed(muted, group, is));
    }

    public View withOff(String group, boolean isOff) {
        return withOff(listed(off, group, isOff));
    }

    private static List<String> listed(List<String> all, String name, boolean is) {
        List<String> o = new java.util.ArrayList<>(all);
        o.remove(name);
        if (is) o.add(name);
        return o;
    }

    /**
     * What must be rendered of it: all faders at zero, no shift, nothing muted and nothing finished. Only a flat
     * picture behind the model is turned
     * back through the tone curve, which then stays.
     */
    public View neutral() {
        boolean flat = around.backdrop() != null && "picture".equals(around.backdrop().kind());
        FinishSpec kept = flat ? FinishSpec.NONE.withToe(finish.toe()).withShoulder(finish.shoulder()) : FinishSpec.NONE;
        return withFaders(Map.of()).withShifts(Map.of()).withMuted(List.of()).withCurve(flat ? curve : "film").withWhiteBalance(null)
                .withFinish(kept);
    }

    /** How its picture is finished, but for a colour table, which is a file. */
    @JsonIgnore
    public Look look() {
        return finish.look(ToneCurve.valueOf(curve.toUpperCase(Locale.ROOT)), whiteBalance == null ? Look.NEUTRAL : whiteBalance);
    }
}
