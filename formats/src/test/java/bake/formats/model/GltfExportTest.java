package bake.formats.model;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.Instance;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Shapes;
import bake.core.scene.Texture;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is exported is read back as it was. */
class GltfExportTest {
    @TempDir
    Path dir;

    private static ImportedModel model() {
        Material plain = Material.glossy("plaster", new Vec3(0.7, 0.6, 0.5), 0.4),
                glow = Material.glossy("sign", new Vec3(0.5, 0.5, 0.5), 0.5).withEmission(new Vec3(300, 150, 75));
        Texture t = new Texture("checks", 2, 2, new byte[] {10, 20, 30, -1, 40, 50, 60, -1, 70, 80, 90, -1, 100, 110, 120, -1}, true);
        Camera c = Camera.of(new Vec3(1, -5, 1.6), new Vec3(2, 0, 1), 35);
        Lamp spot = new Lamp("down", "L", Lamp.Kind.SPOT, Affine.pointing(new Vec3(1, 2, 3), new Vec3(0.2, 0, -1)), 0, 0, 700,
                new Vec3(1.2, 0.95, 0.6).times(1 / new Vec3(1.2, 0.95, 0.6).luminance()), 24, 48, true, false);
        Lamp ball = new Lamp("ball", "L", Lamp.Kind.SPHERE, Affine.translation(0, 0, 2), 0.2, 0.2, 800, new Vec3(1, 1, 1), 0, 0, true, false);
        return new ImportedModel("hut", List.of(Shapes.box("box", 0, 0, 0, 1, 2, 3, 0), Shapes.quad("quad", 2, 2, 1)),
                List.of(new Instance("one", 0, Affine.IDENTITY, 0), new Instance("two", 0, Affine.translation(4, 0, 0), 1),
                        new Instance("top", 1, Affine.translation(0, 0, 3), 1)),
                List.of(plain.withBaseImage(new Material.Image(0)), glow), List.of(t), List.of("Walls", "More"),
                List.of(new ImportedModel.NamedCamera("eye", c, 1.5)), List.of(spot, ball), List.of());
    }

    @Test
    void bothFormsComeBack() throws IOException {
        for (String name : new String[] {"a.glb", "a.gltf"}) {
            Path f = dir.resolve(name);
            ImportedModel m = model();
            if (name.endsWith("glb")) GlbFile.write(f, m);
            else GltfWriter.write(f, m);
            ImportedModel b = ModelReader.read(f, null, null);
            assertEquals(List.of(), b.findings(), name);
            assertEquals(m.placedTriangles(), b.placedTriangles());
            assertEquals(m.uniqueTriangles(), b.uniqueTriangles());
            assertEquals(300, b.materials().stream().filter(x -> x.name().equals("sign")).findFirst().orElseThrow().emission().x(), 1e-3);
            assertEquals(110, b.textures().getFirst().rgba()[13] & 255);
            assertEquals(List.of("Walls", "More"), b.layers());
            ImportedModel.NamedCamera c = b.cameras().getFirst();
            assertEquals(1.5, c.aspect(), 1e-6);
            assertEquals(35, c.camera().focal(), 1e-3);
            Vec3 was = new Vec3(1, 5, -0.6).normalized(), is = c.camera().target().minus(c.camera().position()).normalized();
            assertEquals(1, was.dot(is), 1e-5);
            assertEquals(0, c.camera().position().minus(new Vec3(1, -5, 1.6)).length(), 1e-5);
            Lamp spot = b.lamps().stream().filter(l -> l.kind() == Lamp.Kind.SPOT).findFirst().orElseThrow();
            assertEquals(m.lamps().getFirst().candela(), spot.candela(), 0.02 * spot.candela());
            assertEquals(48, spot.fieldDegrees(), 0.05);
            assertEquals(1, spot.frame().vector(new Vec3(0, 0, 1)).dot(new Vec3(0.2, 0, -1).normalized()), 1e-5);
            Lamp ball = b.lamps().stream().filter(l -> l.kind() == Lamp.Kind.POINT).findFirst().orElseThrow();
            assertEquals(800, ball.lumens(), 1);
            assertEquals(2, ball.position().z(), 1e-5);
        }
    }
}
