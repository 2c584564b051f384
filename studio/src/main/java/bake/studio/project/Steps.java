package bake.studio.project;

import bake.formats.project.Preset;
import bake.formats.project.Project;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/** What can be undone and done again. */
final class Steps {
    private static final int DEEPEST = 300;
    private static final long SAME_EDIT_NANOS = 1_200_000_000L;

    /**
     * A project, and with what settings its next proofs are made.
     *
     * @param drafts presets as they were changed, by name
     */
    record State(Project project, Map<String, Preset> drafts) {
        /** The name of what leads from here to another state. */
        String to(State after) {
            // A preset that was only chosen meanwhile is no change.
            Set<String> both = new TreeSet<>(drafts.keySet());
            both.retainAll(after.drafts.keySet());
            return EditNames.of(whole(both), after.whole(both));
        }

        private Project whole(Set<String> names) {
            List<Preset> all = new ArrayList<>(project.presets());
            all.removeIf(p -> names.contains(p.name()));
            names.forEach(n -> all.add(drafts.get(n)));
            return project.withPresets(all);
        }
    }

    private final Deque<State> undo = new ArrayDeque<>(), redo = new ArrayDeque<>();
    private String lastKey;
    private long lastEdit;

    /**
     * Begins a step, or goes on with the last one where that has the same key and is not long ago.
     *
     * @param key what is edited, or null; with a # and the number of a gesture it goes on however long it takes
     * @param before what undo brings back
     */
    void begin(String key, State before) {
        long now = System.nanoTime();
        boolean same = key != null && key.equals(lastKey) && (key.contains("#") || now - lastEdit < SAME_EDIT_NANOS) && !undo.isEmpty();
        if (!same) undo.push(before);
        while (undo.size() > DEEPEST) undo.removeLast();
        redo.clear();
        lastKey = key;
        lastEdit = now;
    }

    /** Whatever comes next is a step of its own. */
    void end() {
        lastKey = null;
    }

    boolean canUndo() {
        return !undo.isEmpty();
    }

    boolean canRedo() {
        return !redo.isEmpty();
    }

    /** What undo would take back, such as "time to 14:20"; empty for nothing. */
    String undoes(State now) {
        return undo.isEmpty() ? "" : undo.peek().to(now);
    }

    String redoes(State now) {
        return redo.isEmpty() ? "" : now.to(redo.peek());
    }

    /** What undo brings back; there must be something. */
    State before() {
        return undo.peek();
    }

    /** What redo brings back; there must be something. */
    State after() {
        return redo.peek();
    }

    /** The state before the last step. */
    State undo(State now) {
        redo.push(now);
        lastKey = null;
        return undo.pop();
    }

    State redo(State now) {
        undo.push(now);
        lastKey = null;
        return redo.pop();
    }

    void clear() {
        undo.clear();
        redo.clear();
    }

    /** Projects that can come back. */
    List<Project> projects() {
        List<Project> out = new ArrayList<>();
        undo.forEach(s -> out.add(s.project));
        redo.forEach(s -> out.add(s.project));
        return out;
    }
}
