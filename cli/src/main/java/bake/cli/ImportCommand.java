package bake.cli;

import bake.studio.project.ProjectImport;
import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Starts a project from a model file. */
@Command(name = "import", mixinStandardHelpOptions = true, description = "Start a project with a first view and light from a model file.")
final class ImportCommand implements Callable<Integer> {
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

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        if (again) {
            for (String line : ProjectImport.replace(model, out, replace)) spec.commandLine().getErr().println("bake: " + line);
            spec.commandLine().getOut().println(out.resolve("project.json"));
            return 0;
        }
        spec.commandLine().getOut().println(ProjectImport.create(model, out, metres(), axis()));
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
