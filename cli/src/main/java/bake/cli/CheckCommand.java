package bake.cli;

import bake.formats.Json;
import bake.studio.project.ProjectCheck;
import bake.studio.scene.SceneAssembly;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Lists what an artist should look at before rendering. */
@Command(name = "check", mixinStandardHelpOptions = true, description = "List findings: what is wrong or doubtful in a project.")
final class CheckCommand implements Callable<Integer> {
    @Parameters(paramLabel = "PROJECT", description = "folder, project.json, or demo")
    private String project;

    @Option(names = "--json", description = "print one JSON document")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        Projects.Opened p = Projects.open(project, List.of());
        List<String> lines = ProjectCheck.findings(p.project(), new SceneAssembly(p.folder()));
        if (json) {
            ObjectNode n = Json.MAPPER.createObjectNode();
            lines.forEach(n.putArray("findings")::add);
            spec.commandLine().getOut().println(n.toPrettyString());
            return 0;
        }
        lines.forEach(spec.commandLine().getOut()::println);
        spec.commandLine().getOut().println(lines.isEmpty() ? "nothing found"
                : lines.size() + (lines.size() == 1 ? " finding" : " findings"));
        return 0;
    }
}
