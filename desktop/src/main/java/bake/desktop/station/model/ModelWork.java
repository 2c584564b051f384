package bake.desktop.station.model;

import bake.desktop.work.Document;
import bake.desktop.work.EaselPicture;
import bake.desktop.work.Finals;
import bake.desktop.work.ModelFiles;
import bake.formats.project.Project;

/** What the Model station works with. */
public record ModelWork(Document document, EaselPicture easel, ModelFiles models, Finals finals) {
    /** What the project says of a material, or null for nothing. */
    Project.Surface own(String material) {
        return document.project().materials().stream().filter(s -> s.name().equals(material)).findFirst().orElse(null);
    }
}
