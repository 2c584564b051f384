package bake.desktop.station.finals;

import bake.desktop.work.Document;
import bake.desktop.work.Finals;

/** What the Finals station works with. */
public record FinalsWork(Document document, Finals finals) {}
