package bake.desktop.parts;

import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.control.CheckBox;
import javafx.scene.layout.FlowPane;

/** A box for each of some words, of which any may be chosen. */
public final class WordBoxes extends FlowPane {
    /**
     * @param prefix of the boxes' ids, before their words
     * @param words with what each means, in their order
     * @param changed takes all words that are chosen when one was clicked
     */
    public WordBoxes(String id, String prefix, Map<String, String> words, Consumer<List<String>> changed) {
        super(9, 4);
        setId(id);
        words.forEach((word, help) -> {
            CheckBox b = new CheckBox(word);
            b.setId(prefix + word);
            b.setTooltip(Ui.tip(help));
            b.setOnAction(e -> changed.accept(getChildren().stream().map(n -> (CheckBox) n).filter(CheckBox::isSelected)
                    .map(CheckBox::getText).toList()));
            getChildren().add(b);
        });
    }

    /** Shows which are chosen. */
    public void show(List<String> chosen) {
        for (var n : getChildren()) ((CheckBox) n).setSelected(chosen.contains(((CheckBox) n).getText()));
    }
}
