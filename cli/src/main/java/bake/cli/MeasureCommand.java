package bake.cli;

import bake.core.compiled.RenderScene;
import bake.core.math.Vec3;
import bake.core.meters.LightMeter;
import bake.core.work.Workers;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.project.View;
import bake.studio.cache.HierarchyCache;
import bake.studio.scene.SceneAssembly;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.ForkJoinPool;
import java.util.stream.IntStream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Measures illuminance at points. */
@Command(name = "measure", mixinStandardHelpOptions = true, sortOptions = false,
        description = "Measure illuminance in lux at points, total and by source group.")
final class MeasureCommand implements Callable<Integer> {
    private static final long MOST_BYTES = 64L << 20;

    @Parameters(paramLabel = "PROJECT", description = "folder, project.json, or demo")
    private String project;

    @Option(names = "--points", required = true, paramLabel = "FILE.csv",
            description = "one point a line: x,y,z,nx,ny,nz in metres; lines with # and one header line are passed over; - for standard input")
    private Path points;

    @Option(names = "--view", paramLabel = "NAME",
            description = "view whose light is meant; may be given again, the document then has \"views\"; default: the one last worked on")
    private List<String> views;

    @Option(names = "--threads", paramLabel = "N", description = "default: all processors")
    private Integer threads;

    @Option(names = "--samples", paramLabel = "N", description = "paths for each point (default: 4096)")
    private int samples = 4096;

    @Option(names = "--bounces", paramLabel = "N", description = "most surfaces that light may touch on its way (default: no limit)")
    private int bounces = LightMeter.ALL;

    @Option(names = "--seed", paramLabel = "N", description = "chooses the random numbers (default: 1)")
    private long seed = 1;

    @Option(names = "--set", paramLabel = "path=value", description = "change the project for this measurement; may be given again")
    private List<String> sets;

    @Option(names = "--json", description = "print one JSON document")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        if (samples < 1 || samples > 1 << 28) throw new IllegalArgumentException("--samples takes 1 to 268435456");
        if (bounces < 0) throw new IllegalArgumentException("--bounces takes 0 or more");
        List<Vec3[]> at = read();
        Projects.Opened p = Projects.open(project, sets);
        if (threads != null && (threads < 1 || threads > 1024)) throw new IllegalArgumentException("--threads takes 1 to 1024");
        SceneAssembly assembly = new SceneAssembly(p.folder());
        List<ObjectNode> documents = new ArrayList<>();
        try (ForkJoinPool pool = new ForkJoinPool(threads == null ? Runtime.getRuntime().availableProcessors() : threads)) {
            for (String name : views == null ? Collections.<String>singletonList(null) : views) {
                View v = p.view(name);
                RenderScene scene = RenderScene.compile(assembly.scene(p.project(), v), null, Workers.COMPILING, HierarchyCache.shared());
                LightMeter meter = new LightMeter(scene, bounces);
                LightMeter.Reading[] out = new LightMeter.Reading[at.size()];
                pool.submit(() -> IntStream.range(0, out.length).parallel()
                        .forEach(i -> out[i] = meter.measure(at.get(i)[0], at.get(i)[1], samples, seed, i))).join();
                if (json) documents.add(document(v, at, out, scene.lights().groups()));
                else {
                    if (views != null && views.size() > 1) spec.commandLine().getOut().println(v.name());
                    print(at, out);
                }
            }
        }
        if (!json) return 0;
        ObjectNode all = documents.getFirst();
        if (documents.size() > 1) documents.forEach((all = Json.MAPPER.createObjectNode()).putArray("views")::add);
        spec.commandLine().getOut().println(Json.MAPPER.writeValueAsString(all));
        return 0;
    }

    private ObjectNode document(View v, List<Vec3[]> at, LightMeter.Reading[] out, List<String> groups) {
        ObjectNode n = Json.MAPPER.createObjectNode().put("view", v.name()).put("samples", samples).put("seed", seed);
        var list = n.putArray("points");
        for (int i = 0; i < out.length; i++) {
            ObjectNode q = list.addObject();
            for (int k = 0; k < 2; k++) q.putArray(k == 0 ? "position" : "normal").add(at.get(i)[k].x()).add(at.get(i)[k].y())
                    .add(at.get(i)[k].z());
            q.put("lux", out[i].lux());
            if (Double.isFinite(out[i].error())) q.put("error", out[i].error());
            else q.putNull("error");
            ObjectNode by = q.putObject("groups");
            for (int g = 0; g < groups.size(); g++) by.put(groups.get(g), out[i].luxByGroup()[g]);
        }
        return n;
    }

    private void print(List<Vec3[]> at, LightMeter.Reading[] out) {
        for (int i = 0; i < out.length; i++)
            spec.commandLine().getOut().printf(Locale.ROOT, "%.3f,%.3f,%.3f  %.4g lx  +- %.2g%n", at.get(i)[0].x(), at.get(i)[0].y(),
                    at.get(i)[0].z(), out[i].lux(), out[i].error());
    }

    private List<Vec3[]> read() throws IOException {
        boolean input = points.toString().equals("-");
        String name = input ? "standard input" : points.getFileName().toString();
        if (input) return read(new String(System.in.readNBytes((int) MOST_BYTES), StandardCharsets.ISO_8859_1), name);
        if (!Files.isRegularFile(points)) throw new FormatException(name, null, "there is no such file");
        if (Files.size(points) > MOST_BYTES) throw new FormatException(name, null, "is larger than 64 MB; measure in parts");
        return read(Files.readString(points, StandardCharsets.ISO_8859_1), name);
    }

    private static List<Vec3[]> read(String text, String name) throws FormatException {
        List<Vec3[]> out = new ArrayList<>();
        int line = 0;
        for (String s : text.split("\\R")) {
            line++;
            String t = s.strip();
            if (t.isEmpty() || t.startsWith("#")) continue;
            String[] c = t.split("[,;\\s]+");
            double[] v = new double[6];
            boolean good = c.length == 6;
            for (int i = 0; good && i < 6; i++) {
                try {
                    v[i] = Double.parseDouble(c[i]);
                    good = Math.abs(v[i]) < 1e7;
                } catch (NumberFormatException e) {
                    good = false;
                }
            }
            if (!good) {
                if (out.isEmpty() && t.matches("[A-Za-z_,;\\s]+")) continue;
                throw new FormatException(name, "line " + line, "needs six numbers x,y,z,nx,ny,nz");
            }
            if (v[3] == 0 && v[4] == 0 && v[5] == 0)
                throw new FormatException(name, "line " + line, "the direction nx,ny,nz must not be zero");
            out.add(new Vec3[] {new Vec3(v[0], v[1], v[2]), new Vec3(v[3], v[4], v[5]).normalized()});
        }
        if (out.isEmpty()) throw new FormatException(name, null, "holds no points");
        return out;
    }
}
