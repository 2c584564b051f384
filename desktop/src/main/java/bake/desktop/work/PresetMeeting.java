package bake.desktop.work;

import bake.formats.project.Preset;
import bake.formats.project.SharedPreset;
import bake.studio.preset.PresetMerge;
import bake.studio.preset.PresetShelf;
import java.util.HashMap;
import java.util.Map;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Two that saved one preset at the same time: what each changed, and how it is decided. Holds no control. */
public final class PresetMeeting {
    /**
     * A preset that could not be saved, since somebody else saved a newer version meanwhile.
     *
     * @param mine what was to be saved, {@code theirs} what is there, {@code base} what both were made from, or null
     * @param merge both brought together; null where there is no base
     * @param takesMine how its conflicts are decided, by key
     */
    public record Meeting(PresetShelf shelf, Preset mine, SharedPreset theirs, SharedPreset base, PresetMerge merge, String reason,
            Map<String, Boolean> takesMine) {}

    private final PresetHand hand;
    private final ObjectProperty<Meeting> found = new SimpleObjectProperty<>();

    PresetMeeting(PresetHand hand) {
        this.hand = hand;
    }

    /** Null while there is nothing to decide. */
    public ObjectProperty<Meeting> foundProperty() {
        return found;
    }

    void begin(PresetShelf s, Preset mine, PresetShelf.Conflict c, String reason) {
        PresetMerge m = c.base() == null ? null : PresetMerge.of(c.base().preset(), c.theirs().preset(), mine);
        found.set(new Meeting(s, mine, c.theirs(), c.base(), m, reason, Map.of()));
    }

    /** Decides a conflict. */
    public void decide(String key, boolean mine) {
        Meeting m = found.get();
        if (m == null) return;
        Map<String, Boolean> takes = new HashMap<>(m.takesMine);
        takes.put(key, mine);
        found.set(new Meeting(m.shelf, m.mine, m.theirs, m.base, m.merge, m.reason, Map.copyOf(takes)));
    }

    /** Whether every conflict is decided. */
    public boolean decided() {
        Meeting m = found.get();
        return m != null && m.merge != null && m.merge.conflicts().stream().allMatch(c -> m.takesMine.containsKey(c.key()));
    }

    /** Saves both brought together, on top of theirs. */
    public void merge() {
        Meeting m = found.get();
        if (m == null || !decided()) return;
        Preset both = m.merge.decided(m.mine, m.takesMine).named(m.theirs.preset().name(), m.theirs.preset().version());
        hand.saving(m.shelf, both, m.reason);
    }

    /** Saves mine under another name: both are kept. */
    public void keepBoth(String name) {
        Meeting m = found.get();
        if (m == null || name.isBlank() || name.equalsIgnoreCase(m.theirs.preset().name())) return;
        hand.saving(m.shelf, m.mine.named(name, 0), m.reason);
    }

    /** Leaves the shelf as it is; the settings stay changed here. */
    public void leaveIt() {
        found.set(null);
    }
}
