package bake.cli;

import bake.formats.Json;
import bake.formats.project.DeliverySpec;
import bake.formats.project.Project;
import bake.studio.plan.Deliveries;
import bake.studio.queue.RenderQueue;
import bake.studio.report.Handover;
import bake.studio.report.Report;
import bake.studio.user.UserFolders;
import com.fasterxml.jackson.databind.node.ArrayNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Writes what a delivery is handed over with. */
@Command(name = "report", mixinStandardHelpOptions = true, sortOptions = false, description =
        "Write a page, a PDF and an archive of a delivery that the queue has made.")
final class ReportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "PROJECT", description = "folder, project.json, or demo")
    private String project;

    @Option(names = "--delivery", paramLabel = "NAME", description = "default: the last one")
    private String delivery;

    @Option(names = "--to", paramLabel = "FOLDER", description = "default: where the delivery's files are")
    private Path to;

    @Option(names = "--queue", paramLabel = "FOLDER", description = "where the queue lives (default: this user's, or BAKE_QUEUE)")
    private Path queue;

    @Option(names = "--json", description = "print one JSON document")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        Projects.Opened o = Projects.open(project, List.of());
        Project p = o.project();
        String name = delivery == null ? Deliveries.current(p).name() : delivery;
        DeliverySpec d = p.deliveries().stream().filter(x -> x.name().equals(name)).findFirst().orElse(Deliveries.FIRST.withName(name));
        RenderQueue q = new RenderQueue(queue == null ? UserFolders.queue() : queue);
        Report r = Report.of(q, p, o.folder(), name, Deliveries.before(p, name), Deliveries.due(p, d));
        List<Path> made = Handover.write(to == null ? Deliveries.folder(o.folder(), d) : to.toAbsolutePath(), r);
        if (!json) made.forEach(f -> spec.commandLine().getOut().println(f));
        else {
            ArrayNode a = Json.MAPPER.createArrayNode();
            made.forEach(f -> a.add(f.toString()));
            spec.commandLine().getOut().println(a.toPrettyString());
        }
        return 0;
    }
}
