package bake.cli;

import bake.core.work.Workers;
import bake.formats.Json;
import bake.formats.project.Project;
import bake.studio.estimate.Estimate;
import bake.studio.plan.Deliveries;
import bake.studio.plan.Fit;
import bake.studio.plan.Foresight;
import bake.studio.plan.Plan;
import bake.studio.queue.QueueHours;
import bake.studio.queue.RenderQueue;
import bake.studio.user.UserFolders;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Says when a delivery will be ready. */
@Command(name = "plan", mixinStandardHelpOptions = true, sortOptions = false, description =
        "Say when a project's delivery will be ready, the chance of being in time, and what would make it fit.")
final class PlanCommand implements Callable<Integer> {
    @Parameters(paramLabel = "PROJECT", description = "folder, project.json, or demo")
    private String project;

    @Option(names = "--hours", paramLabel = "HOURS", description = "always, nights, or such as \"19:00-07:30, weekends\" (default: the queue's)")
    private String hours;

    @Option(names = "--threads", paramLabel = "N", description = "default: all processors")
    private Integer threads;

    @Option(names = "--set", paramLabel = "path=value", description = "change the project for this")
    private List<String> sets;

    @Option(names = "--json", description = "print one JSON document")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        Projects.Opened o = Projects.open(project, sets);
        Project p = o.project();
        var d = Deliveries.current(p);
        RenderQueue queue = new RenderQueue(UserFolders.queue());
        queue.refresh();
        QueueHours h = hours == null ? queue.hours() : QueueHours.of(hours);
        ZonedDateTime now = ZonedDateTime.now();
        String said = Deliveries.due(p, d);
        try (Workers w = new Workers(threads == null ? Runtime.getRuntime().availableProcessors() : threads)) {
            Foresight f = new Foresight(o.folder(), w);
            List<Foresight.Known> known = f.all(p, (name, done) -> {
                if (!json) spec.commandLine().getErr().print("\rmaking a small picture of " + name + "        ");
            }, () -> false);
            if (!json) spec.commandLine().getErr().println();
            List<Plan.Work> works = known.stream().map(Foresight.Known::work).toList();
            Plan plan = Plan.of(works, h, now, said == null ? null : LocalDateTime.parse(said).atZone(now.getZone()));
            List<Fit.Way> ways = Fit.ways(p, o.folder(), works, h, now, f::quick);
            if (json) json(plan, known, ways, said);
            else text(plan, ways, said);
        }
        return 0;
    }

    private void json(Plan plan, List<Foresight.Known> known, List<Fit.Way> ways, String due) throws IOException {
        ObjectNode n = Json.MAPPER.createObjectNode();
        ArrayNode bars = n.putArray("pictures");
        for (int i = 0; i < plan.bars().size(); i++) {
            Plan.Bar b = plan.bars().get(i);
            Estimate e = known.get(i).estimate();
            bars.addObject().put("view", b.work().name()).put("seconds", b.work().seconds()).put("low", b.work().low()).put("high", b.work().high())
                    .put("noise", e.noise()).put("basis", e.basis()).put("begin", iso(b.begin())).put("end", iso(b.end()))
                    .put("early", iso(b.early())).put("late", iso(b.late()));
        }
        n.put("end", iso(plan.end())).put("early", iso(plan.early())).put("late", iso(plan.late()));
        if (due != null) n.put("due", due).put("chance", plan.chance());
        ArrayNode all = n.putArray("ways");
        for (Fit.Way w : ways) all.addObject().put("what", w.words()).put("gain", w.gain()).put("chance", w.chance());
        spec.commandLine().getOut().println(n.toPrettyString());
    }

    private static String iso(ZonedDateTime t) {
        return t.format(DateTimeFormatter.ISO_OFFSET_DATE_TIME);
    }

    private void text(Plan plan, List<Fit.Way> ways, String due) {
        var out = spec.commandLine().getOut();
        DateTimeFormatter f = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
        for (Plan.Bar b : plan.bars()) out.println(b.begin().format(f) + " to " + b.end().format(f) + "  " + b.work().name());
        out.println("ready " + plan.end().format(f) + " (" + plan.early().format(f) + " to " + plan.late().format(f) + ")"
                + (due == null ? "" : String.format(Locale.ROOT, "; due %s, in time with a chance of %.0f %%", due, 100 * plan.chance())));
        for (Fit.Way w : ways) out.println(String.format(Locale.ROOT, "  %s: %s%.0f min, then %.0f %%", w.words(), w.gain() < 0 ? "costs " : "saves ",
                Math.abs(w.gain()) / 60, 100 * w.chance()));
    }
}
