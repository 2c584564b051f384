package bake.cli;

import bake.formats.FormatException;
import bake.studio.user.UserFolders;
import picocli.CommandLine.Command;
import picocli.CommandLine;

/** The command line. Exit codes: 0 done, 2 bad usage or input, 1 failure. */
@Command(name = "bake", mixinStandardHelpOptions = true, version = "Bake 0.1.0", sortOptions = false,
        description = "Architectural visualization: light a building, prove it, deliver it.",
        footer = {"", "PROJECT is a project's folder, its project.json, or the word demo.",
            "Window: bake demo [--shot FILE.png], bake open [PROJECT] [--shot FILE.png].",
            "Also: bake package makes an application folder, bake bench runs the benchmarks.",
            "Exit codes: 0 done, 2 bad usage or input, 1 failure."},
        subcommands = {RenderCommand.class, MeasureCommand.class, InfoCommand.class, CheckCommand.class, ImportCommand.class,
        MaterialsCommand.class, CacheCommand.class, ExportCommand.class,
        PresetCommand.class, EstimateCommand.class, CompareCommand.class, FinishCommand.class, QueueCommand.class, PlanCommand.class,
                ReportCommand.class})
public final class Main implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    public static void main(String[] args) {
        UserFolders.prepareLog();
        System.exit(run(args));
    }

    /** Runs a command and returns its exit code. */
    public static int run(String... args) {
        CommandLine line = new CommandLine(new Main());
        line.setExecutionExceptionHandler((e, c, parsed) -> {
            c.getErr().println("bake: " + message(e));
            return e instanceof FormatException || e instanceof IllegalArgumentException ? 2 : 1;
        });
        line.setParameterExceptionHandler((e, a) -> {
            e.getCommandLine().getErr().println("bake: " + e.getMessage());
            e.getCommandLine().getErr().println("Try: bake " + (e.getCommandLine().getParent() == null ? ""
                    : e.getCommandLine().getCommandName() + " ") + "--help");
            return 2;
        });
        try {
            return line.execute(args);
        } catch (OutOfMemoryError e) {
            line.getErr().println("bake: there is not enough memory for this; make the picture smaller or close other programs");
            return 1;
        }
    }

    private static String message(Exception e) {
        return e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
    }

    @Override
    public void run() {
        throw new CommandLine.ParameterException(spec.commandLine(),
                "name a command: render, measure, info, check, import, materials, cache, export, preset, estimate, compare, finish, queue, plan, report,"
                + " demo or open");
    }
}
