package bake.desktop.station.view;

import bake.desktop.work.Document;
import bake.desktop.work.FinishHand;
import bake.desktop.work.LooksHand;
import bake.desktop.work.Notices;
import bake.desktop.work.Prints;
import bake.desktop.work.Station;
import bake.desktop.work.Tones;
import bake.desktop.work.Views;
import javafx.beans.property.ReadOnlyObjectProperty;

/** What the View station works with. */
public record ViewWork(Document document, ReadOnlyObjectProperty<Station> station, Notices notices, Views views, FinishHand finish,
        LooksHand looks, Tones tones, Prints prints) {}
