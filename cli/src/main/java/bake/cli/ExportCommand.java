package bake.cli;

import bake.core.scene.Scene;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.model.GlbFile;
import bake.formats.model.GltfWriter;
import bake.formats.model.ImportedModel;
import bake.formats.project.View;
import bake.studio.scene.SceneAssembly;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine;

/** Writes a project's model for other programs. */
@Command(name = "export", mixinStandardHelpOptions = true,
        description = "Write the project's model with its materials, cameras and lamps as glTF 2.0.")
final class ExportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "PROJECT", description = "folder, project.json, or demo")
    private String project;

    @Option(names = "-o", required = true, paramLabel = "FILE", description = ".glb, or .gltf with its buffer and pictures beside it")
    private Path out;

    @Option(names = "--json", description = "print one JSON document about the file")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        String lower = out.getFileName().toString().toLowerCase(Locale.ROOT);
        if (!lower.endsWith(".glb") && !lower.endsWith(".gltf"))
            throw new FormatException(out.getFileName().toString(), null, "a model is written as .glb or .gltf");
        Projects.Opened p = Projects.open(project, List.of());
        SceneAssembly assembly = new SceneAssembly(p.folder());
        // All lamps, whatever the view has switched off.
        View v = p.view(null);
        for (String group : v.off()) v = v.withOff(group, false);
        Scene s = assembly.scene(p.project(), v);
        List<ImportedModel.NamedCamera> cameras = p.project().views().stream().map(ExportCommand::camera).toList();
        ImportedModel m = new ImportedModel(p.project().name(), s.meshes(), s.instances(), s.materials(), s.textures(), assembly.layers(),
                cameras, s.lamps(), List.of());
        if (lower.endsWith(".glb")) GlbFile.write(out, m);
        else GltfWriter.write(out, m);
        if (json) {
            ObjectNode n = Json.MAPPER.createObjectNode().put("file", out.toString()).put("triangles", m.placedTriangles())
                    .put("materials", m.materials().size()).put("cameras", cameras.size()).put("lamps", m.lamps().size());
            spec.commandLine().getOut().println(n.toPrettyString());
        } else spec.commandLine().getOut().println(out);
        return 0;
    }

    private static ImportedModel.NamedCamera camera(View v) {
        return new ImportedModel.NamedCamera(v.name(), v.camera().camera(), (double) v.size()[0] / v.size()[1]);
    }
}
