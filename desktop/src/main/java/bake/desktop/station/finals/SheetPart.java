package bake.desktop.station.finals;

import bake.desktop.parts.Ui;
import bake.desktop.work.TryOut;
import bake.studio.plan.DryRun;
import java.nio.IntBuffer;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** The delivery in small: every picture as it would be, or why it would not. */
final class SheetPart extends FlowPane {
    private static final double WIDTH = 210;

    SheetPart(TryOut tryOut) {
        super(14, 12);
        setId("finals-sheet");
        setMinWidth(0);
        tryOut.sheetProperty().addListener((o, a, b) -> {
            getChildren().clear();
            for (DryRun.Small s : b) getChildren().add(small(s));
            Ui.show(this, !b.isEmpty());
        });
        Ui.show(this, false);
    }

    private static VBox small(DryRun.Small s) {
        VBox v = new VBox(3);
        v.setPrefWidth(WIDTH);
        if (s.argb() == null) {
            v.getChildren().add(Ui.note(s.trouble()));
            v.getChildren().getFirst().getStyleClass().add("error-text");
        } else {
            ImageView i = new ImageView(new WritableImage(new PixelBuffer<>(s.width(), s.height(), IntBuffer.wrap(s.argb()),
                    PixelFormat.getIntArgbPreInstance())));
            i.setFitWidth(WIDTH);
            i.setPreserveRatio(true);
            v.getChildren().add(i);
        }
        v.getChildren().add(Ui.label(s.view(), "note"));
        return v;
    }
}
