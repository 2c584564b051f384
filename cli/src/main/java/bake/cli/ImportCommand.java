package bake.cli;

import bake.studio.ProjectImport;
import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Starts a project from a model file. */
@Command(name = "import", mixinStandardHelpOptions = true, description = "Start a project with a first view and light from a model file.")
final class ImportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "MODEL", description = ".gltf, .glb or .obj")
    private Path model;

    @Option(names = "-o", required = true, paramLabel = "PROJECT", description = "folder of the new project")
    private Path out;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        spec.commandLine().getOut().println(ProjectImport.create(model, out));
        return 0;
    }
}
