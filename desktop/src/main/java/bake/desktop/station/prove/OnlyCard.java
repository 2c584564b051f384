package bake.desktop.station.prove;

import bake.desktop.parts.Ui;
import bake.studio.proof.ProofOnly;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import javafx.scene.control.CheckBox;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.layout.VBox;

/** What is otherwise in the next proofs alone: neither the project nor the preset are changed by it. */
final class OnlyCard extends VBox {
    private final ProveWork work;

    OnlyCard(ProveWork work) {
        super(7);
        this.work = work;
        setId("only-card");
        getStyleClass().add("card");
        work.prover().onlyProperty().addListener((o, a, b) -> refresh());
        work.models().factsProperty().addListener((o, a, b) -> refresh());
        work.prover().runningProperty().addListener((o, a, b) -> setDisable(b));
        refresh();
    }

    private void refresh() {
        Ui.refill(this, this::fill);
    }

    private void fill() {
        ProofOnly o = work.prover().onlyProperty().get();
        getChildren().setAll(Ui.row(Ui.label("In proofs alone", "card-title"), Ui.spring(), o.nothing() ? Ui.label("", "figure")
                : Ui.button("only-nothing", "As in the project", "Leave all of this out again", () -> change(x -> ProofOnly.NOTHING), "small")),
                Ui.row(box("only-half", "Half size", "A quarter of the time", o.part() == 2, b -> o.withPart(b ? 2 : 1)),
                        box("only-quarter", "Quarter", "A sixteenth of the time", o.part() == 4, b -> o.withPart(b ? 4 : 1)),
                        box("only-clay", "Clay", "All matt grey, but for glass and what glows", o.clay(), o::withClay)),
                box("only-unseen", "Without lamps that are not seen", "Lamps whose body the camera does not see are off: what the visible ones give",
                        o.unseenOff(), o::withUnseenOff));
        List<String> layers = work.models().factsProperty().get().layers().stream().filter(l -> work.document().project() == null
                || work.document().project().layerOn(l)).toList();
        if (layers.size() < 2) return;
        MenuButton menu = new MenuButton(o.layersOff().isEmpty() ? "All layers" : o.layersOff().size() == 1
                ? "Without " + o.layersOff().iterator().next() : "Without " + o.layersOff().size() + " layers");
        menu.setId("only-layers");
        menu.getStyleClass().add("small");
        for (String l : layers) {
            CheckMenuItem i = new CheckMenuItem(l);
            i.setMnemonicParsing(false);
            i.setSelected(!o.layersOff().contains(l));
            i.setOnAction(e -> {
                Set<String> off = new HashSet<>(work.prover().onlyProperty().get().layersOff());
                if (i.isSelected()) off.remove(l);
                else off.add(l);
                change(x -> x.withLayersOff(off));
            });
            menu.getItems().add(i);
        }
        getChildren().add(Ui.line("Layers", menu));
    }

    private CheckBox box(String id, String text, String help, boolean on, java.util.function.Function<Boolean, ProofOnly> set) {
        CheckBox b = new CheckBox(text);
        b.setId(id);
        b.setTooltip(Ui.tip(help));
        b.setSelected(on);
        b.setOnAction(e -> change(x -> set.apply(b.isSelected())));
        return b;
    }

    private void change(UnaryOperator<ProofOnly> how) {
        work.prover().onlyProperty().set(how.apply(work.prover().onlyProperty().get()));
    }
}
