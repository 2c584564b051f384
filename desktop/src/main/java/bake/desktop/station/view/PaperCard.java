package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.FinishHand;
import java.io.File;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/** How the picture will be printed; a way to look, which changes no picture. */
final class PaperCard extends VBox {
    private final FinishHand hand;

    PaperCard(FinishHand hand) {
        super(7);
        this.hand = hand;
        getStyleClass().add("card");
        Label name = Ui.note("");
        CheckBox show = new CheckBox("Look at it as printed"), marks = new CheckBox("Mark what the paper cannot show");
        show.setId("paper-show");
        marks.setId("paper-marks");
        Runnable see = () -> {
            FinishHand.Through t = hand.throughProperty().get();
            boolean paper = t == FinishHand.Through.PAPER || t == FinishHand.Through.PAPER_MARKED;
            show.setSelected(paper);
            marks.setSelected(t == FinishHand.Through.PAPER_MARKED);
            boolean none = hand.paperProperty().get() == null;
            show.setDisable(none);
            marks.setDisable(none);
            name.setText(none ? "Choose the ICC profile of the paper and its printer. Pictures stay as they are."
                    : hand.paperProperty().get().name());
        };
        show.setOnAction(e -> hand.throughProperty().set(show.isSelected() ? FinishHand.Through.PAPER : FinishHand.Through.NOTHING));
        marks.setOnAction(e -> hand.throughProperty().set(marks.isSelected() ? FinishHand.Through.PAPER_MARKED : FinishHand.Through.PAPER));
        hand.throughProperty().addListener((o, a, b) -> see.run());
        hand.paperProperty().addListener((o, a, b) -> see.run());
        see.run();
        getChildren().addAll(Ui.row(Ui.label("Paper", "card-title"), Ui.spring(),
                Ui.button("paper-choose", "Profile\u2026", "An ICC profile: .icc or .icm", this::profile, "small")),
                name, show, marks);
    }

    private void profile() {
        FileChooser c = new FileChooser();
        c.setTitle("Choose the profile of the paper");
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("ICC profiles", "*.icc", "*.icm"));
        File f = c.showOpenDialog(getScene().getWindow());
        if (f != null) hand.paper(f.toPath());
    }
}
