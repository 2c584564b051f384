package bake.cli;

import bake.formats.Json;
import bake.studio.scene.MaterialLibrary;
import com.fasterxml.jackson.databind.node.ArrayNode;
import java.io.IOException;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine;

/** Lists the materials that ship with Bake, and where their reflectances come from. */
@Command(name = "materials", mixinStandardHelpOptions = true, sortOptions = false, description = "List the materials that ship with Bake.")
final class MaterialsCommand implements Callable<Integer> {
    @Option(names = "--json", description = "print one JSON document")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        if (json) {
            ArrayNode all = Json.MAPPER.createArrayNode();
            for (MaterialLibrary.Entry e : MaterialLibrary.all())
                all.addObject().put("name", e.name()).put("group", e.group()).put("reflectance", e.material().base().luminance())
                        .put("source", e.source());
            out.println(Json.MAPPER.writeValueAsString(all));
            return 0;
        }
        String group = "";
        for (MaterialLibrary.Entry e : MaterialLibrary.all()) {
            if (!e.group().equals(group)) out.println((group.isEmpty() ? "" : System.lineSeparator()) + (group = e.group()));
            out.printf(Locale.ROOT, "  %-26s %4.2f  %s%n", e.name(), e.material().base().luminance(), e.source());
        }
        return 0;
    }
}
