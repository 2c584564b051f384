package bake.core.scene;

/**
 * Triangles of one material in object space.
 *
 * @param positions x, y, z for each vertex, metres, length 3 V, all finite
 * @param normals unit normals, length 3 V, or null for flat shading
 * @param uvs texture coordinates, length 2 V, or null
 * @param colours linear colours that the base colour is multiplied by, length 3 V, each 0 to 1, or null for white
 * @param indices three vertex numbers for each triangle, each in [0, V)
 * @param material index into the scene's materials
 */
public record Mesh(String name, float[] positions, float[] normals, float[] uvs, float[] colours, int[] indices, int material) {
    public Mesh {
        if (positions.length % 3 != 0 || indices.length % 3 != 0)
            throw new IllegalArgumentException("mesh " + name + ": positions and indices come in threes");
        if (normals != null && normals.length != positions.length)
            throw new IllegalArgumentException("mesh " + name + ": one normal per vertex is needed");
        if (uvs != null && uvs.length / 2 != positions.length / 3)
            throw new IllegalArgumentException("mesh " + name + ": one texture coordinate per vertex is needed");
        if (colours != null && colours.length != positions.length)
            throw new IllegalArgumentException("mesh " + name + ": one colour per vertex is needed");
        int n = positions.length / 3;
        for (int i : indices)
            if (i < 0 || i >= n)
                throw new IllegalArgumentException("mesh " + name + ": vertex " + i + " of " + n + " does not exist");
    }

    public Mesh(String name, float[] positions, float[] normals, float[] uvs, int[] indices, int material) {
        this(name, positions, normals, uvs, null, indices, material);
    }

    public int triangles() {
        return indices.length / 3;
    }

    public Mesh withMaterial(int m) {
        return new Mesh(name, positions, normals, uvs, colours, indices, m);
    }

    public Mesh withColours(float[] c) {
        return new Mesh(name, positions, normals, uvs, c, indices, material);
    }
}
