package bake.desktop.station.view;

import bake.desktop.parts.Ui;
import bake.desktop.work.CameraHand;
import javafx.scene.Node;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.VBox;

/** The sheet of the View station: the camera, and the finish of its picture. */
public final class ViewPages extends VBox {
    public ViewPages(ViewWork work, CameraHand hand) {
        ToggleGroup pages = new ToggleGroup();
        Node choice = Ui.choice(pages, "page-", "Camera", "Finish");
        choice.getStyleClass().add("pages");
        ViewSheet camera = new ViewSheet(work, hand);
        FinishSheet finish = new FinishSheet(work);
        pages.selectedToggleProperty().addListener((o, a, b) -> {
            boolean second = b != null && b.getUserData().equals("Finish");
            Ui.show(camera, !second);
            Ui.show(finish, second);
        });
        pages.getToggles().getFirst().setSelected(true);
        getChildren().addAll(choice, camera, finish);
    }
}
