package bake.formats.project;

import bake.core.finish.Look;
import bake.core.finish.ToneCurve;
import bake.formats.FormatException;
import bake.formats.Json;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.Locale;

/**
 * A look that has a name: how pictures are finished, to be given to views of any project. docs/finish.md describes the file.
 *
 * @param version from 1
 * @param author who saved it, or null; {@code reason} why, or null
 * @param curve kind of tone curve; {@code whiteBalance} kelvin, null to leave that of the view
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@JsonIgnoreProperties(ignoreUnknown = true)
public record SavedLook(String name, int version, String author, String reason, String curve, Double whiteBalance, FinishSpec finish) {
    public SavedLook {
        curve = curve == null ? "film" : curve;
        finish = finish == null ? FinishSpec.NONE : finish;
    }

    /** Of a view as it stands; the white balance is that of its light and stays with it. */
    public static SavedLook of(View v, String name) {
        return new SavedLook(name, 0, null, null, v.curve(), null, v.finish().withLook(null));
    }

    /** Its name and version, as a view says them that began with it. */
    public String title() {
        return name + " v" + version;
    }

    /** What a view has otherwise: names of values of its finish, and "tone curve". */
    public java.util.List<String> differences(View v) {
        java.util.List<String> out = new java.util.ArrayList<>(v.finish().differences(finish));
        if (!v.curve().equals(curve)) out.addFirst("tone curve");
        return out;
    }

    /** The view finished so. */
    public View on(View v) {
        View out = v.withCurve(curve).withFinish(finish.withLook(title()));
        return whiteBalance == null ? out : out.withWhiteBalance(whiteBalance);
    }

    /** What the engine takes, for a light of this colour. */
    public Look look(double kelvin) {
        return finish.look(ToneCurve.valueOf(curve.toUpperCase(Locale.ROOT)), whiteBalance == null ? kelvin : whiteBalance);
    }

    /** @throws FormatException when the text is no look, naming what is wrong */
    public static SavedLook parse(String text, String file) throws FormatException {
        JsonNode n = Json.parse(text, file);
        if (n.path("bakeLook").asInt() != 1) throw new FormatException(file, "bakeLook", "is not 1: this is no look, or one of a newer version");
        if (n.path("name").asText("").isBlank()) throw new FormatException(file, "name", "is missing");
        // A view says the same of its finish, and its schema checks it.
        ObjectNode view = Json.MAPPER.createObjectNode();
        view.put("name", "look").putObject("camera").putArray("position").add(0).add(0).add(0);
        ((ObjectNode) view.path("camera")).putArray("target").add(0).add(1).add(0);
        for (String k : new String[] {"curve", "whiteBalance", "finish"}) if (n.has(k)) view.set(k, n.get(k));
        ObjectNode project = Json.MAPPER.createObjectNode();
        project.put("bake", 1).put("name", "look").putArray("views").add(view);
        try {
            ProjectFile.read(project, file);
            return Json.MAPPER.treeToValue(n, SavedLook.class);
        } catch (FormatException e) {
            throw e;
        } catch (IOException e) {
            throw new FormatException(file, null, e.getMessage());
        }
    }

    /** As it is stored. */
    public String text() {
        ObjectNode n = Json.MAPPER.createObjectNode().put("bakeLook", 1);
        n.setAll((ObjectNode) Json.MAPPER.valueToTree(this));
        return n.toPrettyString() + "\n";
    }
}
