package bake.desktop.station.light;

import bake.desktop.work.Document;
import bake.desktop.work.EaselPicture;
import bake.desktop.work.GuideHand;
import bake.desktop.work.Lighting;
import bake.desktop.work.ModelFiles;
import bake.desktop.work.Notices;
import bake.desktop.work.Sights;
import bake.desktop.work.Station;
import bake.formats.project.View;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyObjectProperty;

/** What the Light station works with. */
public record LightWork(Document document, ReadOnlyObjectProperty<Station> station, EaselPicture easel, Notices notices,
        Lighting lighting, Sights sights, ModelFiles models, GuideHand guides) {
    /** Changes what lies around the model in the view at hand. */
    void around(String key, UnaryOperator<View.Around> change) {
        document.editView(key, v -> v.withAround(change.apply(v.around())));
    }
}
