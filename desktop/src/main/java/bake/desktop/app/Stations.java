package bake.desktop.app;

import bake.desktop.station.finals.FinalsPane;
import bake.desktop.station.finals.FinalsSheet;
import bake.desktop.station.finals.FinalsWork;
import bake.desktop.station.light.LightSheet;
import bake.desktop.station.light.LightStrip;
import bake.desktop.station.light.LightWork;
import bake.desktop.station.model.ModelSheet;
import bake.desktop.station.model.ModelStrip;
import bake.desktop.station.model.ModelWork;
import bake.desktop.station.prove.ProveSheet;
import bake.desktop.station.prove.ProveStrip;
import bake.desktop.station.prove.ProveWork;
import bake.desktop.station.view.ViewPages;
import bake.desktop.station.view.ViewStrip;
import bake.desktop.station.view.ViewWork;
import bake.desktop.work.CameraHand;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import java.util.EnumMap;
import java.util.Map;
import javafx.scene.Node;

/**
 * The five stations, each made with what it needs: sheets for all, strips under the easel for all but Finals, which has a pane in its
 * place.
 */
final class Stations {
    private final Map<Station, Node> strips = new EnumMap<>(Station.class), sheets = new EnumMap<>(Station.class);
    private final FinalsPane pane;

    /** @param hand that moves the easel's camera */
    Stations(Workbench bench, CameraHand hand) {
        ModelWork model = new ModelWork(bench.document(), bench.easel(), bench.models(), bench.finals());
        LightWork light = new LightWork(bench.document(), bench.stationProperty(), bench.easel(), bench.notices(), bench.lighting(),
                bench.sights(), bench.models(), bench.guides());
        ViewWork view = new ViewWork(bench.document(), bench.stationProperty(), bench.notices(), bench.views(), bench.finish(),
                bench.looks(), bench.tones(), bench.prints());
        ProveWork prove = new ProveWork(bench.document(), bench.models(), bench.prover(), bench.prints(), bench.comparing(),
                bench.takingBack(), bench.noise());
        FinalsWork finals = new FinalsWork(bench.document(), bench.finals());
        strips.put(Station.MODEL, new ModelStrip(model));
        strips.put(Station.LIGHT, new LightStrip(light));
        strips.put(Station.VIEW, new ViewStrip(view, hand));
        strips.put(Station.PROVE, new ProveStrip(prove));
        sheets.put(Station.MODEL, new ModelSheet(model));
        sheets.put(Station.LIGHT, new LightSheet(light));
        sheets.put(Station.VIEW, new ViewPages(view, hand));
        sheets.put(Station.PROVE, new ProveSheet(prove));
        sheets.put(Station.FINALS, new FinalsSheet(finals));
        pane = new FinalsPane(finals);
    }

    Node sheet(Station s) {
        return sheets.get(s);
    }

    Node strip(Station s) {
        return strips.get(s);
    }

    FinalsPane finals() {
        return pane;
    }
}
