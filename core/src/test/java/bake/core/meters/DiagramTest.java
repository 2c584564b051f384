package bake.core.meters;

import bake.core.compiled.RenderScene;
import bake.core.work.Workers;
import static bake.core.TestScene.grey;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.TestScene;
import bake.core.film.Film;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Shapes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DiagramTest {
    private static final int N = 60;

    private static float[][] draw(RenderScene s, Diagram.Kind kind) {
        Film f = Film.merged(N, N, s.lights().groups().size());
        Camera c = Camera.of(new Vec3(0, 0, 4), new Vec3(0, 0, 0), 36);
        try (Workers w = new Workers(2)) {
            Diagram d = new Diagram(s, kind, c, f, w);
            for (int p = 0; p < 16; p++) assertTrue(d.pass(p, w, () -> false));
            assertEquals(16L * N * N, d.rays());
        }
        float[][] out = new float[N * N][3];
        for (int i = 0; i < N * N; i++) f.mean(i % N, i / N, null, out[i]);
        return out;
    }

    /** A square of two triangles shows its rim and its diagonal, and nothing in between; an instance of it the same. */
    @Test
    void edges() {
        for (boolean instances : new boolean[] {false, true}) {
            TestScene s = new TestScene();
            Mesh q = Shapes.quad("q", 2, 2, s.material(Material.diffuse("m", grey(0.5))));
            s.add(q);
            if (instances) for (int i = 0; i < 3; i++) s.add(q, Affine.translation(0, 0, -10 - i));
            float[][] p = draw(s.compile(), Diagram.Kind.EDGES);
            // The square spans the middle half of the picture.
            float inside = p[(N / 2 - 9) * N + N / 2 + 3][0], other = p[(N / 2 + 9) * N + N / 2 - 3][0], rim = p[30 * N + 15][0],
                    diagonal = Math.min(p[30 * N + 30][0], p[30 * N + 29][0]);
            assertEquals(inside, other, 0.02 * inside);
            assertTrue(diagonal < 0.5 * inside, diagonal + " of " + inside);
            assertTrue(rim < 0.8 * inside, rim + " of " + inside);
        }
    }

    /** Each material has one colour of its own, whatever it reflects. */
    @Test
    void materials() {
        TestScene s = new TestScene();
        int a = s.material(Material.diffuse("a", grey(0.5))), b = s.material(Material.diffuse("b", grey(0.5)));
        s.add(Shapes.quad("a", 1, 2, a), Affine.translation(-0.5, 0, 0)).add(Shapes.quad("b", 1, 2, b), Affine.translation(0.5, 0, 0));
        float[][] p = draw(s.compile(), Diagram.Kind.MATERIALS);
        float[] left = p[30 * N + 20], left2 = p[20 * N + 25], right = p[30 * N + 40];
        double same = 0, apart = 0;
        for (int k = 0; k < 3; k++) {
            same += Math.abs(left[k] - left2[k]) / left[k];
            apart += Math.abs(left[k] - right[k]) / left[k];
        }
        assertTrue(same < 0.1 && apart > 0.3, same + " " + apart);
    }

    /** A floor four metres off, as shares of white: half as bright as near by, turned up, its own colour; around it nothing. */
    @ParameterizedTest
    @CsvSource({"DEPTH, 0.5, 0.5, 0.5, 0", "NORMALS, 0.25, 0.25, 1, 0.67", "COLOURS, 0.6, 0.3, 0.1, 0.67"})
    void floor(Diagram.Kind kind, double r, double g, double b, double around) {
        TestScene s = new TestScene();
        s.add(Shapes.quad("floor", 2, 2, s.material(Material.diffuse("paint", new Vec3(0.6, 0.3, 0.1)))));
        float[][] p = draw(s.compile(), kind);
        double white = Camera.of(new Vec3(0, 0, 4), new Vec3(0, 0, 0), 36).saturation();
        double[] asked = {r, g, b};
        for (int c = 0; c < 3; c++) assertEquals(asked[c], p[N / 2 * N + N / 2][c] / white, 0.01, kind + " " + c);
        assertEquals(around, p[0][0] / white, 0.01);
    }
}
