package bake.formats.model;

import bake.formats.FormatException;
import bake.formats.SafePath;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.HashMap;
import java.util.Map;

/** Buffers, views and accessors of a glTF 2.0 file, every number checked before memory is touched. */
final class GltfAccessors {
    private static final Map<String, Integer> COMPONENTS = Map.of("SCALAR", 1, "VEC2", 2, "VEC3", 3, "VEC4", 4, "MAT4", 16);
    private static final long MOST_ELEMENTS = 200_000_000;

    private final JsonNode root;
    private final Path folder;
    private final String file;
    private final ByteBuffer binary;
    private final ByteBuffer[] buffers;

    /**
     * @param binary chunk of a .glb, or null
     */
    /** Views that were packed, by number. */
    private final Map<Integer, ByteBuffer> unpacked = new HashMap<>();

    GltfAccessors(JsonNode root, Path folder, String file, ByteBuffer binary) {
        this.root = root;
        this.folder = folder;
        this.file = file;
        this.binary = binary;
        buffers = new ByteBuffer[root.path("buffers").size()];
    }

    private FormatException bad(String place, String problem) {
        return new FormatException(file, place, problem);
    }

    ByteBuffer buffer(int i) throws IOException {
        if (i < 0 || i >= buffers.length) throw bad("buffer " + i, "does not exist; export the file again");
        if (buffers[i] != null) return buffers[i];
        JsonNode b = root.path("buffers").get(i);
        long length = b.path("byteLength").asLong(-1);
        ByteBuffer data = b.hasNonNull("uri") ? bytes(b.get("uri").asText(), "buffer " + i) : binary;
        if (data == null) throw bad("buffer " + i, "has no data; export the file again");
        if (length < 0 || length > data.remaining())
            throw bad("buffer " + i, "should hold " + length + " bytes but has " + data.remaining()
                    + "; the file is cut short, copy it again");
        return buffers[i] = data.slice(data.position(), (int) length).order(ByteOrder.LITTLE_ENDIAN);
    }

    private ByteBuffer bytes(String uri, String place) throws IOException {
        if (uri.startsWith("data:")) {
            int comma = uri.indexOf(',');
            if (comma < 0 || !uri.substring(0, comma).endsWith(";base64"))
                throw bad(place, "has an embedded part that is not base64; export the file again");
            try {
                return ByteBuffer.wrap(Base64.getMimeDecoder().decode(uri.substring(comma + 1)));
            } catch (IllegalArgumentException e) {
                throw bad(place, "has a damaged embedded part; export the file again");
            }
        }
        Path p = SafePath.insideUri(folder, uri, file);
        if (Files.size(p) > Integer.MAX_VALUE - 16) throw bad(place, "is larger than 2 GB; export the model in parts");
        return ByteBuffer.wrap(Files.readAllBytes(p));
    }

    /** Bytes of a buffer view. */
    ByteBuffer view(int i) throws IOException {
        JsonNode v = root.path("bufferViews").get(i);
        if (v == null) throw bad("buffer view " + i, "does not exist; export the file again");
        JsonNode packed = v.path("extensions").path("EXT_meshopt_compression");
        if (packed.isMissingNode()) packed = v.path("extensions").path("KHR_meshopt_compression");
        if (!packed.isMissingNode()) return unpacked(i, packed);
        ByteBuffer b = buffer(v.path("buffer").asInt(-1));
        long offset = v.path("byteOffset").asLong(0), length = v.path("byteLength").asLong(-1);
        if (offset < 0 || length < 0 || offset + length > b.capacity())
            throw bad("buffer view " + i, "reads past the end of its buffer; export the file again");
        return b.slice((int) offset, (int) length).order(ByteOrder.LITTLE_ENDIAN);
    }

    private ByteBuffer unpacked(int i, JsonNode packed) throws IOException {
        ByteBuffer known = unpacked.get(i);
        if (known != null) return known.duplicate().order(ByteOrder.LITTLE_ENDIAN);
        String place = "buffer view " + i;
        ByteBuffer b = buffer(packed.path("buffer").asInt(-1));
        long offset = packed.path("byteOffset").asLong(0), length = packed.path("byteLength").asLong(-1),
                count = packed.path("count").asLong(-1), stride = packed.path("byteStride").asLong(-1);
        if (offset < 0 || length < 0 || offset + length > b.capacity())
            throw bad(place, "reads past the end of its buffer; export the file again");
        // A byte can stand for a few hundred at most; more is an attempt on the memory.
        if (count < 0 || stride < 1 || stride > 256 || count * stride > Math.max(1 << 16, length * 1024))
            throw bad(place, "claims " + count + " packed elements, which is not possible; export the file again");
        byte[] source = new byte[(int) length];
        b.get((int) offset, source);
        try {
            ByteBuffer out = ByteBuffer.wrap(PackedView.unpack(source, (int) count, (int) stride, packed.path("mode").asText(""),
                    packed.path("filter").asText("NONE"))).order(ByteOrder.LITTLE_ENDIAN);
            unpacked.put(i, out);
            return out.duplicate().order(ByteOrder.LITTLE_ENDIAN);
        } catch (IllegalArgumentException | IndexOutOfBoundsException e) {
            throw bad(place, "is packed in a way that cannot be read" + (e instanceof IllegalArgumentException ? ": " + e.getMessage() : "")
                    + "; export the file without compression");
        }
    }

    /** Bytes of an image of the file. */
    byte[] image(int i) throws IOException {
        JsonNode n = root.path("images").get(i);
        if (n == null) throw bad("image " + i, "does not exist; export the file again");
        ByteBuffer b = n.has("bufferView") ? view(n.get("bufferView").asInt(-1)) : bytes(n.path("uri").asText(""), "image " + i);
        byte[] out = new byte[b.remaining()];
        b.get(b.position(), out);
        return out;
    }

    /** Floats of an accessor; integers are read as they are, or scaled when normalised. */
    float[] floats(int accessor, String type) throws IOException {
        Layout l = layout(accessor, type);
        float[] out = new float[l.count * l.components];
        if (l.data != null) fill(l, out);
        sparse(accessor, l, out);
        return out;
    }

    /** Unsigned integers of a scalar accessor. */
    int[] ints(int accessor) throws IOException {
        Layout l = layout(accessor, "SCALAR");
        int[] out = new int[l.count];
        if (root.path("accessors").get(accessor).has("sparse"))
            throw bad("accessor " + accessor, "sparse indices are not read; export the file without them");
        if (l.data == null) return out;
        for (int i = 0; i < l.count; i++) {
            int o = i * l.stride;
            out[i] = switch (l.componentType) {
                case 5121 -> l.data.get(o) & 255;
                case 5123 -> l.data.getShort(o) & 65535;
                case 5125 -> l.data.getInt(o);
                default -> throw bad("accessor " + accessor, "has indices that are not whole numbers; export the file again");
            };
        }
        return out;
    }

    private record Layout(ByteBuffer data, int count, int components, int componentType, boolean normalized, int stride, int size) {}

    private Layout layout(int accessor, String type) throws IOException {
        JsonNode a = root.path("accessors").get(accessor);
        String place = "accessor " + accessor;
        if (a == null) throw bad(place, "does not exist; export the file again");
        Integer components = COMPONENTS.get(a.path("type").asText());
        if (components == null || type != null && !a.path("type").asText().equals(type))
            throw bad(place, "holds " + a.path("type").asText("nothing") + " where " + type + " is needed; export the file again");
        long count = a.path("count").asLong(-1);
        int componentType = a.path("componentType").asInt();
        int size = switch (componentType) {
            case 5120, 5121 -> 1;
            case 5122, 5123 -> 2;
            case 5125, 5126 -> 4;
            default -> throw bad(place, "has an unknown kind of number; export the file again");
        };
        if (count < 0 || count * components > MOST_ELEMENTS)
            throw bad(place, "holds " + count + " elements, which is not possible; export the file again");
        if (!a.has("bufferView")) {
            if (!a.has("sparse")) throw bad(place, "has no data; if the file is compressed, export it without compression");
            return new Layout(null, (int) count, components, componentType, false, 0, size);
        }
        int view = a.get("bufferView").asInt(-1);
        ByteBuffer data = view(view);
        long offset = a.path("byteOffset").asLong(0), stride = root.path("bufferViews").get(view).path("byteStride").asLong(0);
        if (stride == 0) stride = (long) size * components;
        if (offset < 0 || stride < 0 || stride > 1 << 16 || count > 0 && offset + stride * (count - 1) + (long) size
                * components > data.capacity())
            throw bad(place, "reads past the end of its buffer; the file is damaged, export it again");
        return new Layout(data.slice((int) offset, data.capacity() - (int) offset).order(ByteOrder.LITTLE_ENDIAN), (int) count, components,
                componentType,
                a.path("normalized").asBoolean(), (int) stride, size);
    }

    private static void fill(Layout l, float[] out) {
        for (int i = 0; i < l.count; i++)
            for (int c = 0; c < l.components; c++) out[i * l.components + c] =
                    number(l.data, i * l.stride + c * l.size, l.componentType, l.normalized);
    }

    private static float number(ByteBuffer d, int o, int type, boolean normalized) {
        return switch (type) {
            case 5120 -> normalized ? Math.max(d.get(o) / 127f, -1) : d.get(o);
            case 5121 -> (d.get(o) & 255) / (normalized ? 255f : 1);
            case 5122 -> normalized ? Math.max(d.getShort(o) / 32767f, -1) : d.getShort(o);
            case 5123 -> (d.getShort(o) & 65535) / (normalized ? 65535f : 1);
            case 5125 -> d.getInt(o) & 0xffffffffL;
            default -> d.getFloat(o);
        };
    }

    private void sparse(int accessor, Layout l, float[] out) throws IOException {
        JsonNode s = root.path("accessors").get(accessor).path("sparse");
        if (s.isMissingNode()) return;
        String place = "accessor " + accessor + ", sparse";
        int n = s.path("count").asInt(-1), indexType = s.path("indices").path("componentType").asInt();
        int indexSize = indexType == 5121 ? 1 : indexType == 5123 ? 2 : 4;
        ByteBuffer idx = view(s.path("indices").path("bufferView").asInt(-1)), val = view(s.path("values").path("bufferView").asInt(-1));
        long i0 = s.path("indices").path("byteOffset").asLong(0), v0 = s.path("values").path("byteOffset").asLong(0);
        if (n < 0 || i0 < 0 || v0 < 0 || i0 + (long) n * indexSize > idx.capacity()
                || v0 + (long) n * l.size * l.components > val.capacity())
            throw bad(place, "reads past the end of its buffer; export the file again");
        for (int i = 0; i < n; i++) {
            long at = (long) number(idx, (int) i0 + i * indexSize, indexType, false);
            if (at < 0 || at >= l.count) throw bad(place, "index " + at + " is too large; export the file again");
            for (int c = 0; c < l.components; c++)
                out[(int) at * l.components + c] = number(val, (int) v0 + (i * l.components + c) * l.size, l.componentType, l.normalized);
        }
    }
}
