package bake.studio;

import bake.core.math.Affine;
import bake.core.math.Blackbody;
import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.formats.FormatException;
import bake.formats.project.Project;
import java.util.Locale;

/** Lamps as written in a project, in the units that light is computed in. */
final class LampFactory {
    private LampFactory() {}

    static Lamp lamp(Project.LampSpec s) throws FormatException {
        String place = "lamp '" + s.name() + "'";
        Lamp.Kind kind = Lamp.Kind.valueOf(s.kind().toUpperCase(Locale.ROOT));
        double w = s.diameter() != null ? s.diameter() : s.width() != null ? s.width() : 0, h = s.height() != null ? s.height() : w;
        boolean body = kind == Lamp.Kind.SPHERE || kind == Lamp.Kind.DISC || kind == Lamp.Kind.RECTANGLE;
        if (body && !(w > 0 && h > 0)) throw new FormatException("project.json", place, "a " + s.kind() + " lamp needs a size: diameter, or width and height, in metres");
        Vec3 position = vec(s.position()), direction = s.direction() == null ? new Vec3(0, 0, -1) : vec(s.direction());
        double field = s.field() == null ? 60 : s.field(), beam = Math.min(field, s.beam() == null ? field * 0.6 : s.beam());
        Vec3 colour = s.colour() != null ? vec(s.colour()) : Blackbody.rgb(s.kelvin() == null ? 3000 : s.kelvin());
        if (!(colour.luminance() > 0)) throw new FormatException("project.json", place, "its colour is black; set the output to 0 to switch it off");
        Lamp l = new Lamp(s.name(), s.group() == null ? "Lamps" : s.group(), kind, Affine.pointing(position, direction), w, h, 1, colour.times(1 / colour.luminance()),
                beam, field, s.visible() == null || s.visible(), s.twoSided() != null && s.twoSided());
        return l.withLumens(lumens(s, l, place));
    }

    /** Exactly one of lumens, candela and luminance says how bright a lamp is. */
    private static double lumens(Project.LampSpec s, Lamp l, String place) throws FormatException {
        int given = (s.lumens() != null ? 1 : 0) + (s.candela() != null ? 1 : 0) + (s.luminance() != null ? 1 : 0);
        if (given != 1) throw new FormatException("project.json", place, "needs exactly one of lumens, candela and luminance");
        if (s.lumens() != null) return s.lumens();
        if (s.luminance() != null) {
            if (!(l.area() > 0)) throw new FormatException("project.json", place, "a " + s.kind() + " has no area and so no luminance; give lumens or candela");
            return s.luminance() * Math.PI * l.area();
        }
        return s.candela() * switch (l.kind()) {
            case POINT, SPHERE -> 4 * Math.PI;
            case SPOT -> {
                double ci = Math.cos(Math.toRadians(l.beamDegrees() / 2)), co = Math.cos(Math.toRadians(l.fieldDegrees() / 2));
                yield 2 * Math.PI * ((1 - ci) + 0.5 * (ci - co));
            }
            // The highest intensity of a flat diffuse emitter is its flux over pi, for each lit face.
            case DISC, RECTANGLE -> Math.PI * (l.twoSided() ? 2 : 1);
        };
    }

    private static Vec3 vec(double[] a) {
        return new Vec3(a[0], a[1], a[2]);
    }
}
