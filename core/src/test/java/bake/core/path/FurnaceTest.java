package bake.core.path;

import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;

import bake.core.TestScene;
import bake.core.math.PathSampler;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** White furnace: under uniform luminance L a surface of albedo a shows a L; one that absorbs nothing vanishes. */
class FurnaceTest {
    /** Mean luminance of a sphere seen under uniform surroundings of one. */
    private static double[] sphere(Material m) {
        TestScene s = new TestScene().around(1);
        // Flat facets: bent vertex normals lose light at the rim, which is not the surface model's doing.
        Mesh ball = Shapes.sphere("ball", 1, 64, s.material(m));
        s.add(new Mesh("ball", ball.positions(), null, null, ball.indices(), ball.material()));
        PathTracer t = new PathTracer(s.compile(), 400, 0);
        PathSampler random = new PathSampler();
        float[] out = new float[t.channels()];
        double sum = 0, square = 0;
        int n = 64, batches = 16;
        for (int b = 0; b < batches; b++) {
            double mean = 0;
            for (int i = 0; i < n; i++)
                for (int j = 0; j < n; j++) {
                    java.util.Arrays.fill(out, 0);
                    random.start(i, j, b, 5);
                    random.next2();
                    float x = ((i + random.u) / n * 2 - 1) * 0.7f, y = ((j + random.v) / n * 2 - 1) * 0.7f;
                    t.radiance(x, y, 5, 0, 0, -1, random, out);
                    mean += out[3 * 1 + 1] / (n * n);
                }
            sum += mean / batches;
            square += mean * mean / batches;
        }
        return new double[] {sum, Math.sqrt(Math.max(0, square - sum * sum) / (batches - 1))};
    }

    @ParameterizedTest
    @CsvSource({"0.2", "0.5", "0.8", "1.0"})
    void matt(double albedo) {
        double[] r = sphere(Material.diffuse("matt", grey(albedo)));
        assertEquals(albedo, r[0], 0.005 * albedo + 3 * r[1]);
    }

    /** Matt under gloss keeps all energy when the body is white, at every roughness. */
    @ParameterizedTest
    @CsvSource({"0", "0.1", "0.3", "0.6", "1.0"})
    void glossOverWhite(double roughness) {
        double[] r = sphere(Material.glossy("gloss", grey(1), roughness));
        assertEquals(1, r[0], 0.005 + 3 * r[1]);
    }

    @ParameterizedTest
    @CsvSource({"0", "0.05", "0.3", "0.6", "1.0"})
    void whiteMetal(double roughness) {
        double[] r = sphere(Material.metal("metal", grey(1), roughness));
        assertEquals(1, r[0], 0.005 + 3 * r[1]);
    }

    /** A translucent sheet shares its albedo between the two sides and loses nothing. */
    @ParameterizedTest
    @CsvSource({"0.3", "0.7"})
    void translucent(double share) {
        double[] r = sphere(Material.diffuse("leaf", grey(1)).withTranslucency(share));
        assertEquals(1, r[0], 0.005 + 3 * r[1]);
    }

    /**
     * Glass absorbs nothing, however rough it is; at the very roughest the table of what one bounce keeps is 3 % short after all crossings
     * of the ball.
     */
    @ParameterizedTest
    @CsvSource({"0, 1.5, 0.01", "0.1, 1.5, 0.01", "0.3, 1.5, 0.01", "0.6, 1.5, 0.01", "1, 1.5, 0.035", "0.5, 1.15, 0.01", "0.5, 2.4, 0.01"})
    void solidGlass(double roughness, double ior, double loss) {
        double[] r = sphere(Material.glass("glass", grey(1), roughness, ior, false));
        assertEquals(1, r[0], loss + 3 * r[1]);
    }

    /** A pane neither adds nor removes light under uniform surroundings. */
    @ParameterizedTest
    @CsvSource({"1.3", "1.52", "1.9"})
    void pane(double ior) {
        double[] r = sphere(Material.glass("pane", grey(1), 0, ior, true));
        assertEquals(1, r[0], 0.005 + 3 * r[1]);
    }

    /** A clear coat over white, polished or not, gives back what it lets through. */
    @ParameterizedTest
    @CsvSource({"0", "0.2", "0.7"})
    void coatOverWhite(double roughness) {
        double[] r = sphere(Material.diffuse("coated", grey(1)).withLayers(bake.core.scene.Layers.NONE.withCoat(1, roughness)));
        assertEquals(1, r[0], 0.006 + 3 * r[1]);
    }
}
