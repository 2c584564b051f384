package bake.desktop.work;

import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.Set;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** Which lamps are worked on: one whose values are shown, and others that change with it. Holds no control. */
public final class LampChoice {
    private final StringProperty first = new SimpleStringProperty();
    private final ReadOnlyObjectWrapper<Set<String>> all = new ReadOnlyObjectWrapper<>(Set.of());
    private boolean adding;

    LampChoice() {
        first.addListener((o, a, b) -> {
            if (!adding) all.set(b == null ? Set.of() : Set.of(b));
        });
    }

    /** Name of the lamp whose values are shown, or null; to choose one is to choose it alone. */
    StringProperty firstProperty() {
        return first;
    }

    /** Names of all that are chosen. */
    public ReadOnlyObjectProperty<Set<String>> allProperty() {
        return all.getReadOnlyProperty();
    }

    /** Adds a lamp to those that are chosen, or takes it away. */
    public void toggle(String name) {
        Set<String> s = new LinkedHashSet<>(all.get());
        if (!s.remove(name)) s.add(name);
        take(s, s.contains(name) ? name : s.isEmpty() ? null : s.iterator().next());
    }

    /** Chooses all of these. */
    public void choose(Collection<String> names) {
        take(new LinkedHashSet<>(names), names.isEmpty() ? null : names.iterator().next());
    }

    private void take(Set<String> s, String shown) {
        adding = true;
        all.set(Set.copyOf(s));
        first.set(shown);
        adding = false;
    }
}
