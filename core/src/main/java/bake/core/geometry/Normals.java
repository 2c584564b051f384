package bake.core.geometry;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Mesh;

/** Vertex normals in world space. A zero normal tells the shading that the triangle is flat. */
final class Normals {
    private Normals() {}

    /** Writes the normals of the vertices from {@code v0} on; meshes without normals get zeros. */
    static void fill(Mesh m, Affine toWorld, float[] out, int v0) {
        float[] n = m.normals();
        if (n == null) return;
        Affine inv = toWorld.equals(Affine.IDENTITY) ? toWorld : toWorld.inverse();
        for (int i = 0; i < n.length; i += 3) {
            // Normals follow the inverse transpose.
            double x = n[i], y = n[i + 1], z = n[i + 2];
            Vec3 w = new Vec3(
                    inv.m00() * x + inv.m10() * y + inv.m20() * z,
                    inv.m01() * x + inv.m11() * y + inv.m21() * z,
                    inv.m02() * x + inv.m12() * y + inv.m22() * z).normalized();
            out[3 * v0 + i] = (float) w.x();
            out[3 * v0 + i + 1] = (float) w.y();
            out[3 * v0 + i + 2] = (float) w.z();
        }
    }
}
