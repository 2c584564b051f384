package bake.formats.model;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;

/**
 * Cameras and lamps of a glTF file that is being written, as nodes below its first. The format knows neither lens shift nor lamps with a
 * size: cameras look straight, and lamps become points, or spots where they have a direction, with the intensity of their strongest.
 */
final class GltfSceneWriter {
    private static final String LIGHTS = "KHR_lights_punctual";

    private GltfSceneWriter() {}

    static void cameras(ObjectNode root, List<ImportedModel.NamedCamera> all) {
        if (all.isEmpty()) return;
        ArrayNode out = root.putArray("cameras");
        for (ImportedModel.NamedCamera c : all) {
            Camera k = c.camera();
            double aspect = c.aspect() > 0 ? c.aspect() : 16.0 / 9;
            node(root, c.name(), k.position(), k.target().minus(k.position())).put("camera", out.size());
            ObjectNode p = out.addObject().put("name", c.name()).put("type", "perspective").putObject("perspective")
                    .put("yfov", 2 * Math.atan(Camera.SENSOR_WIDTH / (2 * aspect * k.focal()))).put("znear", 0.01);
            if (c.aspect() > 0) p.put("aspectRatio", aspect);
        }
    }

    static void lamps(ObjectNode root, List<Lamp> all) {
        if (all.isEmpty()) return;
        ArrayNode out = root.withObjectProperty("extensions").putObject(LIGHTS).putArray("lights");
        root.withArrayProperty("extensionsUsed").add(LIGHTS);
        for (Lamp l : all) {
            boolean spot = l.kind() == Lamp.Kind.SPOT || l.kind() == Lamp.Kind.DISC || l.kind() == Lamp.Kind.RECTANGLE;
            node(root, l.name(), l.position(), l.frame().vector(new Vec3(0, 0, 1))).withObjectProperty("extensions").putObject(LIGHTS)
                    .put("light", out.size());
            ObjectNode n = out.addObject().put("name", l.name()).put("type", spot ? "spot" : "point").put("intensity", l.candela());
            // The format's colours are at most one.
            double most = Math.max(l.colour().x(), Math.max(l.colour().y(), l.colour().z()));
            Vec3 c = l.colour().times(1 / most);
            n.put("intensity", l.candela() * most);
            n.putArray("color").add(c.x()).add(c.y()).add(c.z());
            if (!spot) continue;
            boolean sharp = l.kind() == Lamp.Kind.SPOT;
            double outer = sharp ? Math.toRadians(Math.min(180, l.fieldDegrees()) / 2) : Math.PI / 2;
            n.putObject("spot").put("innerConeAngle", sharp ? Math.min(Math.toRadians(l.beamDegrees() / 2), outer - 1e-4) : 0)
                    .put("outerConeAngle", outer);
        }
    }

    /** A node that looks or shines along a direction; nodes of the format do so along their own -z. */
    private static ObjectNode node(ObjectNode root, String name, Vec3 at, Vec3 along) {
        ArrayNode nodes = (ArrayNode) root.get("nodes");
        ((ArrayNode) nodes.get(0).get("children")).add(nodes.size());
        ObjectNode n = nodes.addObject().put("name", name);
        Affine a = Affine.pointing(at, along.times(-1));
        double[] c = {a.m00(), a.m10(), a.m20(), 0, a.m01(), a.m11(), a.m21(), 0, a.m02(), a.m12(), a.m22(), 0, a.m03(), a.m13(),
            a.m23(), 1};
        ArrayNode matrix = n.putArray("matrix");
        for (double d : c) matrix.add((float) d);
        return n;
    }
}
