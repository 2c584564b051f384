package bake.core.scene;

import java.util.List;

/**
 * What the artist described, ready to compile. Immutable: an edit makes a new value that shares the lists it did
 * not change, and compiling looks at that sharing to redo only what is new.
 */
public record Scene(
        List<Mesh> meshes, List<Instance> instances, List<Material> materials, List<Texture> textures,
        List<Lamp> lamps, Surroundings surroundings, List<Portal> portals) {

    /** A scene without portals. */
    public Scene(List<Mesh> meshes, List<Instance> instances, List<Material> materials, List<Texture> textures, List<Lamp> lamps, Surroundings surroundings) {
        this(meshes, instances, materials, textures, lamps, surroundings, List.of());
    }

    public Scene withSurroundings(Surroundings s) {
        return new Scene(meshes, instances, materials, textures, lamps, s, portals);
    }

    public Scene withLamps(List<Lamp> l) {
        return new Scene(meshes, instances, materials, textures, l, surroundings, portals);
    }

    public Scene withInstances(List<Instance> i) {
        return new Scene(meshes, i, materials, textures, lamps, surroundings, portals);
    }

    public Scene withPortals(List<Portal> p) {
        return new Scene(meshes, instances, materials, textures, lamps, surroundings, p);
    }

    /** Triangles of the placed instances, each instance counted. */
    public long placedTriangles() {
        long n = 0;
        for (Instance i : instances) n += meshes.get(i.mesh()).triangles();
        return n;
    }
}
