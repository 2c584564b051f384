package bake.formats.foreign;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.math.Vec3;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.scene.Camera;
import bake.core.scene.Scene;
import bake.core.scene.Surroundings;
import bake.core.work.Workers;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One house in five formats is one house: the same picture, block by block, within noise. */
class OneHouseTest {
    private static final int WIDTH = 64, HEIGHT = 36, BLOCK = 12, PASSES = 48;

    @TempDir
    private Path dir;

    /** Luminances of blocks of 12 x 12 pixels, cd/m2. */
    private static double[] picture(ImportedModel m) {
        Scene s = new Scene(m.meshes(), m.instances(), m.materials(), m.textures(), m.lamps(),
                new Surroundings.SunSky(new Vec3(0.5, -0.6, 0.62).normalized(), 2.5, 0, 0, 0.533, 0.2, true, false));
        RenderScene r = RenderScene.compile(s, Workers.COMPILING);
        Film film = Film.merged(WIDTH, HEIGHT, r.lights().groups().size());
        try (Workers w = new Workers(2)) {
            Renderer render = new Renderer(r, Camera.of(new Vec3(12, -11, 4), new Vec3(4, 3, 1.2), 35), new PathSettings(8, 0, 1), film,
                    Region.all(WIDTH, HEIGHT), w);
            for (int k = 0; k < PASSES; k++) render.pass(k, w, () -> false);
        }
        double[] out = new double[WIDTH * HEIGHT / BLOCK / BLOCK + 2];
        float[] c = new float[3];
        for (int y = 0; y < HEIGHT; y++)
            for (int x = 0; x < WIDTH / BLOCK * BLOCK; x++) {
                film.mean(x, y, null, c);
                out[y / BLOCK * (WIDTH / BLOCK) + x / BLOCK] += (0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2]) / BLOCK / BLOCK;
            }
        return out;
    }

    @Test
    void rendersAlikeInFiveFormats() throws IOException {
        double[] first = null;
        for (Path f : OneHouse.write(dir)) {
            ImportedModel m = ModelReader.read(f, f.toString().endsWith(".obj") ? 1.0 : null, null, null);
            assertEquals(12 * OneHouse.PARTS.size(), m.placedTriangles(), f + ": triangles");
            Set<String> names = m.materials().stream().map(x -> x.name()).collect(Collectors.toSet());
            assertTrue(names.containsAll(Set.of(OneHouse.MATERIALS)), f + ": " + names);
            assertEquals(OneHouse.PARTS.stream().map(OneHouse.Part::name).toList(), m.layers(), f + ": layers");
            double[] p = picture(m);
            if (first == null) first = p;
            for (int i = 0; i < p.length; i++) if (first[i] > 0) assertEquals(1, p[i] / first[i], 0.04, f.getFileName() + ", block " + i);
        }
    }
}
