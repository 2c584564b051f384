package bake.studio.look;

import bake.core.finish.ColourTable;
import bake.core.finish.Look;
import bake.formats.FormatException;
import bake.formats.SafePath;
import bake.formats.picture.CubeFile;
import bake.formats.project.FinishSpec;
import bake.formats.project.View;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;

/** The looks of views with the colour tables that they name. */
public final class Looks {
    private static final int KEPT = 4;
    /** Tables that were read last, by file and time. */
    private static final Map<String, ColourTable> READ = new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<String, ColourTable> e) {
            return size() > KEPT;
        }
    };

    private Looks() {}

    /**
     * The look of a view.
     *
     * @param folder of the project
     * @throws FormatException when its colour table is missing or damaged
     */
    public static Look of(Path folder, View v) throws IOException {
        return with(v.look(), v.finish(), folder, "view '" + v.name() + "'");
    }

    /** A look with the colour table of its description, which lies in a folder. */
    public static Look with(Look look, FinishSpec f, Path folder, String whose) throws IOException {
        if (f.lut() == null) return look;
        try {
            return look.withLut(table(SafePath.inside(folder, f.lut(), "project.json")));
        } catch (FormatException e) {
            throw new FormatException(f.lut(), whose, "as its colour table: " + e.getMessage());
        }
    }

    private static ColourTable table(Path file) throws IOException {
        if (!Files.isRegularFile(file)) throw new FormatException(file.getFileName().toString(), null, "is not there; choose it again, or leave it out");
        String key = file.toAbsolutePath() + " " + Files.getLastModifiedTime(file) + " " + Files.size(file);
        synchronized (READ) {
            ColourTable t = READ.get(key);
            if (t == null) READ.put(key, t = CubeFile.read(file));
            return t;
        }
    }
}
