package bake.studio.scene;

import bake.core.math.Affine;
import bake.core.math.Blackbody;
import bake.core.math.Vec3;
import bake.core.scene.Lamp;
import bake.core.scene.PhotometricWeb;
import bake.formats.FormatException;
import bake.formats.light.IesFile;
import bake.formats.project.LampSpec;
import java.io.IOException;
import java.util.Locale;

/** Lamps as written in a project, in the units that light is computed in. */
public final class LampFactory {
    /** Finds the photometric file of a lamp. */
    public interface Files {
        IesFile.Photometry photometry(String file) throws IOException;
    }

    private LampFactory() {}

    static Lamp lamp(LampSpec s) throws IOException {
        return lamp(s, f -> {
            throw new FormatException("project.json", "lamp '" + s.name() + "'",
                    "needs the file " + f + ", and there is no project folder");
        });
    }

    /** @throws FormatException when the lamp says too little, too much or what cannot be */
    public static Lamp lamp(LampSpec s, Files files) throws IOException {
        String place = "lamp '" + s.name() + "'";
        if (s.kind() == null) throw new FormatException("project.json", place,
                "shares its settings with '" + s.like() + "', which is not there; give it a kind of its own");
        Lamp.Kind kind = s.kind().equals("ies") ? Lamp.Kind.WEB : Lamp.Kind.valueOf(s.kind().toUpperCase(Locale.ROOT));
        double w = s.diameter() != null ? s.diameter() : s.width() != null ? s.width() : 0, h = s.height() != null ? s.height() : w;
        boolean body = kind == Lamp.Kind.SPHERE || kind == Lamp.Kind.DISC || kind == Lamp.Kind.RECTANGLE;
        if (body && !(w > 0 && h > 0)) throw new FormatException("project.json", place,
                "a " + s.kind() + " lamp needs a size: diameter, or width and height, in metres");
        if (kind == Lamp.Kind.TUBE && !(w > 0 && s.height() != null && s.height() > 0))
            throw new FormatException("project.json", place, "a tube needs its diameter, and its length as height, in metres");
        Vec3 direction = s.direction() == null ? kind == Lamp.Kind.TUBE ? new Vec3(1, 0, 0) : new Vec3(0, 0, -1) : vec(s.direction());
        IesFile.Photometry photometry = null;
        if (kind == Lamp.Kind.WEB) {
            if (s.file() == null) throw new FormatException("project.json", place, "needs a photometric file (.ies)");
            photometry = files.photometry(s.file());
            if (w == 0) {
                w = photometry.width();
                h = photometry.length();
            } else if (s.height() == null) h = 0;
        }
        PhotometricWeb web = photometry == null ? null : photometry.web();
        double field = s.field() == null ? 60 : s.field(), beam = Math.min(field, s.beam() == null ? field * 0.6 : s.beam());
        Vec3 colour = s.colour() != null ? vec(s.colour()) : Blackbody.rgb(s.kelvin() == null ? 3000 : s.kelvin());
        if (!(colour.luminance() > 0)) throw new FormatException("project.json", place,
                "its colour is black; set the output to 0 to switch it off");
        boolean visible = s.visible() == null || s.visible();
        Affine frame = frame(kind, web != null && web.hangs(), vec(s.position()), direction, s.turn() == null ? 0 : s.turn());
        Lamp l = new Lamp(s.name(), s.groupName(), kind, frame, w, h,
                1, colour.times(1 / colour.luminance()),
                beam, field, visible, s.twoSided() != null && s.twoSided(), s.mirrored() == null ? visible : s.mirrored(),
                s.weight() == null ? 1 : s.weight(), web);
        double lumens = lumens(s, l, place);
        if (photometry != null) lumens *= photometry.tilt(Math.toDegrees(Math.acos(Math.clamp(-direction.normalized().z(), -1, 1))));
        return l.withLumens(lumens);
    }

    private static Affine frame(Lamp.Kind kind, boolean hangs, Vec3 at, Vec3 direction, double turn) {
        Affine a = hangs ? hanging(at, direction.normalized()) : Affine.pointing(at, direction);
        if (turn != 0) a = Affine.translation(at.x(), at.y(), at.z()).times(Affine.rotation(direction, Math.toRadians(turn)))
                .times(Affine.translation(-at.x(), -at.y(), -at.z())).times(a);
        // A tube lies along its direction, which is the x axis of its frame.
        return kind == Lamp.Kind.TUBE ? Affine.frame(a.vector(new Vec3(0, 0, 1)), a.vector(new Vec3(1, 0, 0)), a.vector(new Vec3(0, 1, 0)),
                at) : a;
    }

    /** As it was measured: shining down, with angle 0 along +x; tilted from there the shortest way to where it shines. */
    private static Affine hanging(Vec3 at, Vec3 direction) {
        Vec3 down = new Vec3(0, 0, -1), axis = down.cross(direction);
        double sine = axis.length(), angle = Math.atan2(sine, down.dot(direction));
        Affine tilt = Affine.rotation(sine > 1e-9 ? axis : new Vec3(0, 1, 0), angle);
        Vec3 x = tilt.vector(new Vec3(1, 0, 0));
        return Affine.frame(x, direction.cross(x), direction, at);
    }

    /** Exactly one of lumens, candela, luminance and lux says how bright a lamp is; a photometric file may say it as well. */
    private static double lumens(LampSpec s, Lamp l, String place) throws FormatException {
        int given = (s.lumens() != null ? 1 : 0) + (s.candela() != null ? 1 : 0) + (s.luminance() != null ? 1 : 0)
                + (s.lux() != null ? 1 : 0);
        if (given == 0 && l.web() != null) return l.web().lumens() * (s.multiplier() == null ? 1 : s.multiplier());
        if (given != 1) throw new FormatException("project.json", place, "needs exactly one of lumens, candela, luminance and lux");
        if (s.lumens() != null) return s.lumens();
        if (s.candela() != null) return s.candela() * l.lumensPerCandela();
        if (s.lux() != null) {
            double at = s.at() == null ? 1 : s.at(), one = l.luxAt(at);
            if (!(one > 0) || l.kind() == Lamp.Kind.SPHERE && at <= l.width() / 2)
                throw new FormatException("project.json", place, "has no illuminance at " + at + " m; choose a distance beyond its body");
            return s.lux() / one;
        }
        if (!(l.area() > 0)) throw new FormatException("project.json", place,
                "a " + s.kind() + " has no area and so no luminance; give lumens or candela");
        return s.luminance() * Math.PI * l.area();
    }

    private static Vec3 vec(double[] a) {
        return new Vec3(a[0], a[1], a[2]);
    }
}
