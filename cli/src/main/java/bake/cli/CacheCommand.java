package bake.cli;

import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.light.CacheFile;
import bake.formats.project.View;
import bake.studio.cache.CacheStore;
import bake.studio.preset.Presets;
import bake.studio.preset.Shelves;
import bake.studio.render.EngineSettings;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Looks after a folder of caches of light. */
@Command(name = "cache", mixinStandardHelpOptions = true, description =
        "Say what caches of light a folder holds, check, lock or clear them.")
final class CacheCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(spec.commandLine(), "say what to do: info, check or clear");
    }

    private static CacheStore store(Path folder) throws FormatException {
        if (!Files.isDirectory(folder))
            throw new FormatException(folder.toString(), null, "is no folder; give the one that render --caches was given");
        return new CacheStore(folder);
    }

    @Command(name = "info", mixinStandardHelpOptions = true, description =
            "List the caches: kind, records, size, when and for which view they were kept.")
    int info(@Parameters(paramLabel = "FOLDER") Path folder, @Option(names = "--project", paramLabel = "PROJECT",
            description = "say what has changed against a project's view") String project,
            @Option(names = "--view", paramLabel = "NAME") String view,
                    @Option(names = "--preset", paramLabel = "NAME", defaultValue = "test",
                    description = "whose solvers the caches are to fit") String preset,
                    @Option(names = "--json", description = "print one JSON document") boolean json) throws IOException {
        CacheStore store = store(folder);
        List<CacheStore.Entry> all;
        if (project == null) all = store.list();
        else {
            Projects.Opened p = Projects.open(project, List.of());
            View v = p.view(view);
            all = store.list(p.project(), p.folder(), v, EngineSettings.bounced(Presets.named(p.project(), v, preset, Shelves.of(p.folder(),
                    null))));
        }
        ArrayNode out = Json.MAPPER.createArrayNode();
        for (CacheStore.Entry e : all) {
            ObjectNode n = out.addObject().put("file", e.file().getFileName().toString()).put("kind", e.kind()).put("records", e.rows())
                    .put("bytes", e.bytes())
                    .put("view", e.words().getOrDefault("view", "")).put("kept", e.words().getOrDefault("kept", ""))
                    .put("locked", e.locked());
            if (project != null) e.changed().forEach(n.putArray("changed")::add);
            if (e.problem() != null) n.put("problem", e.problem());
            if (json) continue;
            String state = e.problem() != null ? e.problem() : project == null ? "" : e.fits() ? "fits"
                    : "changed since: " + String.join(", ", e.changed());
            spec.commandLine().getOut().printf(Locale.ROOT, "%s: %s, %d records, %.1f MB, of %s, %s  %s%n", e.file().getFileName(),
                    e.kind(), e.rows(), e.bytes() / 1e6, e.words().getOrDefault("view", "?"),
                    e.words().getOrDefault("kept", "?"), e.locked() ? "locked  " + state : state);
        }
        if (json) spec.commandLine().getOut().println(Json.MAPPER.writeValueAsString(out));
        else if (all.isEmpty()) spec.commandLine().getOut().println("no caches");
        return 0;
    }

    @Command(name = "check", mixinStandardHelpOptions = true, description = "Read every cache whole. Exit code 2 when one is damaged.")
    int check(@Parameters(paramLabel = "FOLDER") Path folder) throws IOException {
        int bad = 0;
        for (CacheStore.Entry e : store(folder).list()) {
            try {
                CacheFile.read(e.file());
                spec.commandLine().getOut().println(e.file().getFileName() + ": sound");
            } catch (FormatException x) {
                bad++;
                spec.commandLine().getErr().println("bake: " + x.getMessage());
            }
        }
        return bad > 0 ? 2 : 0;
    }

    @Command(name = "lock", mixinStandardHelpOptions = true, description =
            "Keep the caches of a folder from being replaced or cleared; they are used all the same.")
    int lock(@Parameters(paramLabel = "FOLDER") Path folder) throws IOException {
        store(folder).lock(true);
        return 0;
    }

    @Command(name = "unlock", mixinStandardHelpOptions = true, description = "Let the caches of a folder be replaced and cleared again.")
    int unlock(@Parameters(paramLabel = "FOLDER") Path folder) throws IOException {
        store(folder).lock(false);
        return 0;
    }

    @Command(name = "clear", mixinStandardHelpOptions = true, description =
            "Delete the caches of a folder that are not locked; nothing else in it is touched.")
    int clear(@Parameters(paramLabel = "FOLDER") Path folder) throws IOException {
        spec.commandLine().getOut().printf(Locale.ROOT, "%.1f MB freed%n", store(folder).clear() / 1e6);
        return 0;
    }
}
