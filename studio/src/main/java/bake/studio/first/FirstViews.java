package bake.studio.first;

import bake.core.compiled.RenderScene;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.work.Workers;
import bake.formats.model.ImportedModel;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.scene.SceneAssembly;
import bake.studio.scene.SunPosition;
import java.io.IOException;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;

/**
 * Gives a project that has only its models its first views: those of the file's own cameras, or one of the whole model and one of its best
 * room, the one that shows more first; each exposed by measuring, and with a ground to stand on.
 */
public final class FirstViews {
    private static final String DATE = "2027-06-21", MORNING = "10:30";
    private static final double HAZE = 2.5, USUAL_EV = 14;
    /** Below this exposure a room has no light worth the name, EV; a lamp that lights it then, lumens. */
    private static final double DARK = 0.5, LUMENS = 3000;
    /** Outdoors, how many stops a picture may be exposed more than open ground asks for. */
    private static final double SHADE = 0.7;
    private static final int MOST_MEASURED = 12, SIDES = 8;
    /** How many more things a look from high above has to show to be the better one, and the share of a picture that counts. */
    private static final double MANY_MORE = 1.3, TRACE = 0.004;
    /** A model that shows little but its rooms is one of rooms (tried on the same). */
    private static final double MOSTLY_ROOM = 0.3;

    private final SceneAssembly assembly;
    private final BooleanSupplier stop;
    private Project project;
    private RenderScene scene;
    private Survey survey;
    private Extent model;

    private FirstViews(SceneAssembly assembly, Project project, BooleanSupplier stop) {
        this.assembly = assembly;
        this.project = project;
        this.stop = stop;
    }

    /**
     * The project with views, and with a ground and a lamp where they are needed.
     *
     * @param project without views, shapes and materials of its own
     * @param stop when it says true, what was found so far is returned
     */
    public static Project of(SceneAssembly assembly, Project project, ImportedModel model, BooleanSupplier stop) throws IOException {
        return new FirstViews(assembly, project, stop).made(model);
    }

    private Project made(ImportedModel imported) throws IOException {
        compile(view("", Camera.of(Vec3.ZERO, Vec3.UP, 35), MORNING, false));
        survey = new Survey(scene);
        model = Extent.of(scene.scene());
        double ground = groundHeight(imported);
        boolean own = Ground.own(survey, model);
        List<View> views = new ArrayList<>();
        try (Workers workers = new Workers(Runtime.getRuntime().availableProcessors())) {
            if (imported.cameras().isEmpty()) chosen(views, ground, workers);
            else given(views, imported, workers);
        }
        boolean outside = views.stream().anyMatch(v -> v.setting().equals("exterior"));
        project = project.withViews(List.copyOf(views));
        return outside && !own ? Ground.laid(project, model, ground) : project;
    }

    private void compile(View v) throws IOException {
        scene = RenderScene.compile(assembly.scene(project, v), scene, Workers.COMPILING, HierarchyCache.shared());
    }

    /** Building information models count heights from the ground floor: what lies deeper than a slab is in the earth. */
    private double groundHeight(ImportedModel m) {
        boolean cellar = m.name().toLowerCase(java.util.Locale.ROOT).endsWith(".ifc") && model.low() < -1 && -model.low() < 0.5 * model.height();
        return cellar ? -0.15 : model.low();
    }

    /** The file's own cameras, as they are. */
    private void given(List<View> out, ImportedModel m, Workers workers) throws IOException {
        Map<String, Double> known = new java.util.HashMap<>();
        for (ImportedModel.NamedCamera c : m.cameras()) {
            boolean inside = survey.enclosed(c.camera().position()) >= Rooms.CLOSED;
            View v = view(c.name(), c.camera(), MORNING, inside);
            // The picture has the shape that the file gives it, at the usual width.
            if (c.aspect() > 0) v = v.withSize(v.size()[0], Math.max(1, (int) Math.round(v.size()[0] / c.aspect())));
            Double ev = out.size() < MOST_MEASURED ? measured(v, workers) : known.get(v.setting());
            if (ev != null) known.put(v.setting(), ev);
            out.add(exposed(v, ev));
        }
    }

    private void chosen(List<View> out, double ground, Workers workers) throws IOException {
        Framing framing = new Framing(model, ground);
        Side side = side(framing);
        Rooms rooms = new Rooms(scene, survey, model);
        Camera room = stop.getAsBoolean() ? null : rooms.best();
        int[] size = framing.size();
        View outside = view("Whole", side.camera, time(side.azimuth), false).withSize(size[0], size[1]);
        View inside = room == null ? null : view("Room", room, MORNING, true);
        boolean roomFirst = inside != null && alone(side.camera, rooms.things()) <= MOSTLY_ROOM;
        if (roomFirst) out.add(lit(inside, workers));
        out.add(exposed(outside, measured(outside, workers)));
        if (inside != null && !roomFirst) out.add(lit(inside, workers));
    }

    /** Share of what is seen of the model from outside that no room shows: roofs, facades, gardens. */
    private double alone(Camera outside, Set<Long> inRooms) {
        double all = 0, alone = 0;
        for (Map.Entry<Long, Double> e : survey.things(outside).entrySet()) {
            all += e.getValue();
            if (!inRooms.contains(e.getKey())) alone += e.getValue();
        }
        return all > 0 ? alone / all : 1;
    }

    private record Side(Camera camera, double azimuth, double entropy) {}

    /** The side of the model that shows most; from higher up where it is flat, or open above. */
    private Side side(Framing framing) {
        double flat = model.flatness();
        double gentle = Math.toRadians(flat > 0.35 ? 9 : flat > 0.12 ? 17 : 32);
        int[] size = framing.size();
        Side best = null, high = null;
        for (int k = 0; k < SIDES; k++) {
            // Corners, a little more of one wall than of the other.
            double azimuth = Math.toRadians(90 * (k / 2) + (k % 2 == 0 ? 35 : 55));
            Side a = side(framing, azimuth, gentle, size), b = side(framing, azimuth, Math.toRadians(42), size);
            if (best == null || a.entropy > best.entropy) best = a;
            if (high == null || b.entropy > high.entropy) high = b;
        }
        return things(high) > MANY_MORE * things(best) ? high : best;
    }

    private long things(Side s) {
        return survey.things(s.camera).values().stream().filter(share -> share > TRACE).count();
    }

    private Side side(Framing framing, double azimuth, double elevation, int[] size) {
        Camera c = framing.from(azimuth, elevation, size[0] / (double) size[1]);
        // A side that the sun never reaches has to show clearly more.
        double sunny = Double.isNaN(sunBeside(azimuth, null)) ? 0.8 : 1;
        return new Side(c, azimuth, survey.look(c).entropy() * sunny);
    }

    /** When the sun stands beside the camera, so that one wall is lit and the other in shade. */
    private String time(double azimuth) {
        String[] at = {MORNING};
        sunBeside(azimuth, at);
        return at[0];
    }

    private double sunBeside(double azimuth, String[] time) {
        double compass = 90 - Math.toDegrees(azimuth) + project.place().north(), least = 70, best = Double.NaN;
        for (int minutes = 7 * 60; minutes <= 19 * 60; minutes += 30) {
            String t = LocalTime.ofSecondOfDay(60L * minutes).toString();
            SunPosition.Angles sun;
            try {
                sun = SunPosition.at(project.place(), SunPosition.moment(project.place(), View.Around.sunAndSky(DATE, t, HAZE)));
            } catch (IOException e) {
                return Double.NaN;
            }
            if (sun.height() < 30) continue;
            double beside = Math.abs(Math.IEEEremainder(sun.azimuth() - compass, 360)), off = Math.abs(beside - 40);
            if (off >= least) continue;
            least = off;
            best = beside;
            if (time != null) time[0] = t;
        }
        return best;
    }

    /** A room with its exposure, and with a lamp where no light comes in. */
    private View lit(View v, Workers workers) throws IOException {
        Double ev = measured(v, workers);
        if (!stop.getAsBoolean() && (ev == null || ev < DARK)) {
            Vec3 eye = v.camera().camera().position(), to = v.camera().camera().target(), along = to.minus(eye).normalized();
            Vec3 p = eye.plus(along.times(Math.min(2.5, survey.free(eye, along) / 2)));
            double up = survey.free(p, Vec3.UP);
            p = p.plus(Vec3.UP.times(Math.max(0, up - 0.25)));
            project = project.withLamps(List.of(LampSpec.of("Room lamp", null, "sphere", new double[] {p.x(), p.y(), p.z()}, null)
                    .withDiameter(Math.min(0.2, up)).withLumens(LUMENS).withKelvin(4000.0)));
            ev = measured(v, workers);
        }
        return exposed(v, ev);
    }

    /** Exposure by measuring, or null where there is nothing to measure. */
    private Double measured(View v, Workers workers) throws IOException {
        if (stop.getAsBoolean()) return null;
        compile(v);
        double ev = Metering.ev(scene, v.camera().camera(), v.size(), workers, stop);
        // A wall in the shade is not to wash out the sunny ground that it stands on.
        if (v.setting().equals("exterior")) {
            double open = Metering.open(scene, model.middle().plus(Vec3.UP.times(model.diagonal())));
            ev = Double.isNaN(ev) ? open : Math.max(ev, open - SHADE);
        }
        return Double.isNaN(ev) ? null : ev;
    }

    private static View exposed(View v, Double ev) {
        // In steps that a camera has: thirds of a stop.
        return v.withCamera(v.camera().camera().withEv(ev == null ? USUAL_EV : Math.round(3 * ev) / 3.0));
    }

    private static View view(String name, Camera c, String time, boolean inside) {
        return new View(name, inside ? "interior" : "exterior", View.CameraSpec.of(c), View.Around.sunAndSky(DATE, time, HAZE), null, "film",
                null, Map.of(), List.of(), Map.of(), List.of(), Map.of());
    }
}
