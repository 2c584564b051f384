package bake.formats.model;

import bake.formats.Json;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * A copy of a glTF file that holds nothing but its meshes, each once and in their order, for the library that unpacks them: it numbers
 * meshes in the order in which nodes use them first.
 */
final class PackedCopy {
    private PackedCopy() {}

    /** Writes it into a folder. */
    static Path write(JsonNode root, GltfAccessors data, Path folder) throws IOException {
        ObjectNode out = Json.MAPPER.createObjectNode();
        out.putObject("asset").put("version", "2.0");
        for (String k : new String[] {"accessors", "extensionsUsed", "extensionsRequired"}) if (root.has(k)) out.set(k, root.get(k).deepCopy());
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        int[] start = new int[root.path("buffers").size()];
        for (int i = 0; i < start.length; i++) {
            start[i] = bytes.size();
            ByteBuffer b = data.buffer(i).duplicate();
            byte[] all = new byte[b.remaining()];
            b.get(all);
            bytes.write(all);
            while (bytes.size() % 4 != 0) bytes.write(0);
        }
        out.putArray("buffers").addObject().put("byteLength", bytes.size());
        ArrayNode views = out.putArray("bufferViews");
        for (JsonNode v : root.path("bufferViews")) {
            ObjectNode w = v.deepCopy();
            int buffer = v.path("buffer").asInt(-1);
            if (buffer >= 0 && buffer < start.length) w.put("byteOffset", v.path("byteOffset").asInt(0) + start[buffer]);
            views.add(w.put("buffer", 0));
        }
        ArrayNode meshes = out.putArray("meshes"), nodes = out.putArray("nodes"), all = Json.MAPPER.createArrayNode();
        for (JsonNode m : root.path("meshes")) {
            ObjectNode plain = meshes.addObject().put("name", "m" + nodes.size());
            ArrayNode parts = plain.putArray("primitives");
            for (JsonNode p : m.path("primitives")) parts.add(((ObjectNode) p.deepCopy()).without("material"));
            int number = nodes.size();
            all.add(number);
            nodes.addObject().put("mesh", number);
        }
        out.putArray("scenes").addObject().set("nodes", all);
        out.put("scene", 0);
        byte[] json = Json.MAPPER.writeValueAsString(out).getBytes(StandardCharsets.UTF_8);
        return Files.write(folder.resolve("packed.glb"), GlbFile.bytes(json, bytes));
    }
}
