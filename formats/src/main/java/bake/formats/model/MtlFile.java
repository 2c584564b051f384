package bake.formats.model;

import bake.core.math.Vec3;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The materials of an MTL file: what it says, not yet what that means. */
final class MtlFile {
    /** Options before a picture's name, and the name, which may have spaces. */
    private static final Pattern PICTURE = Pattern.compile("((?:-\\w+(?:\\s+(?:on|off|[-+.\\d]+(?=\\s)))*\\s+)*)(\\S.*)");

    /** One material; null for what is not said. */
    static final class Entry {
        Vec3 diffuse, emission;
        Double shine, opacity, ior, roughness, metallic;
        String baseMap, emissionMap, opacityMap, normalMap;
    }

    private MtlFile() {}

    static Map<String, Entry> read(byte[] bytes) {
        Map<String, Entry> out = new HashMap<>();
        ObjText t = new ObjText(bytes);
        Entry e = new Entry();
        while (t.line()) {
            if (!t.word()) continue;
            if (t.is("newmtl")) out.put(t.rest(), e = new Entry());
            else if (t.is("Kd")) e.diffuse = colour(t, e.diffuse);
            else if (t.is("Ke")) e.emission = colour(t, e.emission);
            else if (t.is("Ns")) e.shine = number(t);
            else if (t.is("d")) e.opacity = number(t);
            else if (t.is("Tr") && e.opacity == null) e.opacity = complement(number(t));
            else if (t.is("Ni")) e.ior = number(t);
            else if (t.is("Pr")) e.roughness = number(t);
            else if (t.is("Pm")) e.metallic = number(t);
            else if (t.is("map_Kd")) e.baseMap = picture(t);
            else if (t.is("map_Ke")) e.emissionMap = picture(t);
            else if (t.is("map_d")) e.opacityMap = picture(t);
            else if (t.is("norm")) e.normalMap = picture(t);
        }
        return out;
    }

    private static Double number(ObjText t) {
        if (!t.word()) return null;
        double v = t.value();
        return Double.isFinite(v) ? v : null;
    }

    private static Double complement(Double v) {
        return v == null ? null : 1 - v;
    }

    /** One number stands for grey. */
    private static Vec3 colour(ObjText t, Vec3 before) {
        Double r = number(t), g = number(t), b = number(t);
        return r == null ? before : new Vec3(Math.max(0, r), Math.max(0, g == null ? r : g), Math.max(0, b == null ? r : b));
    }

    private static String picture(ObjText t) {
        Matcher m = PICTURE.matcher(t.rest());
        return m.matches() ? m.group(2) : null;
    }
}
