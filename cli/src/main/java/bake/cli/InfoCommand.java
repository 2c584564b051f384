package bake.cli;

import bake.formats.FormatException;
import bake.formats.model.Finding;
import bake.formats.model.ImportedModel;
import bake.formats.model.ModelReader;
import bake.formats.picture.ExrFile;
import bake.formats.picture.HdrFile;
import bake.formats.picture.Raster;
import bake.formats.picture.TextureReader;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Says what files hold. */
@Command(name = "info", mixinStandardHelpOptions = true, description = "Say what model, picture or project files hold.")
final class InfoCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", arity = "1..*")
    private List<Path> files;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() {
        int code = 0;
        for (Path f : files) {
            try {
                describe(f, spec.commandLine().getOut());
            } catch (IOException | IllegalArgumentException e) {
                spec.commandLine().getErr().println("bake: " + e.getMessage());
                code = 2;
            }
        }
        return code;
    }

    private static void describe(Path f, PrintWriter out) throws IOException {
        if (f.toString().equals("demo") && !Files.exists(f)) f = Projects.file("demo");
        if (Files.isDirectory(f)) f = ProjectFile.locate(f);
        if (!Files.isRegularFile(f)) throw new FormatException(f.toString(), null, "there is no such file");
        String n = f.getFileName().toString().toLowerCase(Locale.ROOT);
        if (ModelReader.isModel(f)) model(f, out);
        else if (n.endsWith(".json")) project(f, out);
        else if (n.endsWith(".hdr") || n.endsWith(".exr")) {
            Raster r = n.endsWith(".hdr") ? HdrFile.read(f) : ExrFile.read(f);
            double most = 0, mean = 0;
            for (int i = 0; i < r.rgb().length; i += 3) {
                double l = 0.2126 * r.rgb()[i] + 0.7152 * r.rgb()[i + 1] + 0.0722 * r.rgb()[i + 2];
                most = Math.max(most, l);
                mean += l * 3 / r.rgb().length;
            }
            out.printf(Locale.ROOT, "%s: picture, %dx%d, scene light, mean %.4g, greatest %.4g cd/m2%n", f, r.width(), r.height(), mean,
                    most);
        } else
            try (InputStream in = Files.newInputStream(f)) {
                var t = TextureReader.read(in, f.getFileName().toString(), true);
                out.printf("%s: picture, %dx%d%n", f, t.width(), t.height());
            }
    }

    private static void model(Path f, PrintWriter out) throws IOException {
        ImportedModel m = ModelReader.read(f, null, null);
        out.printf("%s: model, %d meshes, %d placed, %d unique triangles, %d with copies, %d materials, %d textures, %d cameras, %d lamps%n", f, m.meshes().size(),
                m.instances().size(), m.uniqueTriangles(), m.placedTriangles(), m.materials().size(), m.textures().size(),
                m.cameras().size(), m.lamps().size());
        if (!m.layers().isEmpty()) out.println("  layers: " + String.join(", ", m.layers().stream().limit(40).toList()));
        for (Finding g : m.findings()) out.println("  " + g.kind().words() + ": " + g.where() + ": " + g.text());
    }

    private static void project(Path f, PrintWriter out) throws IOException {
        Project p = ProjectFile.read(f);
        out.printf("%s: project '%s', %d models, %d shapes, %d lamps, %d views, due %s%n", f, p.name(), p.models().size(),
                p.shapes().size(), p.lamps().size(), p.views().size(),
                p.due() == null ? "not set" : p.due());
        p.views().forEach(v -> out.printf("  view '%s', %s, %dx%d, %s%n", v.name(), v.setting(), v.size()[0], v.size()[1],
                v.around().kind()));
    }
}
