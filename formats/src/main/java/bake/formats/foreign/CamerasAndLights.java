package bake.formats.foreign;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.Lamp;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.lwjgl.assimp.AICamera;
import org.lwjgl.assimp.AIColor3D;
import org.lwjgl.assimp.AILight;
import org.lwjgl.assimp.AIScene;
import org.lwjgl.assimp.AIVector3D;
import org.lwjgl.assimp.Assimp;

/**
 * Cameras and lights of what the native library has read. These formats give lights no unit: each becomes a lamp with the lumens of an
 * ordinary one, which is said.
 */
final class CamerasAndLights {
    private static final double ORDINARY = 800;
    /** No lens for buildings is as narrow, radians. */
    private static final double NARROW = 0.03;
    private final AIScene scene;
    private final List<Finding> findings;
    /** Where nodes stand, by name. */
    private final Map<String, Affine> nodes = new HashMap<>();

    CamerasAndLights(AIScene scene, List<Finding> findings) {
        this.scene = scene;
        this.findings = findings;
    }

    void at(String node, Affine world) {
        nodes.putIfAbsent(node, world);
    }

    List<ImportedModel.NamedCamera> cameras() {
        List<ImportedModel.NamedCamera> out = new ArrayList<>();
        for (int i = 0; i < scene.mNumCameras(); i++) {
            AICamera c = AICamera.create(scene.mCameras().get(i));
            String name = c.mName().dataString();
            Affine world = nodes.get(name);
            double fov = c.mHorizontalFOV(), aspect = c.mAspect();
            if (fov > 0 && fov < NARROW) {
                // The library leaves out some ways to write it.
                findings.add(new Finding(Finding.Kind.NOT_READ, name, "the camera's angle; 45 degrees were taken"));
                fov = Math.PI / 4;
            }
            if (world == null || !(fov > 0.01 && fov < 3.1) || c.mOrthographicWidth() > 0) {
                findings.add(new Finding(Finding.Kind.NOT_READ, name, "the camera has no perspective or no place; left out"));
                continue;
            }
            Vec3 at = world.point(vec(c.mPosition())), look = world.vector(vec(c.mLookAt()));
            if (!at.isFinite() || !(look.length() > 1e-9)) continue;
            Camera k = Camera.of(at, at.plus(look.normalized().times(4)), Camera.SENSOR_WIDTH / (2 * Math.tan(fov / 2)))
                    .withShift(false, 0, 0);
            out.add(new ImportedModel.NamedCamera(name, k, aspect > 0.05 && aspect < 20 ? aspect : 0));
        }
        return out;
    }

    List<Lamp> lamps() {
        List<Lamp> out = new ArrayList<>();
        for (int i = 0; i < scene.mNumLights(); i++) {
            AILight l = AILight.create(scene.mLights().get(i));
            String name = l.mName().dataString();
            Affine world = nodes.get(name);
            boolean spot = l.mType() == Assimp.aiLightSource_SPOT, point = l.mType() == Assimp.aiLightSource_POINT
                    || l.mType() == Assimp.aiLightSource_AREA;
            if (world == null || !spot && !point) {
                findings.add(new Finding(Finding.Kind.NOT_READ, name, l.mType() == Assimp.aiLightSource_DIRECTIONAL
                        ? "directional lights are left out; set the sun instead" : "the light is of no kind that is read"));
                continue;
            }
            AIColor3D d = l.mColorDiffuse();
            Vec3 colour = new Vec3(Math.max(0, d.r()), Math.max(0, d.g()), Math.max(0, d.b()));
            if (!(colour.luminance() > 0) || !colour.isFinite()) colour = new Vec3(1, 1, 1);
            Vec3 at = world.point(vec(l.mPosition())), along = world.vector(vec(l.mDirection()));
            if (!at.isFinite()) continue;
            if (!(along.length() > 1e-9)) along = new Vec3(0, 0, -1);
            double field = Math.clamp(Math.toDegrees(l.mAngleOuterCone()), 1, 180),
                    beam = Math.clamp(Math.toDegrees(l.mAngleInnerCone()), 0, field);
            out.add(new Lamp(name, "Imported lamps", spot ? Lamp.Kind.SPOT : Lamp.Kind.POINT, Affine.pointing(at, along), 0, 0, ORDINARY,
                    colour.times(1 / colour.luminance()), beam, field, true, false));
        }
        if (!out.isEmpty()) findings.add(new Finding(Finding.Kind.UNITS, out.size() == 1 ? out.getFirst().name() : out.size() + " lamps",
                "the file gives its lights no unit; each has " + (int) ORDINARY + " lm"));
        return out;
    }

    private static Vec3 vec(AIVector3D v) {
        return new Vec3(v.x(), v.y(), v.z());
    }
}
