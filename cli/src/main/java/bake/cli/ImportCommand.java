package bake.cli;

import bake.formats.Json;
import bake.formats.project.Project;
import bake.studio.first.NewProject;
import bake.studio.project.ProjectImport;
import bake.studio.scene.SceneAssembly;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Starts a project from a model file. */
@Command(name = "import", mixinStandardHelpOptions = true, description = "Start a project with a first view and light from a model file.")
final class ImportCommand implements Callable<Integer> {
    private static final int MOST_SAID = 12;

    @Parameters(paramLabel = "MODEL", description = ".gltf, .glb, .obj, .fbx, .dae, .stl, .ply, .3ds or .ifc")
    private Path model;

    @Option(names = "-o", required = true, paramLabel = "PROJECT", description = "folder of the new project")
    private Path out;

    @Option(names = "--unit", paramLabel = "UNIT",
            description = "unit of a file that does not say it: m, cm, mm, in, ft, or metres per unit")
    private String unit;

    @Option(names = "--up", paramLabel = "AXIS", description = "up axis of a file that does not say it: y or z")
    private String up;

    @Option(names = "--again", description =
            "put the file in place of the project's model; materials, layers and lights keep what they were given, by name")
    private boolean again;

    @Option(names = "--replace", paramLabel = "FILE", description = "with --again: which model of a project with several")
    private String replace;

    @Option(names = "--json", description = "print one JSON document: the project's file and what was found")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        List<String> said = new ArrayList<>();
        Path file = out.resolve("project.json");
        if (again) {
            said.addAll(ProjectImport.replace(model, out, replace));
            // What was seen in the file is said once, here; "check" says it again.
            Projects.Opened p = Projects.open(out.toString(), List.of());
            SceneAssembly assembly = new SceneAssembly(p.folder());
            for (Project.ModelRef m : p.project().models()) assembly.model(m).findings().forEach(f -> said.add(f.line()));
        } else {
            NewProject.Begun begun = NewProject.create(model, out, metres(), axis(), () -> false);
            file = begun.file();
            begun.findings().forEach(f -> said.add(f.line()));
        }
        if (json) {
            ObjectNode n = Json.MAPPER.createObjectNode().put("project", file.toString());
            said.forEach(n.putArray("findings")::add);
            spec.commandLine().getOut().println(n.toPrettyString());
            return 0;
        }
        said.stream().limit(MOST_SAID).forEach(l -> spec.commandLine().getErr().println("bake: " + l));
        if (said.size() > MOST_SAID) spec.commandLine().getErr().println("bake: and " + (said.size() - MOST_SAID) + " more; see bake check");
        spec.commandLine().getOut().println(file);
        return 0;
    }

    private Double metres() {
        if (unit == null) return null;
        return switch (unit) {
            case "m" -> 1.0;
            case "cm" -> 0.01;
            case "mm" -> 0.001;
            case "in" -> 0.0254;
            case "ft" -> 0.3048;
            default -> {
                try {
                    double d = Double.parseDouble(unit);
                    if (d > 0 && d < 1e6) yield d;
                } catch (NumberFormatException e) {
                    // said below
                }
                throw new IllegalArgumentException("--unit takes m, cm, mm, in, ft or a number of metres, not '" + unit + "'");
            }
        };
    }

    private String axis() {
        if (up == null || up.equals("y") || up.equals("z")) return up;
        throw new IllegalArgumentException("--up takes y or z, not '" + up + "'");
    }
}
