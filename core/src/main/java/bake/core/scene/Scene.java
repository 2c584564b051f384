package bake.core.scene;

import bake.core.math.Vec3;
import java.util.List;
import java.util.Map;

/**
 * What the artist described, ready to compile; {@code levels} are factors on the light of source groups, named as in the light table. Immutable: an edit makes a new value that shares the lists it did
 * not change, and compiling looks at that sharing to redo only what is new.
 */
public record Scene(
        List<Mesh> meshes, List<Instance> instances, List<Material> materials, List<Texture> textures,
        List<Lamp> lamps, Surroundings surroundings, List<Portal> portals, Map<String, Vec3> levels) {

    /** A scene without portals. */
    public Scene(List<Mesh> meshes, List<Instance> instances, List<Material> materials, List<Texture> textures, List<Lamp> lamps, Surroundings surroundings) {
        this(meshes, instances, materials, textures, lamps, surroundings, List.of(), Map.of());
    }

    public Scene withSurroundings(Surroundings s) {
        return new Scene(meshes, instances, materials, textures, lamps, s, portals, levels);
    }

    public Scene withLamps(List<Lamp> l) {
        return new Scene(meshes, instances, materials, textures, l, surroundings, portals, levels);
    }

    public Scene withInstances(List<Instance> i) {
        return new Scene(meshes, i, materials, textures, lamps, surroundings, portals, levels);
    }

    public Scene withPortals(List<Portal> p) {
        return new Scene(meshes, instances, materials, textures, lamps, surroundings, p, levels);
    }

    /** The same with the light of source groups, by their names, multiplied by a factor for each colour. */
    public Scene withLevels(Map<String, Vec3> l) {
        return new Scene(meshes, instances, materials, textures, lamps, surroundings, portals, l);
    }

    /** Triangles of the placed instances, each instance counted. */
    public long placedTriangles() {
        long n = 0;
        for (Instance i : instances) n += meshes.get(i.mesh()).triangles();
        return n;
    }
}
