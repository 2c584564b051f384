package bake.formats.model;

import bake.core.scene.Mesh;
import java.util.Arrays;

/** Makes a mesh of a part of an OBJ file: corners that are alike become one vertex. */
final class ObjMesh {
    private ObjMesh() {}

    /** @param far what is taken off all places */
    static Mesh of(ObjParts.Part p, ObjParts obj, double[] far, int material) {
        int n = p.corners.n / 3;
        int[] c = p.corners.a, indices = new int[n], first = new int[n];
        int vertices = join(c, n, indices, first);
        boolean uv = false, normals = true, colours = obj.colours.n > 0;
        for (int i = 0; i < n; i++) {
            uv |= c[3 * i + 1] >= 0;
            normals &= c[3 * i + 2] >= 0;
        }
        float[] xyz = new float[3 * vertices], st = uv ? new float[2 * vertices] : null, nrm = normals ? new float[3 * vertices] : null,
                rgb = colours ? new float[3 * vertices] : null;
        for (int v = 0; v < vertices; v++) {
            int at = 3 * first[v], place = c[at], t = c[at + 1], k = c[at + 2];
            for (int d = 0; d < 3; d++) {
                xyz[3 * v + d] = (float) (obj.places.a[3 * place + d] - far[d]);
                if (normals) nrm[3 * v + d] = value(obj.normals.a[3 * k + d]);
                if (colours) rgb[3 * v + d] = 3 * place + d < obj.colours.n ? (float) obj.colours.a[3 * place + d] : 1;
            }
            // The format counts v from the bottom.
            if (uv) st[2 * v] = t < 0 ? 0 : value(obj.uvs.a[2 * t]);
            if (uv) st[2 * v + 1] = t < 0 ? 0 : 1 - value(obj.uvs.a[2 * t + 1]);
        }
        Mesh m = new Mesh(p.group, xyz, nrm, st, indices, material);
        return colours ? m.withColours(rgb) : m;
    }

    private static float value(double v) {
        return Double.isNaN(v) ? 0 : (float) v;
    }

    /**
     * Gives corners with the same three numbers the same vertex.
     *
     * @param vertex of each corner
     * @param first corner of each vertex
     * @return how many vertices there are
     */
    private static int join(int[] c, int n, int[] vertex, int[] first) {
        int size = Integer.highestOneBit(Math.max(8, n)) * 4, count = 0;
        int[] table = new int[size];
        Arrays.fill(table, -1);
        for (int i = 0; i < n; i++) {
            int a = c[3 * i], b = c[3 * i + 1], d = c[3 * i + 2];
            int h = (a * 0x9E3779B1 ^ b * 0x85EBCA77 ^ d * 0xC2B2AE3D);
            h ^= h >>> 15;
            int slot = h & size - 1;
            while (table[slot] >= 0) {
                int k = 3 * first[table[slot]];
                if (c[k] == a && c[k + 1] == b && c[k + 2] == d) break;
                slot = slot + 1 & size - 1;
            }
            if (table[slot] < 0) {
                table[slot] = count;
                first[count++] = i;
            }
            vertex[i] = table[slot];
        }
        return count;
    }
}
