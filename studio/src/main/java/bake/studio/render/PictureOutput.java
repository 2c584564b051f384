package bake.studio.render;

import bake.core.compiled.RenderScene;
import bake.core.denoise.Denoiser;
import bake.core.denoise.QuickDenoiser;
import bake.core.film.Film;
import bake.core.film.Region;
import bake.core.finish.Finish;
import bake.core.finish.Place;
import bake.core.finish.Seen;
import bake.formats.FormatException;
import bake.formats.picture.DisplayPicture;
import bake.formats.picture.ExrFile;
import bake.formats.picture.ExrNotes;
import bake.formats.picture.HdrFile;
import bake.formats.picture.Raster;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BooleanSupplier;

/** Writes what a film holds, by the ending of the file name. */
public final class PictureOutput {
    public static final List<String> ENDINGS = List.of(".png", ".tif", ".tiff", ".jpg", ".jpeg", ".exr", ".hdr");

    private PictureOutput() {}

    /** @throws FormatException when the ending is none that is written */
    public static void checkEnding(Path file) throws FormatException {
        String n = file.getFileName().toString().toLowerCase(Locale.ROOT);
        if (ENDINGS.stream().noneMatch(n::endsWith))
            throw new FormatException(file.getFileName().toString(), null, "a picture's name ends in .png, .tif, .jpg, .exr or .hdr");
    }

    /**
     * Writes a region. PNG, TIFF and JPEG are display light, the first two of 16 bit unless fewer are asked for; EXR and HDR are scene
     * light in cd/m2. A film that keeps the backdrop apart is
     * written without it and with how much of it is covered: beside colours that are not multiplied by that in PNG and TIFF, premultiplied
     * in EXR, as those formats say. HDR and JPEG have no place for it and get the whole picture.
     *
     * @param gains three factors a plane, or null
     * @param notes of scene-referred files
     * @param denoise for display light only; pictures too large for it are written as they are
     */
    public static void write(Path file, Film film, Finish finish, float[] gains, Region r, boolean denoise, FileOptions how, ExrNotes notes)
            throws IOException {
        checkEnding(file);
        String n = file.getFileName().toString().toLowerCase(Locale.ROOT);
        if (n.endsWith(".exr") || n.endsWith(".hdr")) {
            boolean hdr = n.endsWith(".hdr");
            Raster raster = raster(film, hdr || film.front() == null ? gains : film.front(), r);
            if (hdr) {
                HdrFile.write(file, raster);
                return;
            }
            TreeMap<String, float[]> planes = planes(raster);
            if (film.front() != null) planes.put("A", cover(film, r));
            ExrFile.write(file, r.width(), r.height(), planes, !how.wholeFloats(), notes.withDensity(how.dpi()));
            return;
        }
        boolean jpeg = n.endsWith(".jpg") || n.endsWith(".jpeg");
        Finish f = finish.in(how.gamut());
        if (film.front() != null && !jpeg) {
            image(file, DisplayPicture.image16WithAlpha(r.width(), r.height(), apart(film, f, r, denoise && film.hasFeatures())), how);
            return;
        }
        if (jpeg || how.bits() == 8) {
            image(file, DisplayPicture.image8(r.width(), r.height(), argb(film, f, gains, r, denoise), false), how);
            return;
        }
        short[] codes = f.rgb16(light(film, f, gains, r, denoise), place(film, r), f.seen(film, r));
        image(file, DisplayPicture.image16(r.width(), r.height(), codes), how);
    }

    /** Writes display light by the ending of the file name; false when that is none of display light. */
    public static boolean image(Path file, BufferedImage image, FileOptions how) throws IOException {
        String n = file.getFileName().toString().toLowerCase(Locale.ROOT);
        if (n.endsWith(".jpg") || n.endsWith(".jpeg")) DisplayPicture.writeJpeg(file, image, how.dpi(), how.quality() / 100f, how.gamut());
        else if (n.endsWith(".png")) DisplayPicture.writePng(file, image, how.dpi(), how.gamut());
        else if (n.endsWith(".tif") || n.endsWith(".tiff")) DisplayPicture.writeTiff(file, image, how.dpi(), how.gamut());
        else return false;
        return true;
    }

    /** Writes what a job has made. */
    public static void write(Path file, RenderJob job, FileOptions how) throws IOException {
        RenderJob.Order o = job.order();
        if (!how.channels().isEmpty() && file.toString().toLowerCase(Locale.ROOT).endsWith(".exr")) {
            withChannels(file, job, how);
            return;
        }
        write(file, job.film(), job.finish(), null, o.region(), o.preset().denoise(), how, notes(o));
    }

    /**
     * Checks that a picture has room for what is to be in its file beside it.
     *
     * @throws FormatException when it has not, with what to do
     */
    public static void check(RenderJob.Order o, FileOptions how, RenderScene scene) throws FormatException {
        ExtraChannels.check(o, how.channels(), scene.lights().groups().size());
    }

    private static void withChannels(Path file, RenderJob job, FileOptions how) throws IOException {
        RenderJob.Order o = job.order();
        Region r = o.region();
        Film film = job.film();
        TreeMap<String, float[]> planes = planes(raster(film, film.front(), r));
        if (film.front() != null) planes.put("A", cover(film, r));
        Map<String, String> texts = new TreeMap<>();
        ExtraChannels.add(job, how.channels(), planes, texts);
        ExrFile.write(file, r.width(), r.height(), planes, !how.wholeFloats(), notes(o).withDensity(how.dpi()).with(texts));
    }

    /** What a file of scene light says of itself. */
    public static ExrNotes notes(RenderJob.Order o) {
        return ExrNotes.of(o.view(), o.camera()).with(FinishNotes.of(o));
    }

    /** Light of a region as it is delivered, cd/m2. */
    static float[] light(Film film, Finish finish, float[] gains, Region r, boolean denoise) {
        return denoise && film.hasFeatures() ? Denoiser.run(film, gains, r, finish.saturation()) : Finish.light(film, gains, r);
    }

    private static Place place(Film film, Region r) {
        return Place.of(r, film.width(), film.height());
    }

    /** Writes the whole picture as scene light to an EXR, its backdrop included. */
    public static void writeWhole(Path file, Film film, Region r, ExrNotes notes) throws IOException {
        ExrFile.write(file, r.width(), r.height(), planes(raster(film, null, r)), true, notes);
    }

    private static float[] cover(Film film, Region r) {
        float[] out = new float[r.width() * r.height()];
        for (int i = 0; i < out.length; i++) out[i] = film.cover(r.x() + i % r.width(), r.y() + i / r.width());
        return out;
    }

    /** Codes 0 to 65535 of what stands before the backdrop and of how much it covers, four for each pixel. */
    private static short[] apart(Film film, Finish finish, Region r, boolean denoise) {
        float[] light = denoise ? Denoiser.front(film, r, finish.saturation()) : raster(film, film.front(), r).rgb(),
                clean = denoise ? Denoiser.cover(film, r) : null, raw = denoise ? null : cover(film, r);
        int n = r.width() * r.height();
        float[] cover = new float[n];
        for (int i = 0; i < n; i++) {
            cover[i] = Math.clamp(denoise ? clean[3 * i] : raw[i], 0f, 1f);
            float k = cover[i] > 1e-3f ? 1 / cover[i] : 0;
            for (int c = 0; c < 3; c++) light[3 * i + c] *= k;
        }
        Seen seen = finish.seen(film, r);
        short[] rgb = finish.rgb16(light, place(film, r), seen == null ? null : seen.front()), out = new short[4 * n];
        for (int i = 0; i < n; i++) {
            System.arraycopy(rgb, 3 * i, out, 4 * i, 3);
            out[4 * i + 3] = (short) Math.round(65535 * cover[i]);
        }
        return out;
    }

    /** An 8 bit PNG of a region, for proofs and prints. */
    public static void writePng8(Path file, Film film, Finish finish, float[] gains, Region r, boolean denoise) throws IOException {
        DisplayPicture.writePng(file, DisplayPicture.image8(r.width(), r.height(), argb(film, finish, gains, r, denoise), false), 72);
    }

    /** sRGB codes of a region as 0xAARRGGBB; outside of what was rendered they are transparent. */
    public static int[] argb(Film film, Finish finish, float[] gains, Region r, boolean denoise) {
        return denoise && film.hasFeatures() ? finish.argb(light(film, finish, gains, r, true), place(film, r), finish.seen(film, r))
                : plain(film, finish, gains, r);
    }

    /** Its light while a picture is being made, denoised only as well as a moment allows; null when it was stopped. */
    public static float[] quickLight(Film film, float[] gains, Region r, boolean denoise, BooleanSupplier stop) {
        return denoise && film.hasFeatures() ? QuickDenoiser.run(film, gains, r, stop) : Finish.light(film, gains, r);
    }

    /** The same as sRGB codes. */
    public static int[] quick(Film film, Finish finish, float[] gains, Region r, boolean denoise, BooleanSupplier stop) {
        if (!denoise || !film.hasFeatures()) return plain(film, finish, gains, r);
        float[] clean = quickLight(film, gains, r, true, stop);
        return clean == null ? null : finish.argb(clean, place(film, r), finish.seen(film, r));
    }

    private static int[] plain(Film film, Finish finish, float[] gains, Region r) {
        int[] out = finish.argb(Finish.light(film, gains, r), place(film, r), finish.seen(film, r));
        for (int i = 0; i < out.length; i++) if (film.samples(r.x() + i % r.width(), r.y() + i / r.width()) == 0) out[i] = 0;
        return out;
    }

    private static Raster raster(Film film, float[] gains, Region r) {
        float[] rgb = new float[3 * r.width() * r.height()], c = new float[3];
        for (int y = 0, o = 0; y < r.height(); y++)
            for (int x = 0; x < r.width(); x++, o += 3) {
                film.mean(r.x() + x, r.y() + y, gains, c);
                System.arraycopy(c, 0, rgb, o, 3);
            }
        return new Raster(r.width(), r.height(), rgb);
    }

    private static TreeMap<String, float[]> planes(Raster r) {
        TreeMap<String, float[]> out = new TreeMap<>();
        int n = r.width() * r.height();
        for (int k = 0; k < 3; k++) {
            float[] p = new float[n];
            for (int i = 0; i < n; i++) p[i] = r.rgb()[3 * i + k];
            out.put("RGB".substring(k, k + 1), p);
        }
        return out;
    }
}
