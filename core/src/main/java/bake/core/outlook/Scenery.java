package bake.core.outlook;

import bake.core.light.Dome;
import bake.core.light.LightTable;
import bake.core.light.Surround;
import bake.core.scene.Outlook;
import bake.core.scene.Surroundings;

/** An {@link Outlook} compiled: what is seen behind the model and in its mirrors. Immutable; shared by all threads. */
public final class Scenery {
    private final Outlook outlook;
    private final Surround light;
    private final Dome dome;
    private final Sight behind, mirrored;
    private final OpenLight open;
    private final double aspect;

    /**
     * @param light the surroundings as light
     * @param catches whether the model has a shadow catcher
     * @param aspect width of the picture over its height, for flat pictures
     * @param before what was compiled before, or null; what it shares with this is taken over
     */
    public static Scenery of(Outlook outlook, Surround light, boolean catches, double aspect, Scenery before) {
        if (before != null && before.outlook.equals(outlook) && before.light == light && (before.open != null) == catches
                && (before.aspect == aspect || !(outlook.backdrop() instanceof Outlook.Plate))) return before;
        return new Scenery(outlook, light, catches, aspect, before);
    }

    private Scenery(Outlook outlook, Surround light, boolean catches, double aspect, Scenery before) {
        this.outlook = outlook;
        this.light = light;
        this.aspect = aspect;
        dome = light.dome();
        behind = sight(outlook.backdrop(), before == null ? null : before.outlook.backdrop(), before == null ? null : before.behind);
        mirrored = sight(outlook.mirrored(), before == null ? null : before.outlook.mirrored(), before == null ? null : before.mirrored);
        open = !catches ? null : before != null && before.light == light && before.open != null ? before.open : new OpenLight(light);
    }

    public double aspect() {
        return aspect;
    }

    /** The same for another shape of the picture. */
    public Scenery framed(double aspect) {
        return of(outlook, light, open != null, aspect, this);
    }

    private Sight sight(Outlook.Sight s, Outlook.Sight before, Sight compiled) {
        if (s != null && s.equals(before) && !(s instanceof Outlook.Plate)) return compiled;
        return switch (s) {
            case null -> null;
            case Outlook.Far f -> new Far(dome(f.of()));
            case Outlook.Grounded g -> new Grounding(dome(g.of()), g.ground());
            case Outlook.Plate p -> new Plate(p, aspect);
        };
    }

    private Dome dome(Surroundings s) {
        return s.equals(light.of()) ? light.dome() : Surround.of(s).dome();
    }

    /** The dome of surroundings, seen. */
    private record Far(Dome dome) implements Sight {
        @Override
        public void radiance(float ox, float oy, float oz, float dx, float dy, float dz, float px, float py, float[] out) {
            dome.read(dx, dy, dz, out);
        }

        @Override
        public float white() {
            return (float) (dome.horizontalIlluminance() / Math.PI);
        }
    }

    /** Whether what lies behind the model is a source group of its own. */
    public boolean apart() {
        return outlook.apart() || behind != null || open != null;
    }

    /** Whether the camera sees something else behind the model than the light. */
    public boolean hasBackdrop() {
        return behind != null;
    }

    /** Whether mirrors show something else than the light. */
    public boolean hasMirrored() {
        return mirrored != null;
    }

    /** What the camera sees behind the model; parameters as in {@link Sight#look}. */
    public void behind(float ox, float oy, float oz, float dx, float dy, float dz, float px, float py, float[] out) {
        if (behind == null) dome.read(dx, dy, dz, out);
        else behind.radiance(ox, oy, oz, dx, dy, dz, px, py, out);
    }

    /** What mirrors show. */
    public void mirrored(float ox, float oy, float oz, float dx, float dy, float dz, float[] out) {
        if (mirrored == null) dome.read(dx, dy, dz, out);
        else mirrored.radiance(ox, oy, oz, dx, dy, dz, 0.5f, 0.5f, out);
    }

    /** Luminance of what is behind that counts as white, cd/m2. */
    public float white() {
        return behind != null ? behind.white() : (float) (dome.horizontalIlluminance() / Math.PI);
    }

    /**
     * Illuminance by colour, lux, that a plane facing (x, y, z) would have if nothing stood around it; only where there is a shadow
     * catcher.
     */
    public void open(float x, float y, float z, float[] out) {
        open.at(x, y, z, out);
    }
}
