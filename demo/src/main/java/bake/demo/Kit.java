package bake.demo;

import bake.core.math.Affine;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Texture;
import java.util.ArrayList;
import java.util.List;

/** The growing model: meshes, placements, materials and textures, by name. */
final class Kit {
    static final List<String> LAYERS = List.of("Shell", "Joinery", "Shelves and books", "Furniture", "Lamps", "Curtains", "Court",
            "Planting", "Far");

    final List<Mesh> meshes = new ArrayList<>();
    final List<Instance> instances = new ArrayList<>();
    final List<Material> materials = new ArrayList<>();
    final List<Texture> textures = new ArrayList<>();

    int texture(Texture t) {
        textures.add(t);
        return textures.size() - 1;
    }

    void material(Material m) {
        materials.add(m);
    }

    int material(String name) {
        for (int i = 0; i < materials.size(); i++) if (materials.get(i).name().equals(name)) return i;
        throw new IllegalArgumentException("no material " + name);
    }

    /** Adds a mesh and returns its number, without placing it. */
    int mesh(String name, String material, MeshBuilder b) {
        meshes.add(b.build(name, material(material)));
        return meshes.size() - 1;
    }

    void place(String name, int mesh, String layer, Affine a) {
        instances.add(new Instance(name, mesh, a, layer(layer)));
    }

    /** Adds a mesh and places it once, as it is. */
    void add(String layer, String name, String material, MeshBuilder b) {
        if (!b.empty()) place(name, mesh(name, material, b), layer, Affine.IDENTITY);
    }

    static int layer(String name) {
        int i = LAYERS.indexOf(name);
        if (i < 0) throw new IllegalArgumentException("no layer " + name);
        return i;
    }
}
