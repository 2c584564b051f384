package bake.cli;

import bake.formats.Json;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Says what files hold. */
@Command(name = "info", mixinStandardHelpOptions = true, description = "Say what model, picture, photometric or project files hold.")
final class InfoCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", arity = "1..*")
    private List<Path> files;

    @Option(names = "--json", description = "print one JSON document: an array with an object for each file")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() {
        int code = 0;
        ArrayNode all = Json.MAPPER.createArrayNode();
        for (Path f : files) {
            try {
                ObjectNode n = FileFacts.of(f);
                if (json) all.add(n);
                else FileFacts.print(n, spec.commandLine().getOut());
            } catch (IOException | IllegalArgumentException e) {
                if (json) all.addObject().put("file", f.toString()).put("error", e.getMessage());
                spec.commandLine().getErr().println("bake: " + e.getMessage());
                code = 2;
            }
        }
        if (json) spec.commandLine().getOut().println(all.toPrettyString());
        return code;
    }
}
