package bake.core.geometry;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Mesh;
import java.util.List;
import java.util.concurrent.ForkJoinPool;
import java.util.stream.IntStream;

/**
 * The triangles of one mesh (or of many merged ones) with their hierarchy, in packets of four in leaf order. A triangle's
 * number is four times its packet plus its place there; places that hold nothing have material -1.
 *
 * @param packets {@link #STRIDE} floats a packet: x, y and z of four first vertices, of the second and of the third ones, four
 *     floats each. Whole vertices and not edges, so that triangles which share one have it alike to the bit
 * @param vertices three vertex numbers a triangle, into {@code normals}, {@code uvs} and {@code colours}
 * @param normals unit vertex normals, three floats each
 * @param uvs texture coordinates, two floats each
 * @param colours linear vertex colours, three floats each; empty where all are white
 * @param materials material number of each triangle
 * @param sources number of the scene instance that each triangle came from, -1 where instances share it
 * @param triangles how many there are
 */
public record Blas(Bvh bvh, float[] packets, int[] vertices, float[] normals, float[] uvs, float[] colours, int[] materials, int[] sources,
        int triangles) {

    static final int PACKET = 4, STRIDE = 36;
    /** Room in boxes around their triangles, as a share of the largest coordinate. */
    static final float ROOM = 0x1p-21f;

    /** Places for triangles; those with material -1 are empty. */
    public int places() {
        return materials.length;
    }

    /** Where {@link #packets} holds the first vertex' x of a triangle; the eight other numbers follow in steps of four. */
    public static int first(int prim) {
        return STRIDE * (prim >> 2) + (prim & 3);
    }

    /** Coordinate {@code axis} of corner 0 to 2 of a triangle, in the mesh's space. */
    public float corner(int prim, int corner, int axis) {
        return packets[first(prim) + 12 * corner + 4 * axis];
    }

    /** The same of the edge from the first corner to corner 1 or 2. */
    public float edge(int prim, int corner, int axis) {
        int o = first(prim) + 4 * axis;
        return packets[o + 12 * corner] - packets[o];
    }

    /** Bytes held by the arrays. */
    public long bytes() {
        return bvh.bytes() + 4L * (packets.length + vertices.length + normals.length + uvs.length + colours.length + materials.length
                + sources.length);
    }

    /** Whether every number leads to something that is there, so that a ray's walk ends. */
    boolean isSound() {
        int places = places(), n = bvh.nodes().length, v = normals.length / 3;
        if (n == 0 || n % Bvh.STRIDE != 0 || packets.length != 9 * places || vertices.length != 3 * places || places % PACKET != 0
                || uvs.length / 2 < v || colours.length > 0 && colours.length < 3 * v) return false;
        for (int i = 0; i < n; i += Bvh.STRIDE)
            for (int k = 0; k < Bvh.WIDTH; k++) {
                int c = bvh.child(i, k);
                // A child comes after its parent, which rules out circles.
                if (c != Bvh.NOTHING && (c >= 0 ? c <= i || c >= n || c % Bvh.STRIDE != 0 : ~c >= places / PACKET)) return false;
            }
        for (int x : vertices) if (x < 0 || x >= Math.max(1, v)) return false;
        return true;
    }

    static Blas of(Mesh mesh, ForkJoinPool pool) {
        return merge(List.of(mesh), List.of(new Instance(mesh.name(), 0, Affine.IDENTITY, 0)), new int[] {-1}, pool);
    }

    /** Brings instances into world space and builds one hierarchy over all of them. */
    static Blas merge(List<Mesh> meshes, List<Instance> instances, int[] source, ForkJoinPool pool) {
        int count = instances.size();
        int[] v0 = new int[count + 1], t0 = new int[count + 1];
        for (int k = 0; k < count; k++) {
            Mesh m = meshes.get(instances.get(k).mesh());
            v0[k + 1] = v0[k] + m.positions().length / 3;
            t0[k + 1] = t0[k] + m.triangles();
        }
        boolean coloured = instances.stream().anyMatch(i -> meshes.get(i.mesh()).colours() != null);
        Soup s = new Soup(v0[count], t0[count], coloured);
        IntStream.range(0, count).parallel()
                .forEach(k -> s.add(meshes.get(instances.get(k).mesh()), instances.get(k).toWorld(), v0[k], t0[k], source[k]));
        return s.build(pool);
    }

    /** Triangles in any order, before their hierarchy is built. */
    private static final class Soup {
        private final float[] pos, nrm, uv, col, boxes;
        private final int[] idx, mat, src;

        Soup(int vertices, int triangles, boolean coloured) {
            pos = new float[3 * vertices];
            nrm = new float[3 * vertices];
            uv = new float[2 * vertices];
            col = new float[coloured ? 3 * vertices : 0];
            java.util.Arrays.fill(col, 1);
            idx = new int[3 * triangles];
            mat = new int[triangles];
            src = new int[triangles];
            boxes = new float[6 * triangles];
        }

        void add(Mesh m, Affine toWorld, int v0, int t0, int source) {
            boolean mirrored = toWorld.determinant() < 0;
            transform(m, toWorld, 3 * v0);
            Normals.fill(m, toWorld, nrm, v0);
            if (m.uvs() != null) System.arraycopy(m.uvs(), 0, uv, 2 * v0, m.uvs().length);
            if (m.colours() != null) System.arraycopy(m.colours(), 0, col, 3 * v0, m.colours().length);
            for (int t = 0; t < m.triangles(); t++) {
                int o = 3 * (t0 + t);
                idx[o] = v0 + m.indices()[3 * t];
                idx[o + 1] = v0 + m.indices()[3 * t + (mirrored ? 2 : 1)];
                idx[o + 2] = v0 + m.indices()[3 * t + (mirrored ? 1 : 2)];
                mat[t0 + t] = m.material();
                src[t0 + t] = source;
                box(t0 + t);
            }
        }

        private void transform(Mesh m, Affine a, int at) {
            float[] p = m.positions();
            if (a.equals(Affine.IDENTITY)) {
                System.arraycopy(p, 0, pos, at, p.length);
                return;
            }
            for (int i = 0; i < p.length; i += 3) {
                Vec3 q = a.point(new Vec3(p[i], p[i + 1], p[i + 2]));
                pos[at + i] = (float) q.x();
                pos[at + i + 1] = (float) q.y();
                pos[at + i + 2] = (float) q.z();
            }
        }

        private void box(int t) {
            for (int k = 0; k < 3; k++) {
                float a = pos[3 * idx[3 * t] + k], b = pos[3 * idx[3 * t + 1] + k], c = pos[3 * idx[3 * t + 2] + k];
                boxes[6 * t + k] = a < b ? (a < c ? a : c) : b < c ? b : c;
                boxes[6 * t + 3 + k] = a > b ? (a > c ? a : c) : b > c ? b : c;
            }
        }

        /**
         * Triangles are met where their corners lie once rounded as seen from the ray, a hair beside their place: boxes leave room for
         * that.
         */
        private void pad() {
            float most = 0;
            for (float x : boxes) most = Math.max(most, Math.abs(x));
            float room = most * ROOM;
            IntStream.range(0, boxes.length / 6).parallel().forEach(t -> {
                for (int k = 0; k < 3; k++) {
                    boxes[6 * t + k] -= room;
                    boxes[6 * t + 3 + k] += room;
                }
            });
        }

        Blas build(ForkJoinPool pool) {
            pad();
            Bvh bvh = BvhBuilder.build(boxes, PACKET, pool);
            int places = bvh.order().length;
            float[] packets = new float[9 * places];
            int[] vertices = new int[3 * places], materials = new int[places], sources = new int[places];
            IntStream.range(0, (places + 16_383) >> 14).parallel().forEach(part -> {
                for (int i = part << 14; i < Math.min(places, (part + 1) << 14); i++)
                    place(bvh.order()[i], i, packets, vertices, materials, sources);
            });
            return new Blas(new Bvh(bvh.nodes(), new int[0], PACKET, bvh.bounds()), packets, vertices, nrm, uv, col, materials, sources,
                    mat.length);
        }

        /** An empty place keeps corners that are one, which nothing meets. */
        private void place(int t, int at, float[] packets, int[] vertices, int[] materials, int[] sources) {
            materials[at] = sources[at] = -1;
            if (t < 0) return;
            materials[at] = mat[t];
            sources[at] = src[t];
            System.arraycopy(idx, 3 * t, vertices, 3 * at, 3);
            int o = first(at);
            for (int k = 0; k < 3; k++) {
                for (int corner = 0; corner < 3; corner++) packets[o + 12 * corner + 4 * k] = pos[3 * idx[3 * t + corner] + k];
            }
        }
    }
}
