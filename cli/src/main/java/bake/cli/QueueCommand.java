package bake.cli;

import bake.core.work.Workers;
import bake.formats.Json;
import bake.formats.picture.DisplayPicture;
import bake.formats.project.DeliverySpec;
import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.studio.estimate.WorkLog;
import bake.studio.plan.Deliveries;
import bake.studio.plan.DryRun;
import bake.studio.preset.PresetKeys;
import bake.studio.preset.Presets;
import bake.studio.preset.Shelves;
import bake.studio.queue.Manners;
import bake.studio.queue.QueueEntry;
import bake.studio.queue.QueueHours;
import bake.studio.queue.QueueJob;
import bake.studio.queue.QueueProcess;
import bake.studio.queue.QueueStatus;
import bake.studio.queue.QueueWorker;
import bake.studio.queue.RenderQueue;
import bake.studio.report.ContactSheet;
import bake.studio.user.UserFolders;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** The queue of finals of this machine. */
@Command(name = "queue", mixinStandardHelpOptions = true, description =
        "Finals that are rendered one after another, whatever becomes of the window. They survive crashes, and go on where they were.")
final class QueueCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    /** What all of them take. */
    static final class Common {
        @Option(names = "--queue", paramLabel = "FOLDER", description = "where the queue lives (default: this user's, or BAKE_QUEUE)")
        private Path folder;

        @Option(names = "--json", description = "print one JSON document")
        private boolean json;

        RenderQueue queue() throws IOException {
            RenderQueue q = new RenderQueue(folder == null ? UserFolders.queue() : folder);
            q.refresh();
            return q;
        }
    }

    @Override
    public void run() {
        throw new CommandLine.ParameterException(spec.commandLine(),
                "say what to do: add, dry, list, start, run, pause, resume, cancel, keep, again, move, hours, beside or forget");
    }

    private void print(String text) {
        spec.commandLine().getOut().println(text);
    }

    @Command(name = "add", mixinStandardHelpOptions = true, description = "Add a project's delivery, or some of its views, as they are now.")
    int add(@Parameters(paramLabel = "PROJECT", arity = "1..*") List<String> projects,
            @Option(names = "--view", paramLabel = "NAME", description = "only these; may be given again") List<String> views,
            @Option(names = "--preset", paramLabel = "NAME[@VERSION]", description = "default: the delivery's, or the final that suits") String preset,
            @Option(names = "--shelf", paramLabel = "FOLDER") Path shelf,
            @Option(names = "--size", paramLabel = "WxH", description = "default: the delivery's") String size,
            @Option(names = "--to", paramLabel = "FOLDER", description = "default: the delivery's, or the project's finals") Path to,
            @Option(names = "--files", paramLabel = "KIND", split = ",", description = "png, tif, jpg, exr, hdr") List<String> files,
            @Option(names = "--priority", paramLabel = "N", description = "higher ones come first") int priority,
            @Option(names = "--replace", description = "files of the same names go once the new ones are whole") boolean replace,
            @Option(names = "--set", paramLabel = "path=value") List<String> sets, @Mixin Common common) throws IOException {
        RenderQueue q = common.queue();
        ArrayNode out = Json.MAPPER.createArrayNode();
        for (String name : projects) {
            Projects.Opened p = Projects.open(name, sets);
            DeliverySpec d = Deliveries.current(p.project());
            if (files != null) d = d.withFiles(List.copyOf(files));
            if (to != null) d = d.withFolder(to.toAbsolutePath().toString());
            List<Deliveries.Picture> wanted = new ArrayList<>();
            for (Deliveries.Picture x : Deliveries.pictures(p.project(), p.folder(), d, LocalDate.now())) {
                if (views == null ? x.off() : !views.contains(x.view().name())) continue;
                Preset s = preset == null ? x.preset() : Presets.named(p.project(), x.view(), preset, Shelves.of(p.folder(), shelf));
                s = PresetKeys.set(p.project(), s, sets);
                int[] wh = size != null ? RenderCommand.size(size) : preset != null ? Presets.size(s, x.view())
                        : new int[] {x.width(), x.height()};
                wanted.add(new Deliveries.Picture(x.view(), s, wh[0], wh[1], x.files(), false));
            }
            if (views != null) for (String v : views) p.view(v);
            Project now = p.project();
            for (QueueJob j : Deliveries.add(q, now, p.folder(), d, wanted, replace, null)) {
                if (priority != 0) q.priority(j.id(), priority);
                out.add(Json.MAPPER.createObjectNode().put("id", j.id()).put("project", j.title()).put("view", j.view()).put("preset",
                        j.preset().name()).put("width", j.width()).put("height", j.height()).set("files", Json.MAPPER.valueToTree(j.files())));
            }
        }
        if (common.json) print(out.toPrettyString());
        else out.forEach(n -> print(n.path("id").asInt() + "  " + n.path("view").asText() + "  " + n.path("width") + "x" + n.path("height") + "  "
                + n.path("preset").asText() + "  " + n.path("files").get(0).asText()));
        return 0;
    }

    @Command(name = "dry", mixinStandardHelpOptions = true, description =
            "Make every picture of a delivery at a sixteenth of its pixels, on one sheet to look at before the night.")
    int dry(@Parameters(paramLabel = "PROJECT") String project, @Option(names = {"-o", "--out"}, paramLabel = "FILE", description =
            "sheet, .png or .jpg (default: dry-run.png where the delivery goes)") Path to,
            @Option(names = "--threads", paramLabel = "N") Integer threads, @Option(names = "--set", paramLabel = "path=value") List<String> sets,
            @Option(names = "--json", description = "print one JSON document") boolean json) throws IOException {
        Projects.Opened p = Projects.open(project, sets);
        DeliverySpec d = Deliveries.current(p.project());
        List<Deliveries.Picture> all = Deliveries.pictures(p.project(), p.folder(), d, LocalDate.now()).stream().filter(
                x -> !x.off()).toList();
        List<DryRun.Small> made = new ArrayList<>();
        Path file = to == null ? Deliveries.folder(p.folder(), d).resolve("dry-run.png") : to.toAbsolutePath();
        try (Workers w = new Workers(threads == null ? Runtime.getRuntime().availableProcessors() : threads)) {
            DryRun r = new DryRun(w);
            // What was made until somebody stopped it is on the sheet.
            try (Interrupt i = Interrupt.calls(r::stop)) {
                r.make(p.project(), p.folder(), all, made::add);
                sheet(file, p.project().name() + ", " + d.name() + ", dry run", made);
            }
        }
        boolean good = made.size() == all.size() && made.stream().allMatch(s -> s.trouble() == null);
        if (json) {
            ObjectNode n = Json.MAPPER.createObjectNode().put("sheet", file.toString());
            ArrayNode a = n.putArray("pictures");
            made.forEach(s -> a.addObject().put("view", s.view()).put("width", s.width()).put("height", s.height()).put("trouble", s.trouble()));
            print(n.toPrettyString());
        } else {
            made.forEach(s -> print(s.view() + (s.trouble() == null ? "  " + s.width() + "x" + s.height() : ": " + s.trouble())));
            print(file.toString());
        }
        return good ? 0 : 1;
    }

    private static void sheet(Path file, String title, List<DryRun.Small> made) throws IOException {
        ContactSheet.write(file, title, made.stream().map(s -> new ContactSheet.Cell(s.trouble() == null ? s.view() : s.view() + ": " + s.trouble(),
                s.argb() == null ? null : DisplayPicture.image8(s.width(), s.height(), s.argb(), false))).toList());
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "What is in the queue and how it stands.")
    int list(@Mixin Common common) throws IOException {
        RenderQueue q = common.queue();
        QueueStatus s = QueueStatus.read(q.folder());
        ObjectNode out = Json.MAPPER.createObjectNode().put("paused", q.paused()).put("hours", q.hours().text()).put("beside", q.manners().word()).put("worked", s != null);
        ArrayNode all = out.putArray("pictures");
        for (QueueEntry e : q.entries()) {
            QueueJob j = e.job();
            ObjectNode n = all.addObject().put("id", j.id()).put("project", j.title()).put("view", j.view()).put("state", state(e, s))
                    .put("preset", j.preset().name()).put("version", j.preset().version()).put("width", j.width()).put("height", j.height())
                    .put("priority", j.priority()).put("tries", e.tries()).put("note", e.note());
            n.set("files", Json.MAPPER.valueToTree(j.files()));
            n.set("sha256", Json.MAPPER.valueToTree(e.sums()));
            if (e.state().over()) n.put("seconds", e.seconds()).put("noise", e.noise()).put("passes", e.passes());
            else if (s != null && s.job() == j.id()) n.put("seconds", s.seconds()).put("noise", s.noise()).put("passes", s.passes())
                    .put("left", s.left()).put("fraction", s.fraction());
            if (j.due() != null) n.put("due", j.due());
        }
        if (common.json) {
            print(out.toPrettyString());
            return 0;
        }
        print((all.isEmpty() ? "empty" : all.size() + (all.size() == 1 ? " picture" : " pictures")) + (q.paused() ? ", resting" : "")
                + ", hours: " + q.hours().text() + (s == null ? ", nobody works it: bake queue start" : ", worked by process " + s.process()));
        all.forEach(n -> print(String.format(Locale.ROOT, "%3d  %-13s %s, %s  %sx%s%s%s", n.path("id").asInt(), n.path("state").asText(),
                n.path("project").asText(), n.path("view").asText(), n.path("width"), n.path("height"), n.path("left").asDouble(-1) > 0
                        ? String.format(Locale.ROOT, ", %.0f s left", n.path("left").asDouble()) : "", n.path("note").asText().isEmpty() ? ""
                        : "\n     " + n.path("note").asText())));
        return 0;
    }

    /** A picture that nobody is at waits, whatever the journal says: who was at it was killed. */
    private static String state(QueueEntry e, QueueStatus s) {
        return e.state() == QueueEntry.State.RENDERING && s == null ? QueueEntry.State.WAITING.word() : e.state().word();
    }

    @Command(name = "run", mixinStandardHelpOptions = true, description =
            "Work the queue in the foreground until it is empty. Exit code 0 when all is done, 1 when something failed.")
    int work(@Option(names = "--threads", paramLabel = "N") Integer threads, @Mixin Common common) throws IOException {
        RenderQueue q = common.queue();
        boolean good;
        try (QueueWorker w = new QueueWorker(q, threads == null ? Runtime.getRuntime().availableProcessors() : threads, WorkLog.shared(),
                Clock.systemDefaultZone()); Interrupt i = Interrupt.calls(w::quit)) {
            good = w.run(false);
        }
        list(common);
        return good ? 0 : 1;
    }

    @Command(name = "start", mixinStandardHelpOptions = true, description = "Work the queue in a process of its own, which goes on without this one.")
    int start(@Mixin Common common) throws IOException {
        RenderQueue q = common.queue();
        boolean begun = QueueProcess.start(q.folder());
        if (common.json) print(Json.MAPPER.createObjectNode().put("started", begun).toPrettyString());
        else print(begun ? "started; bake queue list shows how far it is" : "somebody works it already");
        return 0;
    }

    @Command(name = "pause", mixinStandardHelpOptions = true, description = "Give the machine back within a moment; nothing is lost.")
    int pause(@Mixin Common common) throws IOException {
        common.queue().pause(true);
        return list(common);
    }

    @Command(name = "resume", mixinStandardHelpOptions = true, description = "Go on.")
    int resume(@Mixin Common common) throws IOException {
        common.queue().pause(false);
        return list(common);
    }

    @Command(name = "cancel", mixinStandardHelpOptions = true, description = "Take pictures out; what one in work has is not written.")
    int cancel(@Parameters(paramLabel = "ID", arity = "1..*") List<Integer> ids, @Mixin Common common) throws IOException {
        for (int id : ids) common.queue().cancel(id);
        return list(common);
    }

    @Command(name = "keep", mixinStandardHelpOptions = true, description = "Stop the picture in work and write what it has, under a name that says so.")
    int keep(@Parameters(paramLabel = "ID") int id, @Mixin Common common) throws IOException {
        common.queue().stopAndKeep(id);
        return list(common);
    }

    @Command(name = "again", mixinStandardHelpOptions = true, description = "Try pictures again that failed or were stopped.")
    int again(@Parameters(paramLabel = "ID", arity = "1..*") List<Integer> ids, @Mixin Common common) throws IOException {
        for (int id : ids) common.queue().again(id);
        return list(common);
    }

    @Command(name = "move", mixinStandardHelpOptions = true, description = "Put a picture before another one, or at the end.")
    int move(@Parameters(paramLabel = "ID") int id, @Option(names = "--before", paramLabel = "ID") int before,
            @Option(names = "--priority", paramLabel = "N") Integer priority, @Mixin Common common) throws IOException {
        if (priority == null || before > 0) common.queue().move(id, before);
        if (priority != null) common.queue().priority(id, priority);
        return list(common);
    }

    @Command(name = "hours", mixinStandardHelpOptions = true, description = "When this machine may render: always, nights, or such as \"19:00-07:30, weekends\".")
    int hours(@Parameters(paramLabel = "HOURS") String text, @Mixin Common common) throws IOException {
        common.queue().hours(QueueHours.of(text));
        return list(common);
    }

    @Command(name = "beside", mixinStandardHelpOptions = true, description =
            "What the queue takes of the machine while someone works at it: all (usual), half or rest.")
    int beside(@Parameters(paramLabel = "WHAT") String what, @Mixin Common common) throws IOException {
        common.queue().manners(Manners.of(what));
        return list(common);
    }

    @Command(name = "forget", mixinStandardHelpOptions = true, description = "Take those from the list that are over; their files stay.")
    int forget(@Mixin Common common) throws IOException {
        common.queue().forget();
        return list(common);
    }
}
