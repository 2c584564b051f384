package bake.formats.model;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTimeout;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files with very many things are read in seconds: what grows with the square of their number would take a minute. */
class ManyThingsTest {
    private static final Duration SOON = Duration.ofSeconds(15);

    @TempDir
    private Path dir;

    @Test
    void aHundredThousandNodes() throws IOException {
        int n = 100_000;
        String nodes = IntStream.range(0, n).mapToObj(i -> "{\"name\":\"n" + i + "\",\"mesh\":0,\"translation\":[" + i + ",0,0]}")
                .collect(Collectors.joining(","));
        String roots = IntStream.range(0, n).mapToObj(Integer::toString).collect(Collectors.joining(","));
        Path f = Files.writeString(dir.resolve("n.gltf"), "{\"asset\":{\"version\":\"2.0\"},\"scene\":0,\"scenes\":[{\"nodes\":[" + roots + "]}],"
                + "\"nodes\":[" + nodes + "],\"meshes\":[{\"primitives\":[{\"attributes\":{\"POSITION\":0}}]}],\"accessors\":[{\"bufferView\":0,"
                + "\"componentType\":5126,\"count\":3,\"type\":\"VEC3\"}],\"bufferViews\":[{\"buffer\":0,\"byteLength\":36}],\"buffers\":[{\"uri\":"
                + "\"data:application/octet-stream;base64,AAAAAAAAAAAAAAAAAACAPwAAAAAAAAAAAAAAAAAAgD8AAAAA\",\"byteLength\":36}]}");
        assertEquals(n, assertTimeout(SOON, () -> ModelReader.read(f, null, null, null)).layers().size());
    }

    @Test
    void tenThousandMaterials() throws IOException {
        int n = 10_000;
        StringBuilder mtl = new StringBuilder(), obj = new StringBuilder("mtllib m.mtl\n");
        for (int i = 0; i < n; i++) {
            mtl.append("newmtl m").append(i).append("\nKd 0.5 0.5 0.5\n");
            obj.append("v ").append(i).append(" 0 0\nv ").append(i).append(" 1 0\nv ").append(i).append(" 1 1\nusemtl m").append(i)
                    .append("\nf -1 -2 -3\n");
        }
        Files.writeString(dir.resolve("m.mtl"), mtl);
        Path f = Files.writeString(dir.resolve("m.obj"), obj);
        assertEquals(n, assertTimeout(SOON, () -> ModelReader.read(f, 1.0, null, null)).materials().size());
    }
}
