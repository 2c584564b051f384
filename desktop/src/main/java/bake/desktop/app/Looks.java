package bake.desktop.app;

import bake.studio.user.Preferences;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.geometry.Rectangle2D;
import javafx.scene.Scene;
import javafx.stage.Screen;
import javafx.stage.Stage;

/** How the window looks: its colours, the size of its texts and its place, kept for the next start. */
final class Looks {
    private static final double BODY = 13;
    private final Path file;
    private final Executor background;
    private final Consumer<IOException> failed;
    private final BooleanProperty evening = new SimpleBooleanProperty();
    private final IntegerProperty textSize = new SimpleIntegerProperty(100);
    private volatile Preferences kept;
    private Stage stage;

    /**
     * @param file that looks are kept in, or null for none
     * @param background where files are written
     * @param failed told when they could not be kept
     */
    Looks(Path file, Executor background, Consumer<IOException> failed) {
        this.file = file;
        this.background = background;
        this.failed = failed;
        kept = file == null ? Preferences.USUAL : Preferences.read(file);
        evening.set(kept.evening());
        textSize.set(kept.textSize());
    }

    BooleanProperty eveningProperty() {
        return evening;
    }

    /** In percent of the usual size. */
    IntegerProperty textSizeProperty() {
        return textSize;
    }

    void larger(int percent) {
        textSize.set(Math.clamp(textSize.get() + percent, Preferences.LEAST_TEXT, Preferences.LARGEST_TEXT));
    }

    /** Dresses a scene, and goes on doing so. Menus, tips and dialogs are windows of their own that take over its style sheets. */
    void dress(Scene s) {
        evening.addListener((o, a, b) -> put(s));
        textSize.addListener((o, a, b) -> put(s));
        put(s);
    }

    private void put(Scene s) {
        List<String> sheets = new ArrayList<>(List.of(sheet("bake.css")));
        if (evening.get()) sheets.add(sheet("evening.css"));
        if (textSize.get() != 100) sheets.add("data:text/css;base64," + Base64.getEncoder().encodeToString(String.format(Locale.ROOT,
                ".root { -fx-font-size: %.2fpx; }", BODY * textSize.get() / 100).getBytes(StandardCharsets.US_ASCII)));
        s.getStylesheets().setAll(sheets);
        if (keep(kept.withEvening(evening.get()).withTextSize(textSize.get()))) background.execute(this::write);
    }

    private static String sheet(String name) {
        return Looks.class.getResource("/bake/desktop/" + name).toExternalForm();
    }

    /** Puts the window where it was, if there is a screen, and notes where it goes. */
    void place(Stage s) {
        stage = s;
        if (kept.x() == null || kept.width() == null) return;
        for (Screen screen : Screen.getScreens()) {
            Rectangle2D r = screen.getVisualBounds();
            if (!r.contains(kept.x() + 40, kept.y() + 20)) continue;
            s.setX(kept.x());
            s.setY(kept.y());
            s.setWidth(Math.min(kept.width(), r.getWidth()));
            s.setHeight(Math.min(kept.height(), r.getHeight()));
            return;
        }
    }

    /** Notes where the window is now, before it goes. */
    void leave() {
        if (stage != null && !stage.isIconified() && stage.getWidth() > 0
                && keep(kept.withPlace(stage.getX(), stage.getY(), stage.getWidth(), stage.getHeight()))) write();
    }

    /** Whether there is something to write. */
    private boolean keep(Preferences p) {
        boolean news = !p.equals(kept) && file != null;
        kept = p;
        return news;
    }

    /** Whoever comes last writes what holds by then. */
    private synchronized void write() {
        try {
            kept.write(file);
        } catch (IOException e) {
            failed.accept(e);
        }
    }
}
