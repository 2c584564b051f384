package bake.formats.model;

import bake.formats.AtomicFile;
import bake.formats.Json;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;

/** Packs a .gltf that was just written, with its buffer and pictures, into one .glb. */
public final class GlbFile {
    private static final int GLB = 0x46546C67, JSON = 0x4E4F534A, BIN = 0x004E4942;

    private GlbFile() {}

    /** Writes a model as one file. */
    public static void write(Path file, ImportedModel m) throws IOException {
        Path temp = Files.createTempDirectory("bake-export");
        try {
            Path gltf = temp.resolve("model.gltf");
            GltfWriter.write(gltf, m);
            byte[] packed = pack(gltf);
            AtomicFile.write(file, o -> o.write(packed));
        } finally {
            try (var s = Files.list(temp)) {
                for (Path p : s.toList()) Files.deleteIfExists(p);
            }
            Files.deleteIfExists(temp);
        }
    }

    private static byte[] pack(Path gltf) throws IOException {
        ObjectNode root = (ObjectNode) Json.MAPPER.readTree(Files.readAllBytes(gltf));
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ObjectNode buffer = (ObjectNode) root.path("buffers").get(0);
        bytes.write(Files.readAllBytes(gltf.resolveSibling(buffer.remove("uri").asText())));
        for (var image : root.path("images")) {
            ObjectNode i = (ObjectNode) image;
            align(bytes, 0);
            byte[] picture = Files.readAllBytes(gltf.resolveSibling(i.remove("uri").asText()));
            i.put("mimeType", "image/png").put("bufferView", root.withArrayProperty("bufferViews").size());
            root.withArrayProperty("bufferViews").addObject().put("buffer", 0).put("byteOffset", bytes.size()).put("byteLength", picture.length);
            bytes.write(picture);
        }
        align(bytes, 0);
        buffer.put("byteLength", bytes.size());
        return bytes(Json.MAPPER.writer().without(SerializationFeature.INDENT_OUTPUT).writeValueAsBytes(root), bytes);
    }

    /** The container: its JSON and its one buffer. */
    static byte[] bytes(byte[] document, ByteArrayOutputStream bytes) throws IOException {
        ByteArrayOutputStream json = new ByteArrayOutputStream();
        json.write(document);
        align(json, ' ');
        align(bytes, 0);
        long all = 28L + json.size() + bytes.size();
        if (all > Integer.MAX_VALUE) throw new IOException("the model needs more than 2 GB; export it as .gltf");
        ByteBuffer b = ByteBuffer.allocate((int) all).order(ByteOrder.LITTLE_ENDIAN);
        b.putInt(GLB).putInt(2).putInt((int) all).putInt(json.size()).putInt(JSON).put(json.toByteArray()).putInt(bytes.size()).putInt(BIN)
                .put(bytes.toByteArray());
        return b.array();
    }

    private static void align(ByteArrayOutputStream o, int filler) {
        while (o.size() % 4 != 0) o.write(filler);
    }
}
