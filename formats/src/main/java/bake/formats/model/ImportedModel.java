package bake.formats.model;

import bake.core.scene.Camera;
import bake.core.scene.Instance;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Texture;
import java.util.List;

/**
 * What a model file holds, in metres with z up.
 *
 * @param layers names that the instances' layer numbers refer to
 * @param cameras by name
 */
public record ImportedModel(
        String name, List<Mesh> meshes, List<Instance> instances, List<Material> materials, List<Texture> textures,
        List<String> layers, List<NamedCamera> cameras, List<Lamp> lamps, List<Finding> findings) {

    /**
     * A camera of the file.
     *
     * @param aspect width of its picture by its height; 0 where the file does not say
     */
    public record NamedCamera(String name, Camera camera, double aspect) {}

    public long uniqueTriangles() {
        return meshes.stream().mapToLong(Mesh::triangles).sum();
    }

    public long placedTriangles() {
        return instances.stream().mapToLong(i -> meshes.get(i.mesh()).triangles()).sum();
    }
}
