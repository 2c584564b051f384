package bake.desktop.work;

import bake.formats.project.Preset;
import bake.studio.preset.PresetChanges;
import bake.studio.preset.Presets;
import java.nio.file.Path;
import java.util.Objects;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/**
 * Settings of the next proof: a preset, perhaps changed. Changes are steps that can be undone, and are there again when their view is.
 * Holds no control.
 */
final class PresetDraft {
    private final Workbench bench;
    private final ObjectProperty<Preset> preset = new SimpleObjectProperty<>();
    private final BooleanProperty wantsFinal = new SimpleBooleanProperty();
    private Path of;

    PresetDraft(Workbench bench) {
        this.bench = bench;
        bench.viewProperty().addListener((o, a, b) -> {
            boolean other = !Objects.equals(of, bench.folder());
            of = bench.folder();
            if (b != null && (other || a == null || preset.get() == null || !a.setting().equals(b.setting())
                    || !a.name().equals(b.name()))) suit();
        });
        wantsFinal.addListener((o, a, b) -> suit());
        preset.addListener((o, a, b) -> {
            if (b != null) bench.document().chosen(b);
        });
        // What is undone, or done again.
        bench.document().draftsProperty().addListener((o, a, b) -> {
            Preset now = preset.get(), then = now == null ? null : b.get(now.name());
            if (then != null && !then.equals(now)) preset.set(then);
        });
    }

    private void suit() {
        if (bench.view() == null) return;
        Preset p = Presets.suiting(bench.project(), bench.view(), wantsFinal.get());
        preset.set(bench.document().draftsProperty().get().getOrDefault(p.name(), p));
    }

    ObjectProperty<Preset> presetProperty() {
        return preset;
    }

    BooleanProperty wantsFinalProperty() {
        return wantsFinal;
    }

    void change(UnaryOperator<Preset> how) {
        Preset p = preset.get();
        if (p == null) return;
        Preset q = how.apply(p);
        // A dial that is turned is one step, two of them are two.
        change("preset " + p.name() + PresetChanges.between(p,
                q).stream().map(PresetChanges.Change::key).collect(Collectors.joining(" ")), q);
    }

    /** @param key that of a step which this is part of */
    void change(String key, Preset q) {
        Preset p = preset.get();
        if (p == null || q.equals(p)) return;
        bench.document().draft(key, p, q);
        preset.set(q);
    }
}
