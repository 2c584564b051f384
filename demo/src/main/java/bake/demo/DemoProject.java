package bake.demo;

import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.formats.AtomicFile;
import bake.formats.model.GltfWriter;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;

/** Fernlow Library, the demo: an invented small library, made wholly by this code. */
public final class DemoProject {
    /** Raised when the model changes, so that an older copy on disk is made anew. */
    static final String EDITION = "1.2";

    private DemoProject() {}

    /** Folder where the demo lives: {@code BAKE_DEMO}, or a folder in the user's data. */
    public static Path home() {
        String set = System.getenv("BAKE_DEMO");
        if (set != null && !set.isBlank()) return Path.of(set);
        String data = System.getenv("XDG_DATA_HOME");
        Path base = data != null && !data.isBlank() ? Path.of(data) : Path.of(System.getProperty("user.home"), ".local", "share");
        return base.resolve("bake").resolve("Fernlow Library");
    }

    /** Makes the demo in {@code folder} if it is not there yet or of an older edition; what the user changed stays. */
    public static Path ensure(Path folder, LocalDate today) throws IOException {
        Path stamp = folder.resolve("model").resolve("edition.txt"), file = folder.resolve(ProjectFile.NAME);
        boolean current = Files.isRegularFile(stamp) && Files.readString(stamp).trim().equals(EDITION);
        if (current && Files.isRegularFile(file)) return file;
        Kit k = new Kit();
        List<LampSpec> lamps = model(k);
        Files.createDirectories(folder.resolve("model"));
        GltfWriter.write(folder.resolve("model").resolve("fernlow.gltf"), "Fernlow Library", k.meshes, k.instances, k.materials, k.textures,
                Kit.LAYERS);
        Panoramas.write(Files.createDirectories(folder.resolve("sky")));
        looks(folder.resolve("presets").resolve("looks"));
        if (!Files.isRegularFile(file)) ProjectFile.write(file, project(lamps, today));
        AtomicFile.write(stamp, o -> o.write(EDITION.getBytes(StandardCharsets.UTF_8)));
        return file;
    }

    /** Looks to try on its views; those that are there stay. */
    private static void looks(Path folder) throws IOException {
        for (String name : List.of("morning-paper", "lamp-evening", "silver-print", "ink-and-wash", "blue-hour")) {
            Path to = folder.resolve(name + ".v1.look.json");
            if (Files.exists(to)) continue;
            try (InputStream in = DemoProject.class.getResourceAsStream("looks/" + name + ".v1.look.json")) {
                AtomicFile.write(to, in::transferTo);
            }
        }
    }

    static List<LampSpec> model(Kit k) {
        Palette.fill(k);
        Room.build(k);
        Shelves.build(k);
        Furniture.build(k);
        List<LampSpec> lamps = Lamps.build(k);
        Court.build(k);
        Planting.build(k);
        return lamps;
    }

    /** The demo's project value, for a due date counted from {@code today}. */
    static Project project(List<LampSpec> lamps, LocalDate today) {
        LocalDate due = today;
        for (int days = 0; days < 2; ) {
            due = due.plusDays(1);
            if (due.getDayOfWeek() != DayOfWeek.SATURDAY && due.getDayOfWeek() != DayOfWeek.SUNDAY) days++;
        }
        return new Project(Project.VERSION, "Fernlow Library", due + "T12:00", new Project.Place(47.1, 8.9, "Europe/Zurich", 0, Map.of()),
                List.of(Project.ModelRef.of("model/fernlow.gltf")), List.of(), List.of(), lamps,
                List.of(), List.of(), views(), List.of(),
                "Reading room, morning", List.of(), null, List.of(), List.of(), Map.of());
    }

    private static List<View> views() {
        List<String> daylight = List.of(Lamps.PENDANTS, Lamps.TABLE, Lamps.WASHERS, Lamps.READING, Lamps.LOBBY, "Glowing materials");
        return List.of(
                view("Reading room, morning", "interior", camera(1.2, 1.6, 1.55, 6.2, 12.5, 1.75, 20, 9.9), 5000,
                View.Around.sunAndSky("2027-03-14", "09:10", 2.5), 3307, 2339, daylight),
                view("Reading room, evening", "interior", camera(7.6, 14.2, 1.5, 2.0, 3.0, 1.7, 22, 6.2), 3300,
                View.Around.sunAndSky("2027-12-21", "17:40", 2.5), 3307, 2339, List.of()),
                view("Study nook", "interior", nook(), 5200, View.Around.hdri("sky/overcast-sky.exr", 0, 0), 3508, 2480,
                List.of(Lamps.PENDANTS, Lamps.WASHERS, Lamps.LOBBY)),
                view("Court, noon", "exterior", shifted(camera(19.0, -1.5, 1.6, 11.0, 9.0, 1.6, 24, 13.4), 2.5), 5600,
                View.Around.sunAndSky("2027-06-21", "12:30", 3), 3840, 2160, daylight),
                view("Entrance, dusk", "exterior", camera(9.6, -8.0, 1.55, 6.8, 0.4, 1.75, 26, 6.7), 4800,
                View.Around.sunAndSky("2027-10-09", "19:05", 2.5), 3840, 2160, List.of()));
    }

    private static View view(String name, String setting, Camera c, double white, View.Around around, int w, int h, List<String> off) {
        return new View(name, setting, View.CameraSpec.of(c), around, new int[] {w, h}, "film", white, Map.of(), off, Map.of(), List.of(),
                Map.of());
    }

    private static Camera camera(double x, double y, double z, double tx, double ty, double tz, double focal, double ev) {
        return Camera.of(new Vec3(x, y, z), new Vec3(tx, ty, tz), focal).withEv(ev);
    }

    private static Camera shifted(Camera c, double mm) {
        return c.withShift(c.straightVerticals(), mm, 0);
    }

    private static Camera nook() {
        Vec3 eye = new Vec3(3.4, 10.4, 1.25), look = new Vec3(4.6, 15.0, 0.95), book = new Vec3(5.42, 13.88, 0.52);
        double focus = book.minus(eye).dot(new Vec3(look.x() - eye.x(), look.y() - eye.y(), 0).normalized());
        return Camera.of(eye, look, 40).withExposure(2.8, 1 / 60.0, 100).withFocus(true, focus).withEv(7.2);
    }
}
