package bake.core.compiled;

import bake.core.geometry.BlasStore;
import bake.core.geometry.Geometry;
import bake.core.geometry.LampShapes;
import bake.core.geometry.ScalarTracer;
import bake.core.geometry.Tracer;
import bake.core.light.LightTable;
import bake.core.light.Openings;
import bake.core.light.Surround;
import bake.core.math.PathSampler;
import bake.core.outlook.Scenery;
import bake.core.scene.Scene;
import bake.core.surface.SurfaceTable;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.ForkJoinTask;

/**
 * A scene compiled to flat arrays, immutable and shared by all threads.
 *
 * @param scene what it was compiled from
 */
public record RenderScene(
        Scene scene, Geometry geometry, SurfaceTable surfaces, Surround surround, LightTable lights, Tracer tracer,
        Openings openings, Scenery scenery) {

    public static RenderScene compile(Scene scene, ForkJoinPool pool) {
        return compile(scene, null, pool, BlasStore.NONE);
    }

    /**
     * Compiles a scene, taking over from {@code before} (or null) every part whose description is the same object.
     *
     * @throws IllegalArgumentException when an instance cannot be placed
     */
    public static RenderScene compile(Scene scene, RenderScene before, ForkJoinPool pool) {
        return compile(scene, before, pool, BlasStore.NONE);
    }

    /**
     * The same, looking for hierarchies in a store first.
     */
    public static RenderScene compile(Scene scene, RenderScene before, ForkJoinPool pool, BlasStore store) {
        Scene old = before == null ? null : before.scene;
        boolean sameShape = old != null && old.meshes() == scene.meshes() && old.instances() == scene.instances();
        boolean sameLook = old != null && old.materials() == scene.materials() && old.textures() == scene.textures();
        boolean sameSky = old != null && old.surroundings().equals(scene.surroundings());
        // The sky's table and the hierarchy do not need each other.
        ForkJoinTask<Surround> sky = sameSky ? null
                : pool.submit(() -> Surround.of(scene.surroundings()));
        // So do the tables of the gloss.
        if (before == null) {
            pool.execute(SurfaceTable::prepare);
            pool.execute(PathSampler::prepare);
        }
        Geometry geometry = sameShape ? before.geometry : new Geometry(scene.meshes(), scene.instances(), pool, store);
        SurfaceTable surfaces = sameLook ? before.surfaces : new SurfaceTable(scene.materials(), scene.textures(),
                before == null ? null : before.surfaces);
        Surround around = sameSky ? before.surround : sky.join();
        Scenery scenery = Scenery.of(scene.outlook(), around, scene.catches(), before == null ? 1.5 : before.scenery.aspect(),
                before == null ? null : before.scenery);
        LightTable lights = new LightTable(around, scene.lamps(), geometry, surfaces, scenery.apart());
        Tracer tracer = Tracer.of(geometry, new LampShapes(scene.lamps()), surfaces, pool);
        Openings openings = sameShape && sameLook && old.portals().equals(scene.portals()) ? before.openings
                : Openings.find(scene.portals(), geometry, surfaces, pool);
        return new RenderScene(scene, geometry, surfaces, around, lights, tracer, openings, scenery);
    }

    /** This scene with other openings; the light is the same, only how it is found is not. */
    public RenderScene with(Openings o) {
        return new RenderScene(scene, geometry, surfaces, surround, lights, tracer, o, scenery);
    }

    /**
     * This scene with the tracer that is quick from its first ray on. The vector kernel is faster, but only once it has
     * been compiled, which takes a second or two of rays after the start of the process.
     */
    public RenderScene quickToStart(ForkJoinPool pool) {
        return new RenderScene(scene, geometry, surfaces, surround, lights, new ScalarTracer(geometry, tracer.lamps(), surfaces, pool),
                openings, scenery);
    }
}
