package bake.studio.look;

import bake.core.finish.Finish;
import bake.core.finish.Look;
import bake.core.finish.Place;
import bake.core.finish.Seen;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.picture.DisplayPicture;
import bake.formats.picture.ExrFile;
import bake.formats.picture.Raster;
import bake.formats.project.SavedLook;
import bake.studio.render.FileOptions;
import bake.studio.render.FinishNotes;
import bake.studio.render.PictureOutput;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;

/**
 * The scene light of a picture in an OpenEXR file, to be finished again: the denoised light where the file holds it (channel "clean"), else
 * what was rendered; with what its pixels show, where lines are to be drawn.
 *
 * @param clean whether the light is denoised
 * @param notes what the file says of its own finish; empty in files of others
 */
public record StoredPicture(Raster light, boolean clean, Seen seen, Map<String, String> notes) {
    private static final int MOST = 30_000;
    /** Planes of the denoised light, and of what pixels show: base colour, normal, distance, share of the sky. */
    private static final List<String> CLEAN = List.of("clean.R", "clean.G", "clean.B"), GUIDE = List.of("seen.guide.R", "seen.guide.G",
            "seen.guide.B", "seen.guide.X", "seen.guide.Y", "seen.guide.W", "seen.guide.Z", "seen.open");

    public static StoredPicture read(Path file) throws IOException {
        // All that is needed in one go: each reading decodes the whole file.
        Raster all = ExrFile.read(file, Stream.concat(CLEAN.stream(), GUIDE.stream()).toList());
        if (all == null) {
            Raster clean = ExrFile.read(file, CLEAN), light = clean != null ? clean : ExrFile.read(file);
            light.mend();
            return new StoredPicture(light, clean != null, null, ExrFile.texts(file));
        }
        int n = all.width() * all.height();
        float[] rgb = new float[3 * n], seen = new float[7 * n], open = new float[n];
        for (int i = 0; i < n; i++) {
            System.arraycopy(all.rgb(), 11 * i, rgb, 3 * i, 3);
            System.arraycopy(all.rgb(), 11 * i + 3, seen, 7 * i, 7);
            open[i] = Math.clamp(all.rgb()[11 * i + 10], 0f, 1f);
        }
        Raster light = new Raster(all.width(), all.height(), rgb);
        light.mend();
        return new StoredPicture(light, true, new Seen(seen, open), ExrFile.texts(file));
    }

    /** Luminance that saturates the camera, as the file says it, cd/m2. */
    public double saturation(String file) throws FormatException {
        try {
            double s = Double.parseDouble(notes.getOrDefault(FinishNotes.SATURATION, "").strip());
            if (s > 0 && Double.isFinite(s)) return s;
        } catch (NumberFormatException e) {
            // said below
        }
        throw new FormatException(file, null, "does not say its exposure; say it with --ev");
    }

    /** The look that the file was made with; null where it says none. */
    public SavedLook look(String file) throws FormatException {
        String text = notes.get(FinishNotes.LOOK);
        return text == null || text.isBlank() ? null : SavedLook.parse(text, file);
    }

    /** Writes the picture, finished so, by the ending of the name. */
    public void write(Path to, double saturation, Look look, FileOptions how) throws IOException {
        Finish f = new Finish(saturation, look, how.gamut());
        Place at = place();
        String n = to.getFileName().toString().toLowerCase(Locale.ROOT);
        boolean jpeg = n.endsWith(".jpg") || n.endsWith(".jpeg");
        BufferedImage image = jpeg || how.bits() == 8 ? DisplayPicture.image8(light.width(), light.height(), f.argb(light.rgb(), at,
                seen), false)
                : DisplayPicture.image16(light.width(), light.height(), f.rgb16(light.rgb(), at, seen));
        if (!PictureOutput.image(to, image, how)) throw new FormatException(to.getFileName().toString(), null, "a finished picture's name ends in .png, .tif or .jpg");
    }

    private Place place() {
        String whole = notes.get(FinishNotes.PLACE);
        if (whole == null) return Place.whole(light.width(), light.height());
        try {
            int[] v = Json.MAPPER.readValue(whole, int[].class);
            // A place that cannot be is none.
            if (v[0] >= 0 && v[1] >= 0 && v[2] <= MOST && v[3] <= MOST && v[0] + light.width() <= v[2] && v[1] + light.height() <= v[3])
                return new Place(v[0], v[1], light.width(), light.height(), v[2], v[3]);
        } catch (IOException | ArrayIndexOutOfBoundsException e) {
            // said by nobody: the picture is a whole one then
        }
        return Place.whole(light.width(), light.height());
    }
}
