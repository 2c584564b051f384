package bake.studio.user;

import java.util.List;

/** A note on the desktop, by the platform's own command where there is one. */
public final class DesktopNote {
    private DesktopNote() {}

    /** Shows it; whether there was a way to. */
    public static boolean say(String title, String text) {
        return Commands.run(List.of("notify-send", "--app-name=Bake", title, text))
                || Commands.run(List.of("osascript", "-e", "display notification " + quoted(text) + " with title " + quoted(title)));
    }

    private static String quoted(String s) {
        return '"' + s.replace("\\", "\\\\").replace("\"", "\\\"") + '"';
    }
}
