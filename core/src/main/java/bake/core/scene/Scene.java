package bake.core.scene;

import java.util.List;

/**
 * What the artist described, ready to compile. Immutable: an edit makes a new value that shares the lists it did
 * not change, and compiling looks at that sharing to redo only what is new.
 */
public record Scene(
        List<Mesh> meshes, List<Instance> instances, List<Material> materials, List<Texture> textures,
        List<Lamp> lamps, Surroundings surroundings) {

    public Scene withSurroundings(Surroundings s) {
        return new Scene(meshes, instances, materials, textures, lamps, s);
    }

    public Scene withLamps(List<Lamp> l) {
        return new Scene(meshes, instances, materials, textures, l, surroundings);
    }

    public Scene withInstances(List<Instance> i) {
        return new Scene(meshes, i, materials, textures, lamps, surroundings);
    }

    /** Triangles of the placed instances, each instance counted. */
    public long placedTriangles() {
        long n = 0;
        for (Instance i : instances) n += meshes.get(i.mesh()).triangles();
        return n;
    }
}
