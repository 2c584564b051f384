package bake.studio.first;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.compiled.Lens;
import bake.core.compiled.RenderScene;
import bake.core.math.Vec3;
import bake.core.work.Workers;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a newcomer sees of a model file that says nothing about how it is to be looked at. */
class FirstViewsTest {
    @TempDir
    private Path dir;
    private final StringBuilder obj = new StringBuilder("mtllib m.mtl\n");
    private int vertices;

    /** A box with its faces outwards, z up, as an object of its own. */
    private void box(String name, String material, double x0, double y0, double z0, double x1, double y1, double z1) {
        double[][] c = {{x0, y0, z0}, {x1, y0, z0}, {x1, y1, z0}, {x0, y1, z0}, {x0, y0, z1}, {x1, y0, z1}, {x1, y1, z1}, {x0, y1, z1}};
        obj.append("o ").append(name).append("\nusemtl ").append(material).append('\n');
        for (double[] p : c) obj.append(String.format(Locale.ROOT, "v %g %g %g\n", p[0], p[2], -p[1]));
        for (int[] f : new int[][] {{0, 3, 2, 1}, {4, 5, 6, 7}, {0, 1, 5, 4}, {1, 2, 6, 5}, {2, 3, 7, 6}, {3, 0, 4, 7}}) {
            obj.append('f');
            for (int k : f) obj.append(' ').append(vertices + k + 1);
            obj.append('\n');
        }
        vertices += 8;
    }

    private void room(boolean window) {
        box("floor", "wood", 0, 0, -0.2, 6, 5, 0);
        box("ceiling", "white", 0, 0, 2.8, 6, 5, 3);
        box("west", "white", -0.2, -0.2, -0.2, 0, 5.2, 3);
        box("east", "white", 6, -0.2, -0.2, 6.2, 5.2, 3);
        box("south", "white", 0, -0.2, -0.2, 6, 0, 3);
        if (window) {
            box("sill", "white", 0, 5, -0.2, 6, 5.2, 0.9);
            box("lintel", "white", 0, 5, 2.3, 6, 5.2, 3);
        } else box("north", "white", 0, 5, -0.2, 6, 5.2, 3);
        box("table", "wood", 2, 2, 0.7, 4, 3, 0.75);
        box("sofa", "black", 0.2, 0.5, 0, 1, 3, 0.5);
    }

    private Project imported() throws IOException {
        Files.writeString(dir.resolve("m.mtl"), "newmtl white\nKd 0.8 0.8 0.8\nnewmtl wood\nKd 0.45 0.3 0.18\nnewmtl black\nKd 0.05 0.05 0.05\n");
        Files.writeString(dir.resolve("m.obj"), obj);
        return ProjectFile.read(NewProject.create(dir.resolve("m.obj"), dir.resolve("p")).file());
    }

    /** The whole model is in the picture with air around it. */
    private static void framed(View v, double... corners) {
        Lens lens = new Lens(v.camera().camera(), v.size()[0], v.size()[1]);
        double left = 1, right = 0, top = 1, bottom = 0;
        for (int i = 0; i < 8; i++) {
            double[] at = lens.project(corners[i & 1], corners[2 + (i >> 1 & 1)], corners[4 + (i >> 2)]);
            left = Math.min(left, at[0]);
            right = Math.max(right, at[0]);
            top = Math.min(top, at[1]);
            bottom = Math.max(bottom, at[1]);
        }
        assertTrue(left > 0.06 && right < 0.94 && top > 0.06 && bottom < 0.94, left + " to " + right + ", " + top + " to " + bottom);
        assertTrue(right - left > 0.55 || bottom - top > 0.55, "nor is it lost in it: " + (right - left) + " by " + (bottom - top));
    }

    /** Mean display level of a view, 0 to 1, and share of its pixels that are at white. */
    private double[] levels(Project p, View v) throws IOException {
        SceneAssembly a = new SceneAssembly(dir.resolve("p"));
        RenderScene s = RenderScene.compile(a.scene(p, v), Workers.COMPILING);
        Preset test = Preset.of("t", 1, "test", v.setting(), 80, 0, 0, 12, 10, 0, false);
        try (Workers w = new Workers(2)) {
            RenderJob j = new RenderJob(s, new RenderJob.Order(v.name(), v.camera().camera(), v.look(), test, 80, 45, null, 1, false), w);
            j.run(g -> {});
            int[] argb = j.finish().argb(j.film(), null);
            double sum = 0, white = 0;
            for (int c : argb) {
                sum += ((c >> 16 & 255) + (c >> 8 & 255) + (c & 255)) / 765.0 / argb.length;
                if ((c & 0xffffff) == 0xffffff) white += 1.0 / argb.length;
            }
            return new double[] {sum, white};
        }
    }

    @Test
    void aSolidIsSeenWholeOnAGroundThatCatchesItsShadow() throws IOException {
        box("cube", "white", 0, 0, 0, 2, 2, 2);
        Project p = imported();
        assertEquals(1, p.views().size(), "within a solid there is no room");
        View v = p.views().getFirst();
        assertEquals("exterior", v.setting());
        framed(v, 0, 2, 0, 2, 0, 2);
        assertTrue(p.materials().getFirst().catcher());
        assertTrue(p.shapes().getFirst().center()[2] <= 0 && p.shapes().getFirst().center()[2] > -0.01, "just under the model");
        double[] l = levels(p, v);
        assertTrue(l[0] > 0.35 && l[0] < 0.75 && l[1] < 0.01, "white in full sun is neither grey nor burnt: " + l[0] + ", " + l[1]);
    }

    @Test
    void aDarkThingIsExposedForTheSameLight() throws IOException {
        box("cube", "white", 0, 0, 0, 2, 2, 2);
        double white = imported().views().getFirst().camera().camera().ev100();
        obj.setLength(0);
        vertices = 0;
        obj.append("mtllib m.mtl\n");
        box("cube", "black", 0, 0, 0, 2, 2, 2);
        try (var all = Files.walk(dir.resolve("p"))) {
            all.sorted(java.util.Comparator.reverseOrder()).forEach(f -> f.toFile().delete());
        }
        assertEquals(white, imported().views().getFirst().camera().camera().ev100(), 0.8, "EV");
    }

    @Test
    void ofAFurnishedRoomTheRoomComesFirst() throws IOException {
        room(true);
        Project p = imported();
        assertEquals(List.of("interior", "exterior"), p.views().stream().map(View::setting).toList());
        Vec3 eye = p.views().getFirst().camera().camera().position();
        assertTrue(eye.x() > 0 && eye.x() < 6 && eye.y() > 0 && eye.y() < 5 && eye.z() > 1 && eye.z() < 2, eye.toString());
        double[] l = levels(p, p.views().getFirst());
        assertTrue(l[0] > 0.3 && l[0] < 0.9, "daylight that comes in: " + l[0]);
        assertEquals(List.of(), p.lamps());
        framed(p.views().getLast(), -0.2, 6.2, -0.2, 5.2, -0.2, 3);
    }

    @Test
    void aRoomWithoutLightGetsALamp() throws IOException {
        room(false);
        Project p = imported();
        assertEquals("interior", p.views().getFirst().setting());
        assertEquals(1, p.lamps().size());
        double[] l = levels(p, p.views().getFirst());
        assertTrue(l[0] > 0.3 && l[0] < 0.9, "lit by its lamp: " + l[0]);
    }

    /** A plot as thin as a sheet is a ground; a house of walls without anything in it is looked at from outside. */
    @Test
    void aModelOnItsOwnGroundGetsNoOther() throws IOException {
        box("plot", "wood", -30, -30, -0.02, 40, 40, 0);
        box("house", "white", 0, 0, 0, 10, 7, 5);
        Project p = imported();
        assertEquals(List.of(), p.shapes());
        assertEquals(List.of("exterior"), p.views().stream().map(View::setting).toList());
        framed(p.views().getFirst(), -30, 40, -30, 40, -0.02, 5);
    }

    @Test
    void whatStandsTallGetsAStandingPicture() throws IOException {
        box("tower", "white", 0, 0, 0, 12, 12, 60);
        View v = imported().views().getFirst();
        assertTrue(v.size()[0] < v.size()[1]);
        framed(v, 0, 12, 0, 12, 0, 60);
        assertFalse(v.camera().camera().position().z() < 0, "nobody stands in the earth");
    }
}
