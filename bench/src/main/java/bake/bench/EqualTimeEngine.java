package bake.bench;

import bake.core.compiled.RenderScene;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.ToneCurve;
import bake.core.path.PathSettings;
import bake.core.render.Renderer;
import bake.core.work.Workers;
import bake.demo.DemoProject;
import bake.formats.project.View;
import bake.studio.project.ProjectSession;
import bake.studio.scene.SceneAssembly;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.function.Function;
import java.util.stream.Collectors;

/** One engine's picture of a demo view in the making; asked by {@link EqualTime}, which may know another version of it. */
public final class EqualTimeEngine implements Function<String, Object> {
    private static ProjectSession session;
    private static SceneAssembly assembly;
    private static Workers workers;
    private static String compiled;
    private static RenderScene scene;

    private View view;
    private Renderer renderer;
    private Film film;
    private int next;
    private int height;

    public EqualTimeEngine(String name, int width, long seed) throws Exception {
        if (session == null) {
            Path folder = DemoProject.ensure(Files.createTempDirectory("bake-bench").resolve("demo"), LocalDate.of(2026, 11, 1));
            session = ProjectSession.open(Files.isDirectory(folder) ? folder.resolve("project.json") : folder);
            assembly = new SceneAssembly(session.folder());
            workers = new Workers(2);
        }
        if (name.isEmpty()) return;
        view = session.project().view(name);
        height = width * view.size()[1] / view.size()[0];
        if (!name.equals(compiled)) scene = RenderScene.compile(assembly.scene(session.project(), view), Workers.COMPILING);
        compiled = name;
        restart(width, seed);
    }

    private void restart(int width, long seed) {
        film = Film.merged(width, height, scene.lights().groups().size());
        renderer = new Renderer(scene, view.camera().camera(), new PathSettings(10, 20, seed), film, Region.all(width, height), workers);
    }

    @Override
    public Object apply(String ask) {
        switch (ask) {
            case "views" -> {
                return session.project().views().stream().map(View::name).collect(Collectors.joining("\n"));
            }
            case "warm" -> {
                Film f = Film.merged(film.width(), height, scene.lights().groups().size());
                new Renderer(scene, view.camera().camera(), new PathSettings(10, 20, 99), f, Region.all(f.width(), height), workers)
                        .pass(0, workers, () -> false);
                return null;
            }
            case "pass" -> {
                long t = System.nanoTime();
                renderer.pass(next++, workers, () -> false);
                return (System.nanoTime() - t) / 1e9;
            }
            default -> {
                float[] out = new float[film.width() * height], rgb = new float[3];
                double gain = 1 / view.camera().camera().saturation();
                for (int i = 0; i < out.length; i++) {
                    film.mean(i % film.width(), i / film.width(), null, rgb);
                    double l = 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
                    out[i] = (float) (ask.equals("displayed") ? ToneCurve.FILM.apply(l * gain) : l);
                }
                return out;
            }
        }
    }
}
