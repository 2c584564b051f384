package bake.desktop.work;

import bake.studio.proof.Proof;
import bake.studio.proof.ProofStore;
import java.io.IOException;
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
    private final ObjectProperty<Proof> takenOff = new SimpleObjectProperty<>();
    private final StringProperty searched = new SimpleStringProperty("");
    private final Executor ui;
    private ProofStore store;

    Prints(Executor ui, Executor background, Notices notices) {
        this.ui = ui;
        this.background = background;
        this.notices = notices;
    }

    void take(ProofStore s, List<Proof> proofs) {
        store = s;
        takenOff.set(null);
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
        ProofStore st = store;
        all.remove(p);
        if (a.get() == p) a.set(null);
        if (b.get() == p) b.set(null);
        takenOff.set(p);
        write(() -> st.delete(p));
    }

    /** The proof that was taken off last and can be put back, or null. */
    public ObjectProperty<Proof> takenOffProperty() {
        return takenOff;
    }

    /** Puts the proof back that was taken off last. */
    public void putBack() {
        Proof p = takenOff.get();
        ProofStore st = store;
        if (p == null) return;
        takenOff.set(null);
        int i = 0;
        while (i < all.size() && all.get(i).number() > p.number()) i++;
        int at = i;
        write(() -> {
            st.putBack(p);
            ui.execute(() -> {
                if (store == st) all.add(at, p);
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
