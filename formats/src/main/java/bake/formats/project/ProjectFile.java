package bake.formats.project;

import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.Json;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import com.networknt.schema.ValidationMessage;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.MalformedInputException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Set;

/** Reads and writes project.json, checked against the schema that ships with Bake. */
public final class ProjectFile {
    public static final String NAME = "project.json";
    /** Raised whenever the schema changes. */
    private static final int SCHEMA_EDITION = 5;
    private static final long MOST_BYTES = 64L << 20;
    private static final ObjectMapper MAPPER = Json.MAPPER.copy().configure(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES, false);
    private static JsonSchema schema;

    private ProjectFile() {}

    /** The project.json meant by a folder or the file itself.
     *
     * @throws FormatException when there is none
     */
    public static Path locate(Path p) throws IOException {
        Path f = Files.isDirectory(p) ? p.resolve(NAME) : p;
        if (!Files.isRegularFile(f)) throw new FormatException(p.toString(), null,
                "there is no project here; name a project's folder or its " + NAME);
        return f;
    }

    /** Remembers which texts have been checked against the schema, since the answer for a text never changes. */
    public interface Checked {
        boolean has(String digest);

        void add(String digest);
    }

    public static Project read(Path file) throws IOException {
        return read(file, null);
    }

    /**
     * @param checked texts that need not be checked again, or null
     */
    public static Project read(Path file, Checked checked) throws IOException {
        String name = file.getFileName().toString();
        if (Files.size(file) > MOST_BYTES) throw new FormatException(name, null, "is larger than 64 MB, which no project is");
        try {
            String text = Files.readString(file), digest = checked == null ? null : digest(text);
            JsonNode n = Json.parse(text, name);
            if (digest != null && checked.has(digest)) return map(n, name);
            Project p = read(n, name);
            if (digest != null) checked.add(digest);
            return p;
        } catch (MalformedInputException e) {
            throw new FormatException(name, null, "is not text in UTF-8");
        }
    }

    /**
     * @throws FormatException naming the key that is wrong
     */
    public static Project read(JsonNode n, String name) throws IOException {
        int version = n.path("bake").asInt(-1);
        if (version < 1) throw new FormatException(name, "bake",
                "is missing: this is not a Bake project, or its version number was lost; write \"bake\": 1");
        if (version > Project.VERSION)
            throw new FormatException(name, "bake", "was saved by a newer Bake (format " + version + ", this one reads " + Project.VERSION
                    + "); open it there or update this one");
        Set<ValidationMessage> wrong = schema().validate(n);
        if (!wrong.isEmpty()) {
            ValidationMessage m = wrong.iterator().next();
            throw new FormatException(name, m.getInstanceLocation().toString().replaceFirst("^\\$\\.?", ""),
                    m.getMessage().replaceFirst("^\\$[^:]*: ", ""));
        }
        return map(n, name);
    }

    private static Project map(JsonNode n, String name) throws FormatException {
        try {
            return MAPPER.treeToValue(n, Project.class);
        } catch (JsonProcessingException e) {
            throw new FormatException(name, null, e.getOriginalMessage(), e);
        }
    }

    public static JsonNode toJson(Project p) {
        return MAPPER.valueToTree(p);
    }

    public static void write(Path file, Project p) throws IOException {
        byte[] bytes = MAPPER.writeValueAsBytes(p);
        AtomicFile.write(file, o -> o.write(bytes));
    }

    /** Loads the schema and the mapper, which take a moment, ahead of the first project. */
    public static void prepare() {
        try {
            schema().validate(Json.MAPPER.readTree("{\"bake\": 1, \"name\": \"x\"}"));
            MAPPER.readValue("{\"bake\": 1, \"name\": \"x\", \"views\": []}", Project.class);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Of the text and the edition of the schema. */
    private static String digest(String text) {
        try {
            MessageDigest d = MessageDigest.getInstance("SHA-256");
            d.update((byte) SCHEMA_EDITION);
            return HexFormat.of().formatHex(d.digest(text.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // every Java has it
        }
    }

    private static synchronized JsonSchema schema() throws IOException {
        if (schema == null)
            try (InputStream in = ProjectFile.class.getResourceAsStream("/bake/project.schema.json")) {
                schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(in);
            }
        return schema;
    }
}
