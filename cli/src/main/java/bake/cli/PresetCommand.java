package bake.cli;

import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.SharedPreset;
import bake.formats.project.ShippedPresets;
import bake.studio.preset.PresetChanges;
import bake.studio.preset.PresetMerge;
import bake.studio.preset.PresetShelf;
import bake.studio.preset.Shelves;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Presets on shelves that a studio shares. */
@Command(name = "preset", mixinStandardHelpOptions = true, description =
        "Presets on a shelf: a folder that is shared. Without --shelf it is the artist's own, or the studio's where one is chosen or named by BAKE_SHELF.")
final class PresetCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(spec.commandLine(), "say what to do: list, show, save, compare, merge or retire");
    }

    private static PresetShelf shelf(Path folder) {
        if (folder != null) return Shelves.studio(folder);
        Path studio = Shelves.studioFolder();
        return studio == null ? Shelves.own() : Shelves.studio(studio);
    }

    /** A preset of the shelf, or one that ships. */
    private static SharedPreset find(PresetShelf shelf, String id) throws IOException {
        Matcher m = Pattern.compile("(.+)@(\\d{1,6})").matcher(id);
        String name = m.matches() ? m.group(1) : id;
        PresetShelf.Entry e = shelf.find(name);
        SharedPreset p = e == null ? null : m.matches() ? e.version(Integer.parseInt(m.group(2))) : e.current();
        if (p == null) p = ShippedPresets.find(name, m.matches() ? Integer.parseInt(m.group(2)) : 0);
        if (p == null) throw new IllegalArgumentException("there is no preset '" + id + "' on the shelf " + shelf.folder() + "; it has: "
                + String.join(", ", shelf.list().stream().map(x -> x.newest().id()).toList()));
        return p;
    }

    private void print(String text) {
        spec.commandLine().getOut().println(text);
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Presets of the shelf and those that ship, with their versions.")
    int list(@Option(names = "--shelf", paramLabel = "FOLDER") Path folder, @Option(names = "--json") boolean json) throws IOException {
        PresetShelf s = shelf(folder);
        ArrayNode all = Json.MAPPER.createArrayNode();
        for (PresetShelf.Entry e : s.list()) {
            SharedPreset p = e.current();
            ObjectNode n = all.addObject().put("name", e.name()).put("version", p.preset().version()).put("purpose", p.preset().purpose())
                    .put("setting", p.preset().setting()).put("author", p.author()).put("reason", p.reason()).put("shelf", s.name());
            e.versions().forEach(v -> n.withArrayProperty("versions").add(v.preset().version()));
            if (e.locked() != null) n.put("locked", e.locked());
            e.retired().forEach((k, v) -> n.withObjectProperty("retired").put("" + k, v));
        }
        for (Preset p : ShippedPresets.PRESETS) all.addObject().put("name", p.name()).put("version", p.version()).put("purpose", p.purpose())
                .put("setting", p.setting()).put("shelf", "shipped").putArray("versions").add(p.version());
        if (s.away()) spec.commandLine().getErr().println("bake: the shelf " + s.folder() + " is away; these are the last known copies");
        if (json) print(all.toPrettyString());
        else all.forEach(n -> print(n.path("name").asText() + "  v" + n.path("version") + "  " + n.path("purpose").asText() + ", "
                + n.path("setting").asText() + "  (" + n.path("shelf").asText() + ")" + (n.has("locked") ? "  locked by "
                        + n.path("locked").asText() : "")));
        return 0;
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "One version as its file is written.")
    int show(@Parameters(paramLabel = "NAME[@VERSION]") String name, @Option(names = "--shelf", paramLabel = "FOLDER") Path folder,
            @Option(names = "--json", description = "as without it: the file is JSON") boolean json) throws IOException {
        spec.commandLine().getOut().print(new String(find(shelf(folder), name).bytes(), java.nio.charset.StandardCharsets.UTF_8));
        spec.commandLine().getOut().flush();
        return 0;
    }

    @Command(name = "save", mixinStandardHelpOptions = true, description =
            "Save a project's preset as the next version, or bring a single file to the shelf.")
    int save(@Parameters(paramLabel = "PROJECT|FILE.json") Path from, @Parameters(paramLabel = "NAME", arity = "0..1") String name,
            @Option(names = "--shelf", paramLabel = "FOLDER") Path folder, @Option(names = "--reason", paramLabel = "TEXT") String reason,
            @Option(names = "--author", paramLabel = "NAME") String author, @Option(names = "--as", paramLabel = "NAME",
            description = "save under another name") String as, @Option(names = "--json") boolean json) throws IOException {
        PresetShelf s = shelf(folder);
        String who = author == null ? System.getProperty("user.name") : author;
        SharedPreset made;
        if (name == null && Files.isRegularFile(from) && !from.endsWith("project.json")) made = s.bring(from, who);
        else {
            if (name == null) throw new IllegalArgumentException("name the preset of the project that is to be saved");
            Project p = Projects.open(from.toString(), List.of()).project();
            Preset mine = p.presets().stream().filter(x -> x.name().equalsIgnoreCase(name)).findFirst().orElseThrow(() ->
                    new IllegalArgumentException("the project has no preset '" + name + "' of its own; it has: "
                            + String.join(", ", p.presets().stream().map(Preset::name).toList())));
            String to = as == null ? mine.name() : as;
            // What was made from a preset that ships goes on from its number.
            int base = as != null || s.find(to) == null && ShippedPresets.find(to, mine.version()) == null ? 0 : mine.version();
            made = s.save(SharedPreset.of(mine.named(to, base)), reason, who);
        }
        if (json) print(Json.MAPPER.valueToTree(made).toPrettyString());
        else print(made.id() + " on " + s.folder());
        return 0;
    }

    @Command(name = "compare", mixinStandardHelpOptions = true, description = "What differs between two versions, in words.")
    int compare(@Parameters(paramLabel = "A") String a, @Parameters(paramLabel = "B") String b,
            @Option(names = "--shelf", paramLabel = "FOLDER") Path folder, @Option(names = "--json") boolean json) throws IOException {
        PresetShelf s = shelf(folder);
        return say(PresetChanges.between(find(s, a).preset(), find(s, b).preset()), json);
    }

    private int say(List<PresetChanges.Change> changes, boolean json) {
        if (json) print(Json.MAPPER.valueToTree(changes).toPrettyString());
        else if (changes.isEmpty()) print("no difference");
        else changes.forEach(c -> print(c.line()));
        return 0;
    }

    @Command(name = "merge", mixinStandardHelpOptions = true, description =
            "Bring a file that was changed from an older version together with the newest one, setting by setting.")
    int merge(@Parameters(paramLabel = "FILE.json", description = "a version file; \"from\" says what it was made from") Path file,
            @Option(names = "--shelf", paramLabel = "FOLDER") Path folder, @Option(names = "--take", paramLabel = "KEY=mine|theirs",
            description = "decides a conflict; may be given again") Map<String, String> take,
            @Option(names = "--reason", paramLabel = "TEXT") String reason, @Option(names = "--author", paramLabel = "NAME") String author,
            @Option(names = "--json") boolean json) throws IOException {
        PresetShelf s = shelf(folder);
        SharedPreset mine = SharedPreset.read(file);
        PresetShelf.Entry e = s.find(mine.preset().name());
        if (e == null) throw new IllegalArgumentException("there is no preset '" + mine.preset().name() + "' on the shelf; save it instead");
        SharedPreset base = mine.from() == null ? null : e.version(mine.from());
        if (base == null) throw new FormatException(file.getFileName().toString(), "from",
                "names no version that is on the shelf; without what both were made from they cannot be merged");
        PresetMerge m = PresetMerge.of(base.preset(), e.newest().preset(), mine.preset());
        Map<String, Boolean> decided = new HashMap<>();
        if (take != null) take.forEach((k, v) -> decided.put(k, v.equals("mine")));
        List<PresetChanges.Change> open = m.conflicts().stream().filter(c -> !decided.containsKey(c.key())).toList();
        if (!open.isEmpty()) {
            open.forEach(c -> spec.commandLine().getErr().println("bake: both changed " + c.name() + ": theirs " + c.was() + ", mine " + c.is()
                    + "; decide with --take " + c.key() + "=mine or theirs"));
            return 2;
        }
        SharedPreset made = s.saveOver(mine.withPreset(m.decided(mine.preset(), decided)), e.newest().preset().version(), reason,
                author == null ? System.getProperty("user.name") : author);
        if (json) print(Json.MAPPER.valueToTree(made).toPrettyString());
        else print(made.id() + " on " + s.folder());
        return 0;
    }

    @Command(name = "retire", mixinStandardHelpOptions = true, description = "Say that a version is no longer to be used; or lock a preset.")
    int retire(@Parameters(paramLabel = "NAME[@VERSION]") String id, @Option(names = "--shelf", paramLabel = "FOLDER") Path folder,
            @Option(names = "--instead", paramLabel = "TEXT", defaultValue = "use a newer one") String instead,
            @Option(names = "--restore", description = "it is to be used again") boolean restore,
            @Option(names = "--lock", description = "let nobody save newer versions") boolean lock,
            @Option(names = "--unlock") boolean unlock, @Option(names = "--json") boolean json) throws IOException {
        PresetShelf s = shelf(folder);
        SharedPreset p = find(s, id);
        if (lock || unlock) s.lock(p.preset().name(), lock ? System.getProperty("user.name") : null);
        else s.retire(p.preset().name(), p.preset().version(), restore ? null : instead);
        String what = lock ? "locked" : unlock ? "unlocked" : restore ? "restored" : "retired";
        if (json) print(Json.MAPPER.createObjectNode().put("preset", p.id()).put("is", what).toPrettyString());
        else print(p.id() + " " + what);
        return 0;
    }
}
