package bake.core;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Scene;
import bake.core.scene.Surroundings;
import bake.core.scene.Texture;
import bake.core.meters.LightMeter;
import bake.core.compiled.RenderScene;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ForkJoinPool;

/** Builds small scenes for checks. */
public final class TestScene {
    private final List<Mesh> meshes = new ArrayList<>();
    private final List<Instance> instances = new ArrayList<>();
    private final List<Material> materials = new ArrayList<>();
    private final List<Lamp> lamps = new ArrayList<>();
    private final List<Texture> textures = new ArrayList<>();
    private Surroundings surroundings = new Surroundings.Plain(Vec3.ZERO);

    public static Vec3 grey(double v) {
        return new Vec3(v, v, v);
    }

    public int material(Material m) {
        materials.add(m);
        return materials.size() - 1;
    }

    public int texture(Texture t) {
        textures.add(t);
        return textures.size() - 1;
    }

    public TestScene add(Mesh m) {
        return add(m, Affine.IDENTITY);
    }

    public TestScene add(Mesh m, Affine a) {
        meshes.add(m);
        instances.add(new Instance(m.name(), meshes.size() - 1, a, 0));
        return this;
    }

    public TestScene lamp(Lamp l) {
        lamps.add(l);
        return this;
    }

    public TestScene around(double luminance) {
        surroundings = new Surroundings.Plain(grey(luminance));
        return this;
    }

    public TestScene around(Surroundings s) {
        surroundings = s;
        return this;
    }

    public Scene scene() {
        return new Scene(List.copyOf(meshes), List.copyOf(instances), List.copyOf(materials), List.copyOf(textures), List.copyOf(lamps),
                surroundings);
    }

    public RenderScene compile() {
        return RenderScene.compile(scene(), ForkJoinPool.commonPool());
    }

    public LightMeter.Reading measure(Vec3 at, Vec3 normal, int samples) {
        return new LightMeter(compile(), 200).measure(at, normal, samples, 7, 0);
    }
}
