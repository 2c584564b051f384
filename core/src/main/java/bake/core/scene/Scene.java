package bake.core.scene;

import bake.core.math.Vec3;
import java.util.List;
import java.util.Map;

/**
 * What the artist described, ready to compile; {@code levels} are factors on the light of source groups, named as in the light table,
 * {@code outlook} what is seen where that is not the light, {@code efforts} what is done for some surfaces beyond what is done for all,
 * {@code layers} the names that the numbers of instances' layers stand for, where they have any.
 * Immutable: an edit makes a new value that shares the lists it did
 * not change, and compiling looks at that sharing to redo only what is new.
 */
public record Scene(
        List<Mesh> meshes, List<Instance> instances, List<Material> materials, List<Texture> textures,
        List<Lamp> lamps, Surroundings surroundings, List<Portal> portals, Map<String, Vec3> levels, Outlook outlook,
        Effort.Table efforts, List<String> layers) {

    /** A scene without portals. */
    public Scene(List<Mesh> meshes, List<Instance> instances, List<Material> materials, List<Texture> textures, List<Lamp> lamps,
            Surroundings surroundings) {
        this(meshes, instances, materials, textures, lamps, surroundings, List.of(), Map.of(), Outlook.PLAIN, Effort.Table.NONE, List.of());
    }

    public Scene withSurroundings(Surroundings s) {
        return new Scene(meshes, instances, materials, textures, lamps, s, portals, levels, outlook, efforts, layers);
    }

    public Scene withLamps(List<Lamp> l) {
        return new Scene(meshes, instances, materials, textures, l, surroundings, portals, levels, outlook, efforts, layers);
    }

    public Scene withInstances(List<Instance> i) {
        return new Scene(meshes, i, materials, textures, lamps, surroundings, portals, levels, outlook, efforts, layers);
    }

    public Scene withPortals(List<Portal> p) {
        return new Scene(meshes, instances, materials, textures, lamps, surroundings, p, levels, outlook, efforts, layers);
    }

    /** The same with the light of source groups, by their names, multiplied by a factor for each colour. */
    public Scene withLevels(Map<String, Vec3> l) {
        return new Scene(meshes, instances, materials, textures, lamps, surroundings, portals, l, outlook, efforts, layers);
    }

    public Scene withOutlook(Outlook o) {
        return new Scene(meshes, instances, materials, textures, lamps, surroundings, portals, levels, o, efforts, layers);
    }

    /** The same with more or less done for some surfaces. */
    public Scene withEfforts(Effort.Table e) {
        return new Scene(meshes, instances, materials, textures, lamps, surroundings, portals, levels, outlook, e, layers);
    }

    public Scene withMaterials(List<Material> m) {
        return new Scene(meshes, instances, m, textures, lamps, surroundings, portals, levels, outlook, efforts, layers);
    }

    /** Whether a surface shows only the shadow and bounce it receives. */
    public boolean catches() {
        return materials.stream().anyMatch(Material::catcher);
    }

    /** Triangles of the placed instances, each instance counted. */
    public long placedTriangles() {
        long n = 0;
        for (Instance i : instances) n += meshes.get(i.mesh()).triangles();
        return n;
    }
}
