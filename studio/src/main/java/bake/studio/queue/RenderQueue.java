package bake.studio.queue;

import bake.formats.Json;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What is to be rendered on this machine, in order, with what has become of it. It lives in a folder; processes that look at it or change
 * it each have an instance of their own, and see what others did at {@link #refresh}. What changes it is on the disk when the call returns.
 */
public final class RenderQueue {
    private final Path folder;
    private final Journal journal;
    private final Map<Integer, QueueEntry> entries = new LinkedHashMap<>();
    /** Jobs in the order that was asked for. */
    private final List<Integer> order = new ArrayList<>();
    private final Set<Integer> keep = new HashSet<>();
    private boolean paused;
    private QueueHours hours = QueueHours.ALWAYS;
    private Manners manners = Manners.ALL;

    public RenderQueue(Path folder) {
        this.folder = folder;
        journal = new Journal(folder);
    }

    public Path folder() {
        return folder;
    }

    /** Sees what was done since. */
    public synchronized void refresh() throws IOException {
        for (JsonNode e : journal.read()) apply(e);
    }

    private void apply(JsonNode e) {
        int id = e.path("id").asInt();
        QueueEntry q = entries.get(id);
        switch (e.path("kind").asText()) {
            case "add" -> {
                try {
                    QueueJob j = Json.MAPPER.treeToValue(e.path("job"), QueueJob.class);
                    entries.put(j.id(), QueueEntry.of(j));
                    order.add(j.id());
                } catch (JsonProcessingException | IllegalArgumentException x) {
                    org.slf4j.LoggerFactory.getLogger(RenderQueue.class).warn("a job of the queue cannot be read: {}", x.getMessage());
                }
            }
            case "pause" -> paused = true;
            case "resume" -> paused = false;
            case "hours", "manners" -> settle(e);
            case "move" -> {
                if (q == null) return;
                order.remove((Integer) id);
                int before = order.indexOf(e.path("before").asInt());
                order.add(before < 0 ? order.size() : before, id);
            }
            default -> {
                if (q != null) change(q, e);
            }
        }
    }

    /** A word that is not known, such as one of a later version, changes nothing. */
    private void settle(JsonNode e) {
        try {
            if (e.path("kind").asText().equals("hours")) hours = QueueHours.of(e.path("hours").asText());
            else manners = Manners.of(e.path("manners").asText());
        } catch (IllegalArgumentException x) {
            org.slf4j.LoggerFactory.getLogger(RenderQueue.class).warn("a setting of the queue cannot be read: {}", x.getMessage());
        }
    }

    private void change(QueueEntry q, JsonNode e) {
        int id = q.job().id();
        String at = e.path("at").asText();
        QueueEntry n = switch (e.path("kind").asText()) {
            case "begin" -> q.withState(QueueEntry.State.RENDERING).withBegun(q.begun() == null ? at : q.begun()).withNote("");
            case "writing" -> q.withWriting(true);
            case "files" -> {
                List<String> f = new ArrayList<>();
                e.path("files").forEach(x -> f.add(x.asText()));
                yield q.withJob(q.job().withFiles(f));
            }
            case "done", "kept" -> {
                List<String> sums = new ArrayList<>();
                e.path("sums").forEach(x -> sums.add(x.asText()));
                yield q.withState(e.path("kind").asText().equals("done") ? QueueEntry.State.DONE : QueueEntry.State.KEPT)
                        .withSeconds(e.path("seconds").asDouble()).withNoise(e.path("noise").asDouble())
                        .withPasses(e.path("passes").asInt()).withSums(List.copyOf(sums)).withEnded(at).withNote(e.path("note").asText());
            }
            case "trouble" -> q.withState(e.path("again").asBoolean() ? QueueEntry.State.WAITING : QueueEntry.State.FAILED)
                    .withTries(q.tries() + 1).withNote(e.path("note").asText()).withEnded(e.path("again").asBoolean() ? null : at);
            case "cancel" -> q.state().over() ? q : q.withState(QueueEntry.State.CANCELLED).withEnded(at);
            case "again" -> {
                keep.remove(id);
                yield q.withState(QueueEntry.State.WAITING).withTries(0).withNote("").withEnded(null);
            }
            case "priority" -> q.withJob(q.job().withPriority(e.path("priority").asInt()));
            case "keep" -> {
                keep.add(id);
                yield q;
            }
            case "forget" -> null;
            default -> q;
        };
        if (n == null) {
            entries.remove(id);
            order.remove((Integer) id);
        } else entries.put(id, n);
    }

    /** All there are, in the order in which they come: higher priorities first, and within them as they were put. */
    public synchronized List<QueueEntry> entries() {
        List<QueueEntry> out = new ArrayList<>(order.stream().map(entries::get).filter(java.util.Objects::nonNull).toList());
        out.sort(Comparator.comparingInt((QueueEntry q) -> -q.job().priority()));
        return out;
    }

    /** The one of a number, or null. */
    public synchronized QueueEntry entry(int id) {
        return entries.get(id);
    }

    /** What is to be rendered now: what had trouble comes after all that had less. */
    public synchronized QueueEntry next() {
        return entries().stream().filter(q -> !q.state().over()).min(Comparator.comparingInt(QueueEntry::tries)).orElse(null);
    }

    public synchronized boolean paused() {
        return paused;
    }

    /** When it may work. */
    public synchronized QueueHours hours() {
        return hours;
    }

    /** What it leaves to somebody who works at the machine. */
    public synchronized Manners manners() {
        return manners;
    }

    /** Whether a picture in work is to be stopped, and what it has so far kept. */
    synchronized boolean keeps(int id) {
        return keep.contains(id);
    }

    static ObjectNode event(String kind, int id) {
        ObjectNode n = Json.MAPPER.createObjectNode().put("kind", kind);
        if (id > 0) n.put("id", id);
        return n.put("at", LocalDateTime.now().truncatedTo(ChronoUnit.SECONDS).toString());
    }

    void tell(ObjectNode event) throws IOException {
        journal.write(out -> out.add(event));
        refresh();
    }

    /**
     * Adds pictures of a project as it is now: what is edited later does not change them. Files that are there already, or that another
     * picture of the queue is going to write, get numbered names unless they are to be replaced.
     *
     * @return them with their numbers and files
     */
    public synchronized List<QueueJob> add(Project project, List<QueueJob> jobs) throws IOException {
        return journal.write(out -> {
            refresh();
            int id = 0;
            for (int known : entries.keySet()) id = Math.max(id, known);
            id = Math.max(id, lastGiven());
            Set<String> taken = new HashSet<>();
            for (QueueEntry q : entries.values()) if (!q.state().over()) taken.addAll(q.job().files());
            List<QueueJob> made = new ArrayList<>();
            for (QueueJob j : jobs) {
                QueueJob n = j.withId(++id).withFiles(FileNames.free(j.files(), taken, j.replace()));
                taken.addAll(n.files());
                // The state first: a job that is in the journal can always be made.
                ProjectFile.write(state(id), project);
                n = n.withState(Snapshot.take(n, project, state(id).getParent()));
                made.add(n);
                out.add(event("add", 0).set("job", Json.MAPPER.valueToTree(n)));
            }
            return List.copyOf(made);
        });
    }

    /** Numbers are never given twice, even those of jobs that were forgotten. */
    private int lastGiven() throws IOException {
        Path jobs = folder.resolve("jobs");
        if (!Files.isDirectory(jobs)) return 0;
        try (var all = Files.list(jobs)) {
            return all.map(p -> p.getFileName().toString()).filter(n -> n.matches("\\d{1,9}")).mapToInt(Integer::parseInt).max().orElse(0);
        }
    }

    /** The project as it was when a picture was added. */
    Path state(int id) {
        return folder.resolve("jobs").resolve(Integer.toString(id)).resolve(ProjectFile.NAME);
    }

    /** What the project was when a picture was added. */
    public Project project(int id) throws IOException {
        return ProjectFile.read(state(id));
    }

    /** A small picture of how far one is. */
    public Path small(int id) {
        return folder.resolve("jobs").resolve(Integer.toString(id)).resolve("small.png");
    }

    public void pause(boolean wanted) throws IOException {
        tell(event(wanted ? "pause" : "resume", 0));
    }

    public void hours(QueueHours h) throws IOException {
        ObjectNode n = event("hours", 0);
        tell(n.put("hours", h.text()));
    }

    public void manners(Manners m) throws IOException {
        tell(event("manners", 0).put("manners", m.word()));
    }

    /** Takes a picture out; one in work is stopped, and what it has is not written. */
    public void cancel(int id) throws IOException {
        tell(event("cancel", known(id)));
    }

    /** Stops the picture in work and writes what it has, under a name that says so. */
    public void stopAndKeep(int id) throws IOException {
        tell(event("keep", known(id)));
    }

    /** Tries one again that failed or was cancelled. */
    public void again(int id) throws IOException {
        tell(event("again", known(id)));
    }

    /** Puts a picture before another one, or at the end for 0. */
    public void move(int id, int before) throws IOException {
        tell(event("move", known(id)).put("before", before));
    }

    public void priority(int id, int p) throws IOException {
        tell(event("priority", known(id)).put("priority", p));
    }

    /** Takes those from the list that are over. */
    public void forget() throws IOException {
        refresh();
        for (QueueEntry q : entries()) if (q.state().over()) tell(event("forget", q.job().id()));
    }

    private synchronized int known(int id) throws IOException {
        refresh();
        if (!entries.containsKey(id)) throw new IllegalArgumentException("there is no picture " + id + " in the queue; it has "
                + (entries.isEmpty() ? "none" : String.join(", ", entries.keySet().stream().map(k -> "" + k).toList())));
        return id;
    }
}
