package bake.studio.scene;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotSame;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.math.Affine;
import bake.core.math.PathSampler;
import bake.core.math.Vec3;
import bake.core.path.PathTracer;
import bake.core.scene.Instance;
import bake.core.scene.Layers;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Scene;
import bake.core.scene.Shapes;
import bake.core.scene.Surroundings;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.studio.live.Showing;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.ForkJoinPool;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class MaterialLibraryTest {
    @TempDir
    Path dir;

    static Stream<String> names() {
        return MaterialLibrary.all().stream().map(MaterialLibrary.Entry::name);
    }

    /** Mean luminance of a faceted ball under surroundings of one. */
    private static double furnace(Material m) {
        Mesh ball = Shapes.sphere("ball", 1, 48, 0);
        Scene s = new Scene(List.of(new Mesh("ball", ball.positions(), null, null, ball.indices(), 0)),
                List.of(new Instance("ball", 0, Affine.IDENTITY, 0)), List.of(m), List.of(), List.of(),
                new Surroundings.Plain(new Vec3(1, 1, 1)));
        PathTracer t = new PathTracer(RenderScene.compile(s, ForkJoinPool.commonPool()), 400, 0);
        PathSampler random = new PathSampler();
        float[] out = new float[t.channels()];
        double sum = 0;
        int n = 48, passes = 8;
        for (int b = 0; b < passes; b++)
            for (int i = 0; i < n; i++)
                for (int j = 0; j < n; j++) {
                    java.util.Arrays.fill(out, 0);
                    random.start(i, j, b, 5);
                    random.next2();
                    t.radiance(((i + random.u) / n * 2 - 1) * 0.7f, ((j + random.v) / n * 2 - 1) * 0.7f, 5, 0, 0, -1, random, out);
                    sum += Math.max(out[3], Math.max(out[4], out[5])) / ((double) n * n * passes);
                }
        return sum;
    }

    /** White furnace: no shipped material gives more light than it gets, and one made white gives nearly all of it back. */
    @ParameterizedTest
    @MethodSource("names")
    void keepsEnergy(String name) throws FormatException {
        Material m = MaterialLibrary.named(name, "test");
        double own = furnace(m);
        assertTrue(own <= 1.012 && own >= 0.02, name + " gives " + own);
        Material white = new Material(m.name(), new Vec3(1, 1, 1), null, 1, Material.AlphaMode.OPAQUE, 0.5, m.metallic(), m.roughness(),
                null, null, 1, m.ior(), m.transmission(), m.thin(),
                m.translucency(), Vec3.ZERO, null, m.layers().withAttenuation(new Vec3(1, 1, 1), Double.POSITIVE_INFINITY), m.relief(),
                m.thrift(), m.catcher());
        double all = furnace(white);
        // What is lost is stated: rough glass between its facets, stretched gloss by the round one's energy, cloth below its fuzz.
        boolean loses = m.transmission() > 0 && m.roughness() > 0.2 || m.layers().anisotropy() > 0 || m.layers().sheen().luminance() > 0;
        assertEquals(1, all, loses ? 0.13 : 0.012, name + " made white");
    }

    @Test
    void allSayWhereTheyComeFrom() {
        assertTrue(MaterialLibrary.all().size() >= 30);
        for (MaterialLibrary.Entry e : MaterialLibrary.all()) assertTrue(e.source().length() > 10 && !e.group().isEmpty(), e.name());
        assertEquals(MaterialLibrary.all().size(), names().distinct().count());
        assertEquals(1, MaterialLibrary.all().stream().filter(e -> e.name().equals("oak, lacquered")).findFirst().orElseThrow().material()
                .layers().coat());
    }

    private Project project(String materials) throws IOException {
        Files.writeString(dir.resolve("project.json"), """
            {"bake": 1, "name": "m", "place": {"latitude": 48, "longitude": 11, "zone": "+01:00", "north": 0}, "materials": [%s],
             "shapes": [{"name": "a", "type": "box", "size": [1, 1, 1], "center": [0, 0, 0], "material": "a"}],
             "views": [{"name": "One", "camera": {"position": [0, -5, 2], "target": [0, 0, 1]}, "setting": "interior", "size": [64, 40], "around": {"kind": "plain", "luminance": [1, 1, 1]}}]}
            """.formatted(materials));
        return ProjectFile.read(dir.resolve("project.json"));
    }

    @Test
    void projectsStartFromIt() throws IOException {
        Project p = project("{\"name\": \"a\", \"from\": \"steel, brushed\", \"roughness\": 0.5, \"round\": 0.01}");
        SceneAssembly a = new SceneAssembly(dir);
        Scene s = a.scene(p, p.views().getFirst());
        Material m = s.materials().getFirst();
        assertEquals(1, m.metallic());
        assertEquals(0.5, m.roughness());
        assertEquals(0.7, m.layers().anisotropy());
        assertEquals(0.01, m.relief().round());
        // A change of material leaves meshes and places the same objects, so no hierarchy is built anew.
        Project q = p.withMaterials(List.of(Project.Surface.of("a", "oak, oiled")));
        Scene t = a.scene(q, q.views().getFirst());
        assertSame(s.meshes(), t.meshes());
        assertSame(s.instances(), t.instances());
        assertNotSame(s.materials(), t.materials());
        RenderScene before = RenderScene.compile(s, ForkJoinPool.commonPool()),
                after = RenderScene.compile(t, before, ForkJoinPool.commonPool());
        assertSame(before.geometry(), after.geometry());
        FormatException e = assertThrows(FormatException.class, () -> a.scene(p.withMaterials(List.of(Project.Surface.of("a", "oak"))),
                p.views().getFirst()));
        assertTrue(e.getMessage().contains("oak, lacquered"), e.getMessage());
        assertEquals("oak, oiled", ProjectFile.read(ProjectFile.toJson(q), "again").materials().getFirst().from(),
                "what is written is read back");
    }

    /** Clay keeps what is clear or glows, and cut-outs. */
    @Test
    void clay() {
        Material glass = Material.glass("g", new Vec3(1, 1, 1), 0, 1.5, true),
                steel = Material.metal("s", new Vec3(0.5, 0.5, 0.5), 0.2).withLayers(Layers.NONE.withCoat(1, 0));
        Material leaf = Material.diffuse("l", new Vec3(0.1, 0.4, 0.1)).withAlpha(1, Material.AlphaMode.MASK, 0.5).withTranslucency(0.4);
        List<Material> all = List.of(glass, steel, leaf), c = all.stream().map(MaterialLibrary::clay).toList();
        assertSame(glass, c.getFirst());
        assertEquals(0, c.get(1).metallic());
        assertEquals(Layers.NONE, c.get(1).layers());
        assertEquals(Material.AlphaMode.MASK, c.get(2).alphaMode());
    }

    /** Bumps and what is cut out are factors and limits on what the model has. */
    @Test
    void bumpsAndCutOuts() {
        Material leaf = Material.glossy("leaf", new Vec3(0.2, 0.4, 0.1), 0.5).withBaseImage(new Material.Image(0))
                .withNormalImage(new Material.Image(1), 0.8).withAlpha(1, Material.AlphaMode.BLEND, 0.5);
        leaf = leaf.withRelief(leaf.relief().withHeight(new Material.Image(2), 0.01));
        Project.Surface own = Project.Surface.of("leaf", null);
        Material same = MaterialLibrary.apply(leaf, own);
        assertEquals(leaf, same);
        Material rough = MaterialLibrary.apply(leaf, own.withBump(2.5).withCutOut(0.3));
        assertEquals(2, rough.normalScale(), 1e-12);
        assertEquals(0.025, rough.relief().heightMetres(), 1e-12);
        assertEquals(Material.AlphaMode.MASK, rough.alphaMode());
        assertEquals(0.3, rough.cutoff());
        assertEquals(Material.AlphaMode.OPAQUE, MaterialLibrary.apply(leaf, own.withCutOut(0.0)).alphaMode());
    }
}
