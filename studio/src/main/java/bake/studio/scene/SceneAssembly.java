package bake.studio.scene;

import bake.core.geometry.CoplanarFaces;
import bake.core.light.LightTable;
import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Lamp;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.core.scene.Outlook;
import bake.core.scene.Portal;
import bake.core.scene.Scene;
import bake.core.scene.Surroundings;
import bake.core.scene.Texture;
import bake.formats.FormatException;
import bake.formats.SafePath;
import bake.formats.light.IesFile;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import bake.formats.project.LampSpec;
import bake.formats.project.Project;
import bake.formats.project.View;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;

/**
 * Turns a project and one of its views into a {@link Scene}. Model files are read once; the lists that an edit does
 * not touch stay the same objects, so that compiling redoes only what changed.
 */
public final class SceneAssembly {
    private final Path folder;
    private final ReadModels models;
    private final ShapeMeshes shapes = new ShapeMeshes();
    private final AroundViews around;
    private final Map<String, IesFile.Photometry> photometries = new ConcurrentHashMap<>();
    private final List<Finding> findings = new ArrayList<>();
    private Parts parts;
    private Scene last;

    /** What the model files and shapes give, before layers are switched. */
    private record Parts(List<Project.ModelRef> models, List<Project.Shape> shapes, List<Project.Surface> surfaces,
            List<Project.Nudge> nudges, List<Mesh> meshes,
            List<Instance> instances, List<Material> materials, List<Texture> textures, List<String> layers, List<Lamp> lamps) {
        /** Whether an instance is only there for the shadows on it. */
        boolean catches(int instance) {
            return materials.get(meshes.get(instances.get(instance).mesh()).material()).catcher();
        }
    }

    public SceneAssembly(Path projectFolder) {
        folder = projectFolder;
        models = new ReadModels(projectFolder);
        around = new AroundViews(projectFolder);
    }

    /** Folder of the project. */
    public Path folder() {
        return folder;
    }

    /** Names of all layers, in the order of the models. */
    public List<String> layers() {
        return parts == null ? List.of() : parts.layers;
    }

    /** Whether the models of the last project that was asked for have been read. */
    public boolean hasModels() {
        return parts != null;
    }

    public List<Finding> findings() {
        return Stream.concat(findings.stream(), around.findings().stream()).toList();
    }

    /** Names of all materials. */
    public List<Material> materials() {
        return parts == null ? List.of() : parts.materials;
    }

    /** Triangles of each layer, instances counted. */
    public long[] layerTriangles() {
        long[] n = new long[layers().size()];
        for (Instance i : parts.instances) n[i.layer()] += parts.meshes.get(i.mesh()).triangles();
        return n;
    }

    /**
     * An object of the models.
     *
     * @param copies how often it stands somewhere
     * @param triangles of one of them
     */
    public record Copies(int copies, long triangles) {}

    /** Each object by the name of its mesh. */
    public Map<String, Copies> objects() {
        Map<String, Copies> out = new HashMap<>();
        if (parts != null) for (Instance i : parts.instances) {
            Mesh m = parts.meshes.get(i.mesh());
            out.merge(m.name(), new Copies(1, m.triangles()), (a, b) -> new Copies(a.copies + 1, b.triangles));
        }
        return out;
    }

    /** Objects that have faces in one plane, by what stands somewhere. */
    public List<Coplanar> coplanar() {
        Parts p = parts;
        if (p == null) return List.of();
        return CoplanarFaces.find(p.meshes, p.instances, () -> p != parts).stream()
                .filter(x -> !p.catches(x.smaller()) && !p.catches(x.larger())).map(x ->
                new Coplanar(p.instances.get(x.smaller()).name(),
                p.instances.get(x.larger()).name(), x.area(), x.normal())).toList();
    }

    /**
     * Two objects with faces in one plane that overlap.
     *
     * @param smaller name of the one with less area there
     * @param area that both cover, m2
     * @param normal which way the faces look
     */
    public record Coplanar(String smaller, String larger, double area, Vec3 normal) {
        /** In words. */
        public String line() {
            return String.format(Locale.ROOT, "%s and %s cover the same %.2g m2 of a plane; which of them is seen there is chance", smaller,
                    larger, area);
        }
    }

    /** Triangles kept in memory once for each mesh, without grounds that only catch shadows. */
    public long uniqueTriangles() {
        return parts == null ? 0 : parts.meshes.stream().filter(m -> !catches(m)).mapToLong(Mesh::triangles).sum();
    }

    /** Whether a mesh is only there for the shadows on it. */
    private boolean catches(Mesh m) {
        return parts.materials.get(m.material()).catcher();
    }

    /** Size of everything but grounds that only catch shadows, metres along x, y and z; null where there is nothing. */
    public synchronized double[] size() {
        if (parts == null || parts.instances.isEmpty()) return null;
        Map<Mesh, Vec3[]> boxes = new IdentityHashMap<>();
        Bounds all = new Bounds();
        for (Instance i : parts.instances) {
            Mesh m = parts.meshes.get(i.mesh());
            if (catches(m)) continue;
            for (Vec3 corner : boxes.computeIfAbsent(m, x -> Bounds.of(x.positions()).corners())) all.add(i.toWorld().point(corner));
        }
        return all.size();
    }

    /** A model of the project as it was read. */
    public ImportedModel model(Project.ModelRef placed) throws IOException {
        return models.model(placed);
    }

    /** A model that was read already, so that it need not be read again. */
    public void know(Project.ModelRef placed, ImportedModel m) throws IOException {
        models.know(placed, m);
    }

    /**
     * The scene of a view.
     *
     * @throws FormatException when a file of the project cannot be used
     */
    public synchronized Scene scene(Project project, View view) throws IOException {
        if (parts == null || parts.models != project.models() || parts.shapes != project.shapes() || parts.surfaces != project.materials()
                || parts.nudges != project.nudges()) parts = gather(project);
        List<Instance> instances = visible(project);
        List<Material> materials = glow(view.off().contains(LightTable.GLOW) ? 0 : 1);
        if (project.inClay()) materials = clay(materials);
        List<Lamp> lamps = lamps(project, view);
        Surroundings light = around.light(project, view, view.around());
        if (last != null && last.lamps().equals(lamps)) lamps = last.lamps();
        List<Portal> portals = portals(project);
        if (last != null && last.portals().equals(portals)) portals = last.portals();
        return last = new Scene(parts.meshes, instances, materials, parts.textures, lamps, light, portals, Levels.of(view),
                around.outlook(project, view, light),
                Efforts.of(project, parts.meshes, instances, parts.materials, parts.layers), parts.layers);
    }

    /** Materials of clay: the same list of materials always gives the same list, so that compiling sees that nothing changed. */
    private List<Material> clay(List<Material> m) {
        if (clayOf != m) clay = m.stream().map(MaterialLibrary::clay).toList();
        clayOf = m;
        return clay;
    }

    private List<Material> clay, clayOf;

    private List<Instance> visible(Project project) {
        boolean[] on = new boolean[parts.layers.size()];
        boolean all = true;
        for (int i = 0; i < on.length; i++) all &= on[i] = project.layerOn(parts.layers.get(i));
        if (all) return parts.instances;
        List<Instance> out = parts.instances.stream().filter(i -> on[i.layer()]).toList();
        return last != null && last.instances().size() == out.size() && last.instances().equals(out) ? last.instances() : out;
    }

    private List<Material> glow(double factor) {
        if (factor == 1 || parts.materials.stream().noneMatch(Material::glows)) return parts.materials;
        List<Material> out = parts.materials.stream().map(m -> m.glows() ? m.withEmission(m.emission().times(factor)) : m).toList();
        return last != null && last.materials().equals(out) ? last.materials() : out;
    }

    /** Meshes made before, by what they were made of. */
    private final Map<Mesh, Mesh> movedMeshes = new IdentityHashMap<>();

    private Parts gather(Project project) throws IOException {
        List<Mesh> meshes = new ArrayList<>();
        List<Instance> instances = new ArrayList<>();
        List<Material> materials = new ArrayList<>();
        List<Texture> textures = new ArrayList<>();
        Map<String, Integer> layers = new LinkedHashMap<>();
        List<Lamp> lamps = new ArrayList<>();
        findings.clear();
        models.keep(project.models());
        for (Project.ModelRef ref : project.models()) {
            ImportedModel m = models.model(ref);
            int mesh0 = meshes.size(), material0 = materials.size(), texture0 = textures.size();
            for (Mesh x : m.meshes()) meshes.add(moved(x, material0));
            for (Material x : m.materials()) materials.add(x.shiftTextures(texture0));
            textures.addAll(m.textures());
            List<Affine> places = ref.replaces() == null ? List.of(Placing.own(ref))
                    : Placing.inPlaceOf(ref, instances, meshes, m, findings);
            for (Affine place : places) {
                for (Instance i : m.instances()) instances.add(new Instance(i.name(), i.mesh() + mesh0,
                        place == Affine.IDENTITY ? i.toWorld() : place.times(i.toWorld()), layer(layers, layerOf(ref, m, i))));
                for (Lamp l : m.lamps()) lamps.add(place == Affine.IDENTITY ? l : l.withFrame(place.times(l.frame())));
            }
            findings.addAll(m.findings());
        }
        // Files may have many materials of one name: what is set is set for all of them.
        Map<String, List<Integer>> byName = new HashMap<>();
        for (int i = 0; i < materials.size(); i++) byName.computeIfAbsent(materials.get(i).name(), n -> new ArrayList<>()).add(i);
        for (Project.Surface s : project.materials()) {
            List<Integer> all = byName.computeIfAbsent(s.name(), n -> new ArrayList<>());
            for (int at : all) materials.set(at, replaced(materials.get(at), s));
            if (!all.isEmpty()) continue;
            all.add(materials.size());
            materials.add(replaced(Material.glossy(s.name(), new Vec3(0.6, 0.6, 0.6), 0.6), s));
        }
        for (Project.Shape s : project.shapes()) {
            List<Integer> material = byName.get(s.material());
            if (material == null) throw new FormatException("project.json", "shape '" + s.name() + "'",
                    "names the material '" + s.material() + "', which is not there; add it under materials");
            meshes.add(shapes.mesh(s, material.getFirst()));
            instances.add(new Instance(s.name(), meshes.size() - 1, ShapeMeshes.placement(s), layer(layers, s.layer() == null ? "Shapes" : s.layer())));
        }
        Placing.nudge(project.nudges(), instances);
        Set<Mesh> used = Collections.newSetFromMap(new IdentityHashMap<>());
        used.addAll(meshes);
        movedMeshes.values().retainAll(used);
        shapes.keep(used);
        // Lists that hold the same things stay the same lists: an edit of a material builds no hierarchy anew.
        return new Parts(project.models(), project.shapes(), project.materials(), project.nudges(),
                kept(meshes, parts == null ? null : parts.meshes),
                kept(instances, parts == null ? null : parts.instances),
                List.copyOf(materials), kept(textures, parts == null ? null : parts.textures), List.copyOf(layers.keySet()),
                List.copyOf(lamps));
    }

    private static <T> List<T> kept(List<T> now, List<T> before) {
        if (before == null || before.size() != now.size()) return List.copyOf(now);
        for (int i = 0; i < now.size(); i++)
            if (now.get(i) != before.get(i) && !(now.get(i) instanceof Instance a && a.equals(before.get(i)))) return List.copyOf(now);
        return before;
    }

    /** A mesh with its material's number moved on, the same object each time. */
    private Mesh moved(Mesh m, int by) {
        if (by == 0) return m;
        Mesh known = movedMeshes.get(m);
        if (known == null || known.material() != m.material() + by) movedMeshes.put(m, known = m.withMaterial(m.material() + by));
        return known;
    }

    private static String layerOf(Project.ModelRef ref, ImportedModel m, Instance i) {
        return switch (ref.layersBy() == null ? "node" : ref.layersBy()) {
            case "material" -> m.materials().get(m.meshes().get(i.mesh()).material()).name();
            case "file" -> m.name();
            default -> m.layers().get(i.layer());
        };
    }

    /** Number of a layer; files may have a hundred thousand. */
    private static int layer(Map<String, Integer> layers, String name) {
        return layers.computeIfAbsent(name, n -> layers.size());
    }

    private static Material replaced(Material m, Project.Surface s) throws FormatException {
        Material from = s.from() == null ? m : MaterialLibrary.under(MaterialLibrary.named(s.from(), "material '" + s.name() + "'"), m);
        return MaterialLibrary.apply(from, s);
    }

    private List<Lamp> lamps(Project project, View view) throws IOException {
        List<Lamp> out = new ArrayList<>();
        for (LampSpec s : project.lamps())
            add(out, LampFactory.lamp(Efforts.looked(s.alone(project.lamps()), project), this::photometry), view);
        for (Lamp l : parts.lamps) add(out, l, view);
        return List.copyOf(out);
    }

    /** A photometric file of the project, read once. */
    public IesFile.Photometry photometry(String file) throws IOException {
        IesFile.Photometry p = photometries.get(file);
        if (p == null) photometries.put(file, p = IesFile.read(SafePath.inside(folder, file, "project.json")));
        return p;
    }

    private static void add(List<Lamp> out, Lamp l, View view) {
        if (!view.off().contains(l.group()) && l.lumens() > 0) out.add(l);
    }

    private static List<Portal> portals(Project project) {
        List<Portal> out = new ArrayList<>();
        for (Project.PortalSpec p : project.portals()) if (p.used())
            out.add(new Portal(p.name(), Arrays.stream(p.corners()).map(MaterialLibrary::vec).toList()));
        return List.copyOf(out);
    }

    /** What lies around the model in a view. */
    public synchronized Surroundings surroundings(Project project, View view) throws IOException {
        return around.light(project, view, view.around());
    }
}
