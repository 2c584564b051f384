package bake.core.geometry;

import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import java.util.List;
import java.util.concurrent.ForkJoinPool;

/**
 * The triangles of one mesh (or of many merged ones) with their hierarchy, all in leaf order.
 *
 * @param wide the same hierarchy eight boxes a node, or null where vectors are missing
 * @param corners nine floats a triangle: first vertex, edge to the second, edge to the third
 * @param vertices three vertex numbers a triangle, into {@code normals} and {@code uvs}
 * @param normals unit vertex normals, three floats each
 * @param uvs texture coordinates, two floats each
 * @param materials material number of each triangle
 * @param sources number of the scene instance that each triangle came from, -1 where instances share it
 */
public record Blas(Bvh bvh, WideBvh wide, float[] corners, int[] vertices, float[] normals, float[] uvs, int[] materials, int[] sources) {

    private static final int MAX_LEAF = 4;

    public int triangles() {
        return materials.length;
    }

    /** Bytes held by the arrays. */
    public long bytes() {
        return (wide == null ? 0 : wide.bytes()) + 4L * (bvh.boxes().length + bvh.children().length + corners.length + vertices.length + normals.length
                + uvs.length + materials.length + sources.length);
    }

    static Blas of(Mesh mesh, ForkJoinPool pool) {
        return merge(List.of(mesh), List.of(new Instance(mesh.name(), 0, Affine.IDENTITY, 0)), new int[] {-1}, pool);
    }

    /** Brings instances into world space and builds one hierarchy over all of them. */
    static Blas merge(List<Mesh> meshes, List<Instance> instances, int[] source, ForkJoinPool pool) {
        int nv = 0, nt = 0;
        for (Instance i : instances) {
            nv += meshes.get(i.mesh()).positions().length / 3;
            nt += meshes.get(i.mesh()).triangles();
        }
        float[] pos = new float[3 * nv], nrm = new float[3 * nv], uv = new float[2 * nv];
        int[] idx = new int[3 * nt], mat = new int[nt], src = new int[nt];
        int v0 = 0, t0 = 0;
        for (int k = 0; k < instances.size(); k++) {
            Instance inst = instances.get(k);
            Mesh m = meshes.get(inst.mesh());
            int n = m.positions().length / 3;
            boolean mirrored = inst.toWorld().determinant() < 0;
            transform(m, inst.toWorld(), pos, 3 * v0);
            if (m.uvs() != null) System.arraycopy(m.uvs(), 0, uv, 2 * v0, 2 * n);
            for (int t = 0; t < m.triangles(); t++) {
                idx[3 * (t0 + t)] = v0 + m.indices()[3 * t];
                idx[3 * (t0 + t) + 1] = v0 + m.indices()[3 * t + (mirrored ? 2 : 1)];
                idx[3 * (t0 + t) + 2] = v0 + m.indices()[3 * t + (mirrored ? 1 : 2)];
                mat[t0 + t] = m.material();
                src[t0 + t] = source[k];
            }
            Normals.fill(m, inst.toWorld(), nrm, v0);
            v0 += n;
            t0 += m.triangles();
        }
        return build(pos, nrm, uv, idx, mat, src, pool);
    }

    private static void transform(Mesh m, Affine a, float[] out, int at) {
        float[] p = m.positions();
        if (a.equals(Affine.IDENTITY)) {
            System.arraycopy(p, 0, out, at, p.length);
            return;
        }
        for (int i = 0; i < p.length; i += 3) {
            Vec3 q = a.point(new Vec3(p[i], p[i + 1], p[i + 2]));
            out[at + i] = (float) q.x();
            out[at + i + 1] = (float) q.y();
            out[at + i + 2] = (float) q.z();
        }
    }

    private static Blas build(float[] pos, float[] nrm, float[] uv, int[] idx, int[] mat, int[] src, ForkJoinPool pool) {
        int nt = mat.length;
        float[] boxes = new float[6 * nt];
        for (int t = 0; t < nt; t++)
            for (int k = 0; k < 3; k++) {
                float a = pos[3 * idx[3 * t] + k], b = pos[3 * idx[3 * t + 1] + k], c = pos[3 * idx[3 * t + 2] + k];
                boxes[6 * t + k] = Math.min(a, Math.min(b, c));
                boxes[6 * t + 3 + k] = Math.max(a, Math.max(b, c));
            }
        Bvh bvh = BvhBuilder.build(boxes, MAX_LEAF, pool);
        float[] corners = new float[9 * nt];
        int[] vertices = new int[3 * nt], materials = new int[nt], sources = new int[nt];
        for (int i = 0; i < nt; i++) {
            int t = bvh.order()[i];
            materials[i] = mat[t];
            sources[i] = src[t];
            for (int c = 0; c < 3; c++) vertices[3 * i + c] = idx[3 * t + c];
            for (int k = 0; k < 3; k++) {
                float a = pos[3 * idx[3 * t] + k];
                corners[9 * i + k] = a;
                corners[9 * i + 3 + k] = pos[3 * idx[3 * t + 1] + k] - a;
                corners[9 * i + 6 + k] = pos[3 * idx[3 * t + 2] + k] - a;
            }
        }
        return new Blas(bvh, WideBvh.AVAILABLE ? WideBvh.of(bvh) : null, corners, vertices, nrm, uv, materials, sources);
    }
}
