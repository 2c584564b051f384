package bake.desktop.work;

import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/** The proofs of the open project, and which two of them hang on the easel. */
public final class Prints {
    private final Executor background;
    private final Notices notices;
    private final ObservableList<Proof> all = FXCollections.observableArrayList();
    private final ObjectProperty<Proof> a = new SimpleObjectProperty<>(), b = new SimpleObjectProperty<>();
    private final ObjectProperty<List<Proof>> takenOff = new SimpleObjectProperty<>(List.of());
    private final StringProperty searched = new SimpleStringProperty("");
    private final Executor ui;
    private ProofStore store;

    private final TidyHand tidy;
    private final StampHand stamp;

    Prints(Workbench bench, Executor ui, Executor background, Notices notices) {
        tidy = new TidyHand(bench, background);
        stamp = new StampHand(bench, background);
        this.ui = ui;
        this.background = background;
        this.notices = notices;
    }

    void take(ProofStore s, List<Proof> proofs) {
        store = s;
        takenOff.set(List.of());
        searched.set("");
        all.setAll(proofs);
        a.set(null);
        b.set(null);
    }

    /** Takes all down. */
    void leave() {
        take(null, List.of());
    }

    /** The newest first. */
    public ObservableList<Proof> all() {
        return all;
    }

    public ObjectProperty<Proof> aProperty() {
        return a;
    }

    public ObjectProperty<Proof> bProperty() {
        return b;
    }

    public ProofStore store() {
        return store;
    }

    /** Changes what is kept with a proof. */
    public void keep(Proof changed) {
        ProofStore st = store;
        int i = 0;
        while (i < all.size() && all.get(i).number() != changed.number()) i++;
        if (i == all.size()) return;
        Proof old = all.set(i, changed);
        if (a.get() == old) a.set(changed);
        if (b.get() == old) b.set(changed);
        write(() -> st.save(changed));
    }

    public void delete(Proof p) {
        delete(List.of(p));
    }

    /** Takes several off, which can be put back together. */
    public void delete(List<Proof> gone) {
        ProofStore st = store;
        all.removeAll(gone);
        // Nothing hung is no proof to ask for.
        if (a.get() != null && gone.contains(a.get())) a.set(null);
        if (b.get() != null && gone.contains(b.get())) b.set(null);
        takenOff.set(List.copyOf(gone));
        write(() -> {
            for (Proof p : gone) st.delete(p);
        });
    }

    /** What they take on disk. */
    public TidyHand tidy() {
        return tidy;
    }

    /** Saves them as pictures. */
    public StampHand stamp() {
        return stamp;
    }

    /** The proofs that were taken off last and can be put back; empty for none. */
    public ObjectProperty<List<Proof>> takenOffProperty() {
        return takenOff;
    }

    /** Puts back what was taken off last. */
    public void putBack() {
        List<Proof> gone = takenOff.get();
        ProofStore st = store;
        takenOff.set(List.of());
        if (!gone.isEmpty()) write(() -> {
            for (Proof p : gone) st.putBack(p);
            ui.execute(() -> {
                if (store != st) return;
                List<Proof> now = new ArrayList<>(all);
                now.addAll(gone);
                now.sort(Comparator.comparingInt(Proof::number).reversed());
                all.setAll(now);
            });
        });
    }

    /** Words that are searched for among all proofs. */
    public StringProperty searchedProperty() {
        return searched;
    }

    void hang(Proof p) {
        all.addFirst(p);
        a.set(p);
    }

    private interface Writing {
        void run() throws IOException;
    }

    private void write(Writing w) {
        background.execute(() -> {
            try {
                w.run();
            } catch (IOException e) {
                notices.fail(e);
            }
        });
    }
}
