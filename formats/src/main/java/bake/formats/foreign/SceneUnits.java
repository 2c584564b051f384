package bake.formats.foreign;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.formats.model.Finding;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.lwjgl.assimp.AIMetaData;
import org.lwjgl.assimp.AIMetaDataEntry;
import org.lwjgl.assimp.AIScene;
import org.lwjgl.system.MemoryUtil;

/**
 * What turns a file's coordinates into metres with z up. FBX says it in its metadata, DAE and IFC in the transform of the root,
 * which the library has brought to y up; STL, PLY and 3DS do not say their unit.
 *
 * @param toBake of the root
 */
record SceneUnits(Affine toBake) {
    /** Extent that buildings and their parts have, metres (common practice, no source): tells the likely unit. */
    private static final double LEAST = 0.3, MOST = 2000;
    private static final Affine FROM_Y_UP = new Affine(1, 0, 0, 0, 0, 0, -1, 0, 0, 1, 0, 0);

    static SceneUnits of(AIScene scene, Path file, double given, char up, List<Finding> findings) {
        String name = file.getFileName().toString(), lower = name.toLowerCase(Locale.ROOT);
        double metres = given;
        boolean zUp = up == 'z';
        if (lower.endsWith(".fbx")) {
            if (given == 0) metres = number(scene, "UnitScaleFactor", 100) / 100;
            // The library turns the root of files that say z up, so that y points up in all.
            zUp &= (int) number(scene, "UpAxis", 1) != 2;
        } else if (lower.endsWith(".dae") || lower.endsWith(".ifc")) {
            if (given == 0) metres = 1;
        } else {
            if (up == '-') zUp = !lower.endsWith(".3ds"); // the library turns 3DS files to y up
            if (given == 0) {
                double extent = Extent.of(scene);
                metres = likely(extent);
                findings.add(new Finding(Finding.Kind.UNITS, name, String.format(Locale.ROOT,
                        "the file does not say its unit; %s fit its size of %.4g units. Set the unit if that is wrong", unitName(metres),
                        extent)));
            }
        }
        Affine scale = Affine.scale(metres, metres, metres);
        return new SceneUnits(zUp ? scale : FROM_Y_UP.times(scale));
    }

    private static double likely(double extent) {
        for (double m : new double[] {1, 0.001, 0.01}) if (extent * m >= LEAST && extent * m <= (m == 1 ? 200 : MOST)) return m;
        return extent > 200 ? 0.001 : 1;
    }

    private static String unitName(double m) {
        return m == 1 ? "metres" : m == 0.01 ? "centimetres" : "millimetres";
    }

    private static double number(AIScene scene, String key, double otherwise) {
        AIMetaData d = scene.mMetaData();
        if (d == null) return otherwise;
        for (int i = 0; i < d.mNumProperties(); i++) {
            if (!d.mKeys().get(i).dataString().equals(key)) continue;
            AIMetaDataEntry e = d.mValues().get(i);
            long at = MemoryUtil.memAddress(e.mData(1));
            return switch (e.mType()) {
                case org.lwjgl.assimp.Assimp.AI_INT32 -> MemoryUtil.memGetInt(at);
                case org.lwjgl.assimp.Assimp.AI_FLOAT -> MemoryUtil.memGetFloat(at);
                case org.lwjgl.assimp.Assimp.AI_DOUBLE -> MemoryUtil.memGetDouble(at);
                default -> otherwise;
            };
        }
        return otherwise;
    }

    /** Size of the file's largest mesh box, in its own units. */
    private static final class Extent {
        static double of(AIScene scene) {
            double most = 0;
            for (int i = 0; i < scene.mNumMeshes(); i++) {
                var v = org.lwjgl.assimp.AIMesh.create(scene.mMeshes().get(i)).mVertices();
                Vec3 lo = new Vec3(1e30, 1e30, 1e30), hi = new Vec3(-1e30, -1e30, -1e30);
                for (int k = 0; k < v.remaining(); k++) {
                    var p = v.get(k);
                    lo = new Vec3(Math.min(lo.x(), p.x()), Math.min(lo.y(), p.y()), Math.min(lo.z(), p.z()));
                    hi = new Vec3(Math.max(hi.x(), p.x()), Math.max(hi.y(), p.y()), Math.max(hi.z(), p.z()));
                }
                if (v.remaining() > 0) most = Math.max(most, hi.minus(lo).length());
            }
            return most;
        }
    }
}
