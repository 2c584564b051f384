package bake.desktop;

import javafx.application.Application;

/** Starts the window. Outside of {@link Application}, so that JavaFX may come from the module path. */
public final class Launcher {
    private Launcher() {}

    public static void main(String[] args) {
        try {
            Arguments.parse(args);
        } catch (IllegalArgumentException e) {
            System.err.println("bake: " + e.getMessage());
            System.exit(2);
        }
        // While the toolkit starts on one processor, the other reads what the first project will need.
        Thread.ofPlatform().daemon().name("prepare").start(bake.formats.project.ProjectFile::prepare);
        if (Boolean.getBoolean("bake.offscreen")) System.err.println("bake: there is no display, so the window is drawn offscreen");
        Application.launch(BakeApp.class, args);
    }
}
