package bake.cli;

import bake.core.compiled.RenderScene;
import bake.core.film.Region;
import bake.core.finish.Gamut;
import bake.core.guide.Guides;
import bake.core.solve.Caches;
import bake.core.work.Workers;
import bake.formats.Json;
import bake.formats.picture.DisplayPicture;
import bake.formats.picture.Stamp;
import bake.formats.project.Preset;
import bake.formats.project.View;
import bake.studio.cache.Begun;
import bake.studio.cache.CacheStore;
import bake.studio.cache.GuideStore;
import bake.studio.cache.HierarchyCache;
import bake.studio.estimate.Estimate;
import bake.studio.estimate.Estimator;
import bake.studio.estimate.WorkLog;
import bake.studio.look.Looks;
import bake.studio.preset.PresetKeys;
import bake.studio.preset.Presets;
import bake.studio.preset.Shelves;
import bake.studio.proof.Proof;
import bake.studio.proof.StampField;
import bake.studio.render.BandedRender;
import bake.studio.render.Channel;
import bake.studio.render.Checkpoint;
import bake.studio.render.EngineSettings;
import bake.studio.render.FileOptions;
import bake.studio.render.OutputPlace;
import bake.studio.render.PictureOutput;
import bake.studio.render.RenderJob;
import bake.studio.scene.SceneAssembly;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Renders a view of a project into a picture file. */
@Command(name = "render", mixinStandardHelpOptions = true, sortOptions = false, description = "Render a view into a picture file.")
final class RenderCommand implements Callable<Integer> {
    @Parameters(paramLabel = "PROJECT", description = "folder, project.json, or demo")
    private String project;

    @Option(names = "--view", paramLabel = "NAME", description = "view; default: the one last worked on")
    private String view;

    @Option(names = "--preset", paramLabel = "NAME[@VERSION]",
            description = "preset, or test or final for the one that suits the view (default: test)")
    private String preset = "test";

    @Option(names = "--shelf", paramLabel = "FOLDER", description = "the studio's shelf of presets")
    private Path shelf;

    @Option(names = "--size", paramLabel = "WxH", description = "pixels; default: the preset's")
    private String size;

    @Option(names = "--region", paramLabel = "X,Y,W,H", description = "part of the picture, pixels from the top left")
    private String region;

    @Option(names = "--samples", paramLabel = "N", description = "passes")
    private Integer samples;

    @Option(names = "--noise", paramLabel = "PERCENT", description = "noise aim, before denoising; 0 for none")
    private Double noise;

    @Option(names = "--error", paramLabel = "PERCENT", description = "aim of what noise is left once the picture is denoised; 0 for none")
    private Double error;

    /** Whether the picture ends by what is left after denoising. */
    private boolean aimed;

    @Option(names = "--time", paramLabel = "SECONDS", description = "time limit; 0 for none")
    private Double time;

    @Option(names = "--bounces", paramLabel = "N", description = "most bounces; default: the preset's")
    private Integer bounces;

    @Option(names = "--clamp", paramLabel = "N", description = "limit of stray bright pixels in multiples of white; 0 for none; default: the preset's")
    private Double clamp;

    @Option(names = "--seed", paramLabel = "N", description = "chooses the random numbers (default: 1)")
    private long seed = 1;

    @Option(names = "--threads", paramLabel = "N", description = "default: all processors")
    private Integer threads;

    @Option(names = "--caches", paramLabel = "FOLDER",
            description = "begin with the caches of this light that are there, and keep there what the picture adds")
    private Path cacheFolder;

    @Option(names = "--set", paramLabel = "path=value",
            description = "change the project, or a value of the preset by its key, for this picture; may be given again")
    private List<String> sets;

    @Option(names = "--channels", paramLabel = "WHAT", split = ",", description =
            "more in the .exr: lights, parts, depth, position, normal, colour, noise, samples, materials, objects, occlusion, clean; several with commas")
    private List<String> channels;

    @Option(names = "--gamut", paramLabel = "NAME",
            description = "colours of a .png, .tif or .jpg, which is tagged with them: srgb (default), p3 or bt2020")
    private String gamut;

    @Option(names = "--stamp", paramLabel = "FIELD", split = ",", description =
            "write on the picture (.png): project, view, preset, size, time, noise, date; several with commas")
    private List<String> stamp;

    @Option(names = "--stamp-at", paramLabel = "CORNER", description = "top-left, top-right, bottom-left or bottom-right (default: ${DEFAULT-VALUE})")
    private String stampAt = "bottom-left";

    @Option(names = "-o", required = true, paramLabel = "FILE", description = "picture: .exr, .hdr, .png or .tif")
    private Path out;

    @Option(names = "--memory", paramLabel = "MB",
            description = "most memory for the picture; a larger one is made in bands, as .exr (default: a third of Java's)")
    private Long memory;

    @Option(names = "--resume", description =
            "keep the unfinished picture beside the file every minute (each band of one made in bands), and go on from one that is there")
    private boolean resume;

    @Option(names = "--json", description = "print one JSON document about the picture")
    private boolean json;

    private FileOptions options;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        PictureOutput.checkEnding(out);
        List<StampField> fields = stamp == null ? List.of() : stamp.stream().map(StampField::of).toList();
        Stamp.Corner corner = Stamp.Corner.of(stampAt);
        options = FileOptions.SCREEN.withChannels(Channel.all(channels)).withGamut(FileOptions.gamut(gamut));
        if (!options.channels().isEmpty() && !out.toString().toLowerCase(Locale.ROOT).endsWith(".exr"))
            throw new IllegalArgumentException("--channels are written into .exr files only");
        if (!fields.isEmpty() && !out.toString().toLowerCase(Locale.ROOT).endsWith(".png"))
            throw new IllegalArgumentException("--stamp writes on .png pictures; scene light and TIFF stay as they are");
        if (options.gamut() != Gamut.SRGB && out.toString().toLowerCase(Locale.ROOT).matches(".*\\.(exr|hdr)"))
            throw new IllegalArgumentException("--gamut is for .png, .tif and .jpg; .exr and .hdr hold linear light of BT.709 primaries");
        if (!fields.isEmpty() && options.gamut() != Gamut.SRGB) throw new IllegalArgumentException("a stamped picture is sRGB: leave out --gamut");
        Projects.Opened opened = Projects.open(project, sets);
        View v = opened.view(view);
        Preset chosen = PresetKeys.set(opened.project(), Presets.named(opened.project(), v, preset, Shelves.of(opened.folder(), shelf)),
                sets);
        Projects.Opened p = new Projects.Opened(opened.folder(), Presets.seen(opened.project(), chosen));
        Preset settings = limits(chosen);
        if (out.toString().toLowerCase(Locale.ROOT).endsWith(".exr")) options = options.beside(settings);
        int[] wh = size == null ? Presets.size(settings, v) : size(size);
        Region part = region == null ? null : region();
        int n = threads == null ? Runtime.getRuntime().availableProcessors() : threads;
        if (n < 1 || n > 1024) throw new IllegalArgumentException("--threads takes 1 to 1024");
        // The order checks size and region before any memory is taken.
        RenderJob.Order order = new RenderJob.Order(v.name(), v.camera().camera(), Looks.of(p.folder(), v), settings, wh[0], wh[1], part,
                seed,
                options.split());
        long memory = memory();
        boolean bands = BandedRender.needed(order.region().width(), order.region().height(), memory);
        if (bands) BandedRender.checkEnding(out);
        try (OutputPlace held = OutputPlace.hold(out, (long) order.region().width() * order.region().height())) {
            return render(p, v, order, n, memory, bands, fields, corner);
        }
    }

    private int render(Projects.Opened p, View v, RenderJob.Order order, int n, long memory, boolean bands,
            List<StampField> fields, Stamp.Corner corner) throws IOException {
        RenderScene scene = RenderScene.compile(new SceneAssembly(p.folder()).scene(p.project(), v), null, Workers.COMPILING,
                HierarchyCache.shared());
        Preset settings = order.preset();
        Guides guides = new GuideStore(p.folder()).fitting(p.project(), v);
        PictureOutput.check(order, options, scene);
        if (bands) return banded(scene, order, guides, Begun.identity(p.project(), p.folder(), v, order, null), n, memory);
        try (Workers workers = new Workers(n)) {
            CacheStore store = cacheFolder == null ? null : new CacheStore(cacheFolder);
            Caches before = store == null ? Caches.NONE
                    : store.fitting(p.project(), p.folder(), v, EngineSettings.bounced(settings), false);
            long cells = before.cells() == null ? 0 : before.cells().cells(),
                    records = before.records() == null ? 0 : before.records().records();
            aimed = order.preset().aimsAtDenoised();
            RenderJob job = new RenderJob(scene, order, workers).guidedBy(guides).with(before);
            if (resume) {
                String identity = Begun.identity(p.project(), p.folder(), v, order, store);
                job.keepIn(new Checkpoint(Checkpoint.beside(out), identity,
                        e -> spec.commandLine().getErr().println("bake: the unfinished picture could not be kept: " + e.getMessage())));
            }
            Estimator estimator = new Estimator(WorkLog.shared(), true);
            Estimate expected = cacheFolder != null ? null : estimator.quick(p.project(), p.folder(), v, settings,
                    new int[] {order.region().width(), order.region().height()}, n);
            try (Interrupt i = Interrupt.calls(job::stop)) {
                job.run(g -> progress(g));
                if (!json) spec.commandLine().getErr().println();
                if (job.progress().passes() == 0) throw new IOException("stopped before the first pass was done; nothing is written");
                long saving = System.nanoTime();
                PictureOutput.write(out, job, options);
                if (!fields.isEmpty()) stamp(fields, corner, p.project().name(), v, job);
                job.written();
                learn(p, v, job, n, (System.nanoTime() - saving) / 1e9, expected);
                // A picture that is to be gone on with must find the caches that it began with.
                if (store != null && !(resume && job.state() == RenderJob.State.STOPPED))
                    store.keep(p.project(), p.folder(), v, EngineSettings.bounced(job.order().preset()), job.caches());
                if (json) spec.commandLine().getOut().println(RenderReport.json(job, seed, out, before, cells, records));
                else done(job);
            }
        }
        return 0;
    }

    /** Writes on the picture that was made; it is 8 bit then. */
    private void stamp(List<StampField> fields, Stamp.Corner corner, String title, View v, RenderJob job) throws IOException {
        Region r = job.order().region();
        Proof facts = new Proof(0, "", "", v, job.order().preset(), r.width(), r.height(), LocalDateTime.now().truncatedTo(ChronoUnit.MINUTES)
                .toString(), job.progress().seconds(), job.phases().caches(), job.progress().passes(), job.rawNoise(),
                job.progress().rays(), job.clampedShare(), seed, false, false, 0, 0, null, null);
        BufferedImage i = DisplayPicture.image8(r.width(), r.height(), PictureOutput.argb(job.film(), job.finish(), null, r,
                job.order().preset().denoise()), false);
        Stamp.draw(i, StampField.lines(fields, facts, title), corner);
        DisplayPicture.writePng(out, i, 72);
    }

    /** What the picture took makes later predictions better; one that began with kept caches is none to go by. */
    private void learn(Projects.Opened p, View v, RenderJob job, int threads, double saving, Estimate expected) {
        if (cacheFolder != null || region != null) return;
        try {
            new Estimator(WorkLog.shared(), true).made(p.project(), p.folder(), v, job, threads, saving, expected);
        } catch (IOException e) {
            // The picture is made; that nothing was learnt from it is no failure.
        }
    }

    private long memory() {
        if (memory == null) return BandedRender.filmBytes();
        if (memory < 1) throw new IllegalArgumentException("--memory takes 1 megabyte or more");
        return memory << 20;
    }

    /** A picture that does not fit into the memory, band by band. */
    private int banded(RenderScene scene, RenderJob.Order order, Guides guides, String identity, int threads, long bytes)
            throws IOException {
        try (Workers workers = new Workers(threads)) {
            BandedRender render = new BandedRender(scene, order, guides, workers);
            if (!resume) java.nio.file.Files.deleteIfExists(Checkpoint.beside(out));
            RenderJob.Progress g;
            try (Interrupt i = Interrupt.calls(render::stop)) {
                g = render.run(out, identity, bytes, this::progress);
            }
            Region r = order.region();
            if (g.state() == RenderJob.State.STOPPED) {
                spec.commandLine().getErr().printf(Locale.ROOT, "%nbake: stopped; %.0f %% is kept in %s: go on with --resume%n",
                        100 * g.fraction(), Checkpoint.beside(out));
                return 1;
            }
            if (!json) {
                spec.commandLine().getErr().println();
                spec.commandLine().getOut().printf(Locale.ROOT, "%s: %dx%d in bands, %d passes, noise %s, %.1f s%n", out, r.width(),
                        r.height(), g.passes(), noise(g), g.seconds());
                return 0;
            }
            ObjectNode n = Json.MAPPER.createObjectNode();
            n.put("seconds", g.seconds()).put("passes", g.passes()).put("samples", (long) g.passes() * r.width() * r.height())
                    .put("rays", g.rays());
            if (Double.isFinite(g.noise())) n.put("noise", g.noise());
            else n.putNull("noise");
            n.put("seed", seed).putArray("size").add(r.width()).add(r.height());
            n.put("file", out.toString()).put("view", order.view()).put("preset", order.preset().name());
            spec.commandLine().getOut().println(Json.MAPPER.writeValueAsString(n));
        }
        return 0;
    }

    private Preset limits(Preset given) {
        if (bounces != null && (bounces < 0 || bounces > 1000)) throw new IllegalArgumentException("--bounces takes 0 to 1000");
        if (clamp != null && !(clamp >= 0 && clamp < 1e9)) throw new IllegalArgumentException("--clamp takes 0 or more");
        Preset bounced = bounces == null ? given : given.withBounces(bounces), p = clamp == null ? bounced : bounced.withClamp(clamp);
        if (samples != null && samples < 1) throw new IllegalArgumentException("--samples takes 1 or more");
        if (noise != null && !(noise >= 0 && noise <= 100) || error != null && !(error >= 0 && error <= 100)
                || time != null && !(time >= 0))
            throw new IllegalArgumentException("--noise and --error take 0 to 100 percent, --time 0 seconds or more");
        if (noise != null && error != null)
            throw new IllegalArgumentException("--noise is of the picture before denoising, --error of the denoised one: give one of them");
        if (error != null && !p.denoise())
            throw new IllegalArgumentException("--error is of a denoised picture, and preset " + p.name() + " does not denoise: give --noise");
        // A limit that is given alone stands alone: the preset's others would end the picture earlier.
        boolean any = samples != null || noise != null || error != null || time != null;
        if (!any) return p;
        double aim = noise != null ? noise : error != null ? error : 0;
        double seconds = time != null ? time : 0;
        int most = samples != null ? samples : 0;
        return aim > 0 ? p.withLimits(aim, seconds, most).withAimDenoised(error != null ? true : null)
                : EngineSettings.ending(p, 0, seconds, most).withAimDenoised(null);
    }

    static int[] size(String size) {
        Matcher m = Pattern.compile("(\\d{1,9})[xX](\\d{1,9})").matcher(size);
        if (!m.matches()) throw new IllegalArgumentException("--size takes width x height in pixels, such as 640x360, not '" + size + "'");
        return new int[] {Integer.parseInt(m.group(1)), Integer.parseInt(m.group(2))};
    }

    private Region region() {
        Matcher m = Pattern.compile("(-?\\d{1,9}),(-?\\d{1,9}),(\\d{1,9}),(\\d{1,9})").matcher(region);
        if (!m.matches()) throw new IllegalArgumentException("--region takes x,y,width,height in pixels, not '" + region + "'");
        return new Region(Integer.parseInt(m.group(1)), Integer.parseInt(m.group(2)), Integer.parseInt(m.group(3)),
                Integer.parseInt(m.group(4)));
    }

    private void progress(RenderJob.Progress g) {
        if (json) return;
        if (g.passes() == 0) spec.commandLine().getErr().printf(Locale.ROOT, "\rcaching bounced light, %.0f %%   %.0f s      ",
                100 * g.prepared(), g.seconds());
        else spec.commandLine().getErr().printf(Locale.ROOT, "\rpass %d   %s %s   %.0f s%s      ", g.passes(), aimed ? "error left" : "noise",
                noise(g), g.seconds(),
                Double.isNaN(g.secondsLeft()) ? "" : String.format(Locale.ROOT, ", about %.0f s left", g.secondsLeft()));
        spec.commandLine().getErr().flush();
    }

    private static String noise(RenderJob.Progress g) {
        return Double.isFinite(g.noise()) ? String.format(Locale.ROOT, "%.2f %%", g.noise()) : "not known yet";
    }

    private void done(RenderJob job) {
        RenderJob.Progress g = job.progress();
        Region r = job.order().region();
        spec.commandLine().getOut().printf(Locale.ROOT, "%s: %dx%d, %d passes, %s, %.1f s%n", out, r.width(), r.height(), g.passes(),
                aimed && Double.isFinite(job.rawNoise()) ? String.format(Locale.ROOT, "noise %.2f %% as rendered, %s left when denoised",
                        job.rawNoise(), noise(g)) : "noise " + noise(g), g.seconds());
    }
}
