package bake.cli;

import bake.demo.DemoProject;
import bake.formats.FormatException;
import bake.formats.project.Project;
import bake.formats.project.ProjectFile;
import bake.formats.project.View;
import bake.studio.preset.PresetKeys;
import bake.studio.project.Settings;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;

/** Finds the project that an argument means. */
public final class Projects {
    /** A project, where it lives and what it says after {@code --set}. */
    public record Opened(Path folder, Project project) {
        View view(String name) {
            if (name == null) {
                View v = project.currentView();
                if (v == null) throw new IllegalArgumentException("the project has no view; add one under views");
                return v;
            }
            View v = project.view(name);
            if (v == null) throw new IllegalArgumentException("there is no view '" + name + "'; there are: "
                    + String.join("; ", project.views().stream().map(View::name).toList()));
            return v;
        }
    }

    private Projects() {}

    public static Path file(String argument) throws IOException {
        if (argument.equals("demo")) return DemoProject.ensure(DemoProject.home(), LocalDate.now());
        try {
            return ProjectFile.locate(Path.of(argument)).toAbsolutePath();
        } catch (java.nio.file.InvalidPathException e) {
            throw new FormatException(argument, null, "is not a file name");
        }
    }

    static Opened open(String argument, List<String> sets) throws IOException {
        Path f = file(argument);
        Project p = ProjectFile.read(f);
        for (String s : sets == null ? List.<String>of() : sets) if (!PresetKeys.about(s)) p = Settings.set(p, s);
        return new Opened(f.getParent(), p);
    }
}
