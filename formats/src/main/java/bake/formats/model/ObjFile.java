package bake.formats.model;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Instance;
import bake.core.scene.Material;
import bake.core.scene.Mesh;
import bake.formats.FormatException;
import bake.formats.SafePath;
import de.javagl.obj.FloatTuple;
import de.javagl.obj.Mtl;
import de.javagl.obj.MtlReader;
import de.javagl.obj.Obj;
import de.javagl.obj.ObjData;
import de.javagl.obj.ObjReader;
import de.javagl.obj.ObjSplitting;
import de.javagl.obj.ObjUtils;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads OBJ with its MTL files through the javagl library. The format has no units and no axis: both are given. */
public final class ObjFile {
    /** Stands for a space within a file name. */
    private static final char SPACE = '\u0001';
    /** A line that names a picture: keyword and options, then the name. */
    private static final Pattern MAP =
            Pattern.compile("(?m)^(\\s*(?:map_\\w+|norm|bump|disp|decal|refl)\\s+(?:-\\w+(?:\\s+(?:on|off|[-+.\\d]+(?=\\s)))*\\s+)*)(\\S.*?)(?=\\s*$)");

    private static final long MOST_BYTES = 1L << 30;

    private final Path folder;
    private final String file;
    private final List<Finding> findings = new ArrayList<>();
    private final List<Material> materials = new ArrayList<>();
    private final ModelTextures textures;
    private final Map<String, Integer> textureNumbers = new HashMap<>();

    private ObjFile(Path path, long textureBytes) {
        textures = new ModelTextures(textureBytes);
        folder = path.toAbsolutePath().getParent();
        file = path.getFileName().toString();
    }

    /**
     * @param toMetres length of the file's unit, m
     * @param yUp whether y points up in the file, as most programs write it
     */
    public static ImportedModel read(Path path, double toMetres, boolean yUp) throws IOException {
        return read(path, toMetres, yUp, Long.MAX_VALUE);
    }

    /** @param textureBytes that textures may take */
    static ImportedModel read(Path path, double toMetres, boolean yUp, long textureBytes) throws IOException {
        return new ObjFile(path, textureBytes).model(path, toMetres, yUp);
    }

    private ImportedModel model(Path path, double toMetres, boolean yUp) throws IOException {
        if (Files.size(path) > MOST_BYTES)
            throw new FormatException(file, null, "is larger than 1 GB; export the model in parts or as .glb");
        Obj obj;
        try (InputStream in = Files.newInputStream(path); BufferedReader r =
                new BufferedReader(new java.io.InputStreamReader(in, StandardCharsets.UTF_8))) {
            obj = ObjUtils.triangulate(ObjReader.read(r));
        } catch (IOException | RuntimeException e) { // the library throws what it likes on broken text
            throw new FormatException(file, null, "cannot be read as OBJ (" + e.getMessage() + "); export it again", e);
        }
        if (obj.getNumFaces() == 0) throw new FormatException(file, null, "holds no faces; export it again");
        Map<String, Mtl> library = library(obj);
        Affine toWorld = yUp ? new Affine(toMetres, 0, 0, 0, 0, 0, -toMetres, 0, 0, toMetres, 0, 0)
                : Affine.scale(toMetres, toMetres, toMetres);
        List<Mesh> meshes = new ArrayList<>();
        List<Instance> instances = new ArrayList<>();
        List<String> layers = new ArrayList<>();
        Map<String, Integer> materialNumbers = new LinkedHashMap<>();
        Map<String, Obj> groups = obj.getNumGroups() > 1 ? ObjSplitting.splitByGroups(obj) : Map.of(file, obj);
        for (var g : groups.entrySet()) {
            Map<String, Obj> parts = g.getValue().getNumMaterialGroups() > 0 ? ObjSplitting.splitByMaterialGroups(g.getValue())
                    : Map.of("", g.getValue());
            for (var p : parts.entrySet()) {
                Obj single = ObjUtils.convertToRenderable(p.getValue());
                if (single.getNumFaces() == 0) continue;
                int material = materialNumbers.computeIfAbsent(p.getKey(), k -> material(k, library));
                meshes.add(mesh(g.getKey(), single, material));
                if (!layers.contains(g.getKey())) layers.add(g.getKey());
                instances.add(new Instance(g.getKey(), meshes.size() - 1, toWorld, layers.indexOf(g.getKey())));
            }
        }
        return new ImportedModel(file, meshes, instances, materials, textures.decode(findings), layers, List.of(), List.of(), findings);
    }

    private Mesh mesh(String name, Obj o, int material) throws FormatException {
        try {
            float[] uv = o.getNumTexCoords() > 0 ? ObjData.getTexCoordsArray(o, 2) : null;
            if (uv != null) for (int i = 1; i < uv.length; i += 2) uv[i] = 1 - uv[i]; // OBJ counts v from the bottom
            float[] normals = o.getNumNormals() > 0 ? ObjData.getNormalsArray(o) : null;
            return MeshCheck.mend(new Mesh(name, ObjData.getVerticesArray(o), normals, uv, ObjData.getFaceVertexIndicesArray(o), material),
                    findings);
        } catch (RuntimeException e) {
            throw new FormatException(file, "group '" + name + "'", "its faces do not fit its vertices; export the file again", e);
        }
    }

    private Map<String, Mtl> library(Obj obj) {
        Map<String, Mtl> out = new HashMap<>();
        for (String name : libraryNames(obj.getMtlFileNames())) {
            try {
                String text = keepSpaces(Files.readString(SafePath.inside(folder, name, file), StandardCharsets.ISO_8859_1));
                for (Mtl m : MtlReader.read(new StringReader(text))) out.put(m.getName(), m);
            } catch (IOException | RuntimeException e) {
                findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, name, "the material file is not read: " + e.getMessage()));
            }
        }
        return out;
    }

    /** Several names on a line may be several files, or one whose name has spaces. */
    private List<String> libraryNames(List<String> names) {
        String joined = String.join(" ", names);
        return names.size() > 1 && names.stream().noneMatch(n -> Files.exists(folder.resolve(n)))
                && Files.exists(folder.resolve(joined)) ? List.of(joined) : names;
    }

    /** The reader splits lines at spaces, and file names may have some: they are marked until the file is opened. */
    private static String keepSpaces(String mtl) {
        Matcher m = MAP.matcher(mtl);
        return m.replaceAll(r -> Matcher.quoteReplacement(r.group(1) + r.group(2).replace(' ', SPACE)));
    }

    private int material(String name, Map<String, Mtl> library) {
        Mtl m = library.get(name);
        if (m == null) {
            if (!name.isEmpty()) findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, name,
                    "the material is not described anywhere; shown plain"));
            materials.add(Material.glossy(name.isEmpty() ? "no material" : name, new Vec3(0.6, 0.6, 0.6), 0.6));
            return materials.size() - 1;
        }
        Vec3 kd = vec(m.getKd(), new Vec3(0.6, 0.6, 0.6));
        double opacity = m.getD() == null ? 1 : Math.clamp(m.getD(), 0, 1);
        // Phong exponent to GGX width: alpha = sqrt(2 / (n + 2)) (Walter et al. 2007).
        double roughness = m.getPr() != null ? Math.clamp(m.getPr(), 0, 1)
                : m.getNs() == null ? 0.7 : Math.clamp(Math.sqrt(Math.sqrt(2 / (Math.max(0, m.getNs()) + 2))), 0.02, 1);
        Material.Image base = image(m.getMapKd(), true), bump = image(m.getNorm(), false);
        boolean masked = m.getMapD() != null && base != null;
        materials.add(new Material(name, base == null ? kd : new Vec3(1, 1, 1), base, opacity,
                masked ? Material.AlphaMode.MASK : opacity < 1 ? Material.AlphaMode.BLEND : Material.AlphaMode.OPAQUE, 0.5,
                m.getPm() == null ? 0 : Math.clamp(m.getPm(), 0, 1), roughness, null, bump, 1,
                m.getNi() == null ? 1.5 : Math.clamp(m.getNi(), 1, 3),
                0, false, 0, vec(m.getKe(), Vec3.ZERO), image(m.getMapKe(), true)));
        return materials.size() - 1;
    }

    private static Vec3 vec(FloatTuple t, Vec3 otherwise) {
        if (t == null || t.getDimensions() < 3) return otherwise;
        Vec3 v = new Vec3(t.getX(), t.getY(), t.getZ());
        return v.isFinite() ? new Vec3(Math.max(0, v.x()), Math.max(0, v.y()), Math.max(0, v.z())) : otherwise;
    }

    private Material.Image image(String marked, boolean srgb) {
        if (marked == null) return null;
        String name = marked.replace(SPACE, ' ');
        Integer known = textureNumbers.get(name + srgb);
        if (known != null) return known < 0 ? null : new Material.Image(known);
        try {
            Path picture = SafePath.inside(folder, name, file);
            int at = textures.add(name, srgb, () -> Files.newInputStream(picture));
            textureNumbers.put(name + srgb, at);
            return new Material.Image(at);
        } catch (IOException e) {
            findings.add(new Finding(Finding.Kind.MISSING_TEXTURE, name, e.getMessage()));
            textureNumbers.put(name + srgb, -1);
            return null;
        }
    }
}
