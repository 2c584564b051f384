package bake.core.light;

import bake.core.geometry.Geometry;
import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.core.scene.Surroundings;
import bake.core.surface.SurfaceTable;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * All light of a scene, compiled: sun, dome, lamps and glowing materials, and the names of the source groups that
 * the picture keeps apart. Group 0 is the sun, group 1 the surroundings.
 */
public final class LightTable {
    public static final int SUN = 0, DOME = 1;
    public static final String GLOW = "Glowing materials", BACKDROP = "Backdrop";

    private final Dome dome;
    private final Emitters emitters;
    private final List<String> groups;
    private final Vec3 sunDirection;
    private final Vec3 sunIlluminance;
    private final boolean disc;
    private final int glow, backdrop;
    private final float sunCap, sunCos;
    private final float sunR, sunG, sunB;

    public LightTable(Surround s, List<Lamp> lamps, Geometry geometry, SurfaceTable surfaces) {
        this(s, lamps, geometry, surfaces, false);
    }

    /** @param apart whether what lies behind the model is a source group of its own */
    public LightTable(Surround s, List<Lamp> lamps, Geometry geometry, SurfaceTable surfaces, boolean apart) {
        List<String> names = new ArrayList<>(List.of("Sun", s.of() instanceof Surroundings.SunSky
                || s.of() instanceof Surroundings.General ? "Sky" : "Surroundings"));
        int[] groupOf = new int[lamps.size()];
        for (int i = 0; i < groupOf.length; i++) {
            String g = lamps.get(i).group();
            int at = names.subList(2, names.size()).indexOf(g) + 2;
            if (at < 2) {
                at = names.size();
                names.add(g);
            }
            groupOf[i] = at;
        }
        int glow = names.size();
        names.add(GLOW);
        this.glow = glow;
        backdrop = apart ? names.size() : -1;
        if (apart) names.add(BACKDROP);
        groups = List.copyOf(names);
        dome = s.dome();
        emitters = new Emitters(lamps, groupOf, geometry, surfaces, glow);
        disc = !(s.of() instanceof Surroundings.SunSky k && !k.disc() || s.of() instanceof Surroundings.General g && !g.disc());
        sunDirection = s.toSun();
        sunIlluminance = s.sunLux();
        double sin = Math.sin(s.sunRadius());
        sunCap = (float) (2 * Math.pow(Math.sin(s.sunRadius() / 2), 2));
        sunCos = 1 - sunCap;
        double scale = sin > 0 ? 1 / (Math.PI * sin * sin) : 0;
        sunR = (float) (sunIlluminance.x() * scale);
        sunG = (float) (sunIlluminance.y() * scale);
        sunB = (float) (sunIlluminance.z() * scale);
    }

    /** Factors for the groups' light as a scene's levels say, three for each group; null where all are one. */
    public float[] gains(Map<String, Vec3> levels) {
        if (levels.isEmpty()) return null;
        float[] out = new float[3 * groups.size()];
        for (int g = 0; g < groups.size(); g++) {
            Vec3 k = levels.getOrDefault(groups.get(g), new Vec3(1, 1, 1));
            out[3 * g] = (float) k.x();
            out[3 * g + 1] = (float) k.y();
            out[3 * g + 2] = (float) k.z();
        }
        return out;
    }

    public List<String> groups() {
        return groups;
    }

    /** Source group of glowing materials. */
    public int glowGroup() {
        return glow;
    }

    /** Source group of what lies behind the model; -1 where that is part of the surroundings. */
    public int backdropGroup() {
        return backdrop;
    }

    public Dome dome() {
        return dome;
    }

    public Emitters emitters() {
        return emitters;
    }

    /** Whether the sun's disc is seen by whoever looks at it; light it gives all the same. */
    public boolean showsDisc() {
        return disc;
    }

    public boolean hasSun() {
        return sunR + sunG + sunB > 0;
    }

    /** Illuminance by colour on a plane facing the sun, lux. */
    public Vec3 sunIlluminance() {
        return sunIlluminance;
    }

    /** Unit direction to the sun's centre, or null without a sun. */
    public Vec3 sunDirection() {
        return sunDirection;
    }

    /** A direction within the sun's disc, uniform in solid angle. */
    public void sampleSun(float u1, float u2, LightSample s) {
        s.x = (float) sunDirection.x();
        s.y = (float) sunDirection.y();
        s.z = (float) sunDirection.z();
        float oneMinus = u1 * sunCap, sin = (float) Math.sqrt(oneMinus * (2 - oneMinus)), phi = 2 * (float) Math.PI * u2;
        Emitters.turn(s, 1 - oneMinus, sin * (float) Math.cos(phi), sin * (float) Math.sin(phi));
        s.distance = Float.POSITIVE_INFINITY;
        s.r = sunR;
        s.g = sunG;
        s.b = sunB;
        s.pdf = 1 / (2 * (float) Math.PI * sunCap);
        s.point = s.hidden = s.onMesh = false;
        s.lamp = -1;
        s.group = SUN;
    }

    /** Density of {@link #sampleSun}, zero outside of the disc. */
    public float pdfSun(float x, float y, float z) {
        if (!hasSun()) return 0;
        double cos = x * sunDirection.x() + y * sunDirection.y() + z * sunDirection.z();
        return cos >= sunCos ? 1 / (2 * (float) Math.PI * sunCap) : 0;
    }

    /** Luminance by colour of the sun's disc, cd/m2. */
    public void sunLuminance(float[] out) {
        out[0] = sunR;
        out[1] = sunG;
        out[2] = sunB;
    }

    /** How to aim at bins of the dome, in proportion to what each has proved to be worth. */
    public Aim aim(float[] weights, int o) {
        return CompassAim.of(dome, weights, o);
    }

    /** A direction to the dome in proportion to its luminance, into the sample's x, y, z. */
    public void aim(float u1, float u2, LightSample s) {
        dome.sample(u1, u2, s.rgb);
        s.x = s.rgb[0];
        s.y = s.rgb[1];
        s.z = s.rgb[2];
    }

    /**
     * Fills in what comes from the dome along the sample's direction, all but its density, and returns the density of looking at the
     * whole dome.
     */
    public float read(LightSample s) {
        s.distance = Float.POSITIVE_INFINITY;
        float whole = dome.read(s.x, s.y, s.z, s.rgb);
        s.r = s.rgb[0];
        s.g = s.rgb[1];
        s.b = s.rgb[2];
        s.bin = (int) s.rgb[3];
        s.point = s.hidden = s.onMesh = false;
        s.lamp = -1;
        s.group = DOME;
        return whole;
    }
}
