package bake.formats;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.core.exc.StreamConstraintsException;
import com.fasterxml.jackson.core.io.JsonEOFException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.nio.charset.StandardCharsets;

/** The one JSON mapper, and parsing with messages for people. */
public final class Json {
    private static final int DEEPEST = 200;
    public static final ObjectMapper MAPPER = JsonMapper.builder(JsonFactory.builder()
                    .streamReadConstraints(StreamReadConstraints.builder().maxNestingDepth(DEEPEST).maxStringLength(1 << 30).build())
                    .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION).build())
            .enable(SerializationFeature.INDENT_OUTPUT).enable(DeserializationFeature.FAIL_ON_READING_DUP_TREE_KEY).build();

    private Json() {}

    /**
     * @throws FormatException naming line and column when the text is no JSON object
     */
    public static JsonNode parse(String text, String file) throws FormatException {
        try {
            JsonNode n = MAPPER.readTree(text.startsWith("\ufeff") ? text.substring(1) : text);
            if (n == null || !n.isObject()) throw new FormatException(file, null, "is empty or not a JSON object");
            return n;
        } catch (JsonProcessingException e) {
            var at = e.getLocation();
            throw new FormatException(file, at == null ? null : "line " + at.getLineNr() + ", column " + at.getColumnNr(),
                    reason(e));
        }
    }

    /** Text of a JSON file, which is UTF-8 (RFC 8259). */
    public static String text(byte[] bytes, String file) throws FormatException {
        if (bytes.length > 1 && (bytes[0] == -1 && bytes[1] == -2 || bytes[0] == -2 && bytes[1] == -1 || bytes[0] == 0 || bytes[1] == 0))
            throw new FormatException(file, null, "is written as UTF-16 or UTF-32; JSON files are UTF-8, save it as that");
        return new String(bytes, StandardCharsets.UTF_8);
    }

    /** Why a text is no JSON, in words of this product and not of the parser's. */
    private static String reason(JsonProcessingException e) {
        if (e instanceof StreamConstraintsException) return e.getOriginalMessage().contains("depth")
                ? "is nested more than " + DEEPEST + " deep, which no sensible file is; export it again"
                : "holds a text or a number that is too long; export it again";
        if (e instanceof JsonEOFException) return "ends before it is complete; copy or export it again";
        if (e.getOriginalMessage().startsWith("Duplicate field")) return "has the key "
                + e.getOriginalMessage().replaceFirst("Duplicate field ", "") + " twice in one object; keep one of them";
        return "is not valid JSON from there on; correct it there or export it again";
    }

    /** What {@code upper} says, and of what it does not say what {@code lower} does. */
    public static <T> T over(T upper, T lower, Class<T> type) {
        com.fasterxml.jackson.databind.node.ObjectNode n = MAPPER.valueToTree(lower);
        n.setAll((com.fasterxml.jackson.databind.node.ObjectNode) MAPPER.valueToTree(upper));
        try {
            return MAPPER.treeToValue(n, type);
        } catch (com.fasterxml.jackson.core.JsonProcessingException e) {
            throw new IllegalArgumentException(e.getOriginalMessage(), e);
        }
    }
}
