package bake.desktop.app;

import bake.desktop.work.Reading;
import bake.studio.user.UserFolders;
import javafx.application.Application;

/** Starts the window. Outside of {@link Application}, so that JavaFX may come from the module path. */
public final class Launcher {
    private Launcher() {}

    public static void main(String[] args) {
        UserFolders.prepareLog();
        Mishaps.catchAll();
        Arguments a = null;
        try {
            a = Arguments.parse(args);
        } catch (IllegalArgumentException e) {
            System.err.println("bake: " + e.getMessage());
            System.exit(2);
        }
        // While the toolkit starts on one processor, the other reads the first project, or what it will need.
        if (a.project() != null) BakeApp.reading = Reading.begin(a.project());
        else Thread.ofPlatform().daemon().name("prepare").start(bake.formats.project.ProjectFile::prepare);
        if (System.getProperty("glass.platform") == null && !hasDisplay()) {
            System.setProperty("glass.platform", "Headless");
            System.setProperty("prism.order", "sw");
            System.setProperty("bake.offscreen", "true");
        }
        if (Boolean.getBoolean("bake.offscreen")) System.err.println("bake: there is no display, so the window is drawn offscreen");
        Application.launch(BakeApp.class, args);
    }

    private static boolean hasDisplay() {
        return !System.getProperty("os.name").equals("Linux") || isSet("DISPLAY") || isSet("WAYLAND_DISPLAY");
    }

    private static boolean isSet(String name) {
        String v = System.getenv(name);
        return v != null && !v.isBlank();
    }
}
