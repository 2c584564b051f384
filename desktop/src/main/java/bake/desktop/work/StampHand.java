package bake.desktop.work;

import bake.formats.picture.Stamp;
import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import bake.studio.proof.StampField;
import bake.studio.user.StampChoice;
import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Executor;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Saves prints as pictures, with a stamp where one is wished for. Holds no control. */
public final class StampHand {
    private final Workbench bench;
    private final Executor background;
    private final ObjectProperty<StampChoice> choice = new SimpleObjectProperty<>(StampChoice.read(StampChoice.file()));

    StampHand(Workbench bench, Executor background) {
        this.bench = bench;
        this.background = background;
    }

    /** What stamps say and where they lie; no fields for none. */
    public ObjectProperty<StampChoice> choiceProperty() {
        return choice;
    }

    public Set<StampField> fields() {
        EnumSet<StampField> out = EnumSet.noneOf(StampField.class);
        for (String w : choice.get().fields()) for (StampField f : StampField.values()) if (f.word().equals(w)) out.add(f);
        return out;
    }

    public void say(StampField f, boolean wanted) {
        Set<StampField> now = fields();
        if (wanted ? !now.add(f) : !now.remove(f)) return;
        keep(new StampChoice(now.stream().map(StampField::word).toList(), choice.get().corner()));
    }

    public void place(Stamp.Corner c) {
        if (!c.word().equals(choice.get().corner())) keep(new StampChoice(choice.get().fields(), c.word()));
    }

    private void keep(StampChoice c) {
        choice.set(c);
        background.execute(() -> {
            try {
                c.write(StampChoice.file());
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Writes a print as a picture of its own. */
    public void save(Proof p, Path target) {
        ProofStore store = bench.prints().store();
        List<String> lines = StampField.lines(List.copyOf(fields()), p, bench.project().name());
        Stamp.Corner corner = Stamp.Corner.of(choice.get().corner());
        background.execute(() -> {
            try {
                store.export(p, target, lines, corner);
                bench.notices().say("Saved " + target.getFileName() + ".");
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }
}
