package bake.cli;

import bake.core.finish.Look;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.project.SavedLook;
import bake.studio.look.LookShelf;
import bake.studio.look.Looks;
import bake.studio.look.StoredPicture;
import bake.studio.render.FileOptions;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Finishes a stored picture of scene light again, without rendering. */
@Command(name = "finish", mixinStandardHelpOptions = true, description = {
    "Make a picture for a display of a stored one of scene light (.exr), with another look.",
    "Without --look or --view it is finished as the file says it was. Files rendered with --channels clean hold the denoised light, and give the"
    + " render's own picture to the bit; others give what was rendered, noise and all."})
final class FinishCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "FILE.exr")
    private Path file;

    @Option(names = {"-o", "--output"}, required = true, paramLabel = "FILE", description = ".png, .tif or .jpg")
    private Path out;

    @Option(names = "--look", paramLabel = "NAME", description = "a look of a shelf by its name, or a file .look.json")
    private String look;

    @Option(names = "--project", paramLabel = "PROJECT", description = "whose views and looks are meant")
    private String project;

    @Option(names = "--view", paramLabel = "NAME", description = "finish as this view of the project is")
    private String view;

    @Option(names = "--ev", paramLabel = "EV", description = "exposure at ISO 100; else that of the file")
    private Double ev;

    @Option(names = "--bits", paramLabel = "N", description = "of PNG and TIFF, 8 or 16", defaultValue = "16")
    private int bits;

    @Option(names = "--gamut", paramLabel = "NAME", description = "colours of the file, which is tagged with them: srgb (default), p3 or bt2020")
    private String gamut;

    @Option(names = "--json", description = "print one JSON document")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        long start = System.nanoTime();
        if (look != null && view != null) throw new IllegalArgumentException("name a look or a view, not both");
        if (view != null && project == null) throw new IllegalArgumentException("--view needs --project");
        String name = file.getFileName().toString();
        if (!Files.isRegularFile(file)) throw new FormatException(name, null, "is not there");
        Projects.Opened p = project == null ? null : Projects.open(project, null);
        StoredPicture picture = StoredPicture.read(file);
        Look l = look(p, picture, name);
        double saturation = ev == null ? picture.saturation(name) : 1.2 * Math.pow(2, ev);
        picture.write(out, saturation, l, FileOptions.SCREEN.withBits(bits).withGamut(FileOptions.gamut(gamut)));
        double seconds = (System.nanoTime() - start) / 1e9;
        if (json) {
            ObjectNode n = Json.MAPPER.createObjectNode();
            n.put("file", out.toString()).put("clean", picture.clean()).put("seconds", seconds);
            n.putArray("size").add(picture.light().width()).add(picture.light().height());
            spec.commandLine().getOut().println(Json.MAPPER.writeValueAsString(n));
        } else spec.commandLine().getOut().printf(Locale.ROOT, "%s: %dx%d%s, %.1f s%n", out, picture.light().width(), picture.light().height(),
                picture.clean() ? "" : ", not denoised", seconds);
        return 0;
    }

    private Look look(Projects.Opened p, StoredPicture picture, String name) throws IOException {
        SavedLook own = picture.look(name);
        double kelvin = own == null || own.whiteBalance() == null ? Look.NEUTRAL : own.whiteBalance();
        if (view != null) {
            return Looks.of(p.folder(), p.view(view));
        }
        if (look == null) return own == null ? Look.PLAIN : own.look(kelvin);
        SavedLook l = look.endsWith(".json") ? LookShelf.read(Path.of(look)) : LookShelf.current(LookShelf.all(p == null ? null : p.folder())).stream()
                .filter(x -> x.name().equalsIgnoreCase(look)).findFirst().orElse(null);
        if (l == null) throw new IllegalArgumentException("no shelf has a look '" + look + "'; name its file, or save it at View");
        Path beside = look.endsWith(".json") ? Path.of(look).toAbsolutePath().getParent() : p == null ? file.toAbsolutePath().getParent() : p.folder();
        return Looks.with(l.look(kelvin), l.finish(), beside, "look '" + l.name() + "'");
    }
}
