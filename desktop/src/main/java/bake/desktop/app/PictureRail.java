package bake.desktop.app;

import bake.desktop.parts.Ui;
import bake.desktop.text.Texts;
import bake.desktop.work.Station;
import bake.desktop.work.Workbench;
import bake.studio.proof.Proof;
import java.io.File;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputDialog;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.stage.FileChooser;

/** Proofs as prints hanging from a rail, newest first. Click hangs one as A, Shift+click as B. */
final class PictureRail extends VBox {
    private static final double PRINT_W = 82, PRINT_H = 44;
    private final Workbench bench;
    private final HBox prints = new HBox(12);
    private final ScrollPane scroll = new ScrollPane(prints);
    /** Small pictures of the prints that were shown last. */
    private final Map<Path, Image> images = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Path, Image> eldest) {
            return size() > 4 * PAGE;
        }
    };
    /** How many hang at first and with each more; and from how many on they can be searched. */
    private static final int PAGE = 48, MANY = 8;
    private int shown = PAGE;

    PictureRail(Workbench bench) {
        this.bench = bench;
        getStyleClass().add("rail");
        prints.setAlignment(Pos.TOP_LEFT);
        prints.getStyleClass().add("prints");
        scroll.getStyleClass().add("rail-scroll");
        scroll.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.AS_NEEDED);
        scroll.setFitToHeight(true);
        getChildren().add(scroll);
        bench.prints().all().addListener((ListChangeListener<Proof>) c -> refresh());
        bench.prints().aProperty().addListener((o, a, b) -> refresh());
        bench.prints().takenOffProperty().addListener((o, a, b) -> refresh());
        bench.prints().searchedProperty().addListener((o, a, b) -> refresh());
        bench.prints().bProperty().addListener((o, a, b) -> refresh());
        fill();
    }

    private void refresh() {
        Ui.refill(this, this::fill);
    }

    private void fill() {
        prints.getChildren().clear();
        scroll.setStyle("-fx-pref-height: %1$sem; -fx-min-height: %1$sem;".formatted(bench.prints().all().isEmpty() ? "2.6" : "6.93"));
        if (bench.prints().all().isEmpty()) {
            Label l = Ui.label("Proofs hang here. F5 makes the first one.", "rail-empty");
            prints.getChildren().add(l);
            images.clear();
            return;
        }
        if (bench.prints().all().size() >= MANY) prints.getChildren().add(search());
        List<Proof> gone = bench.prints().takenOffProperty().get();
        if (!gone.isEmpty()) prints.getChildren().add(Ui.button("put-back", gone.size() == 1 ? "Put proof " + gone.getFirst().number() + " back"
                : "Put " + gone.size() + " proofs back", "Taken off; when the project is opened again they are gone for good", bench.prints()::putBack, "small", "on-easel"));
        String words = bench.prints().searchedProperty().get();
        List<Proof> found = bench.prints().all().stream().filter(p -> p.has(words)).sorted(Comparator.comparing((Proof p) -> !p.pinned()))
                .toList();
        found.stream().limit(shown).forEach(p -> prints.getChildren().add(print(p)));
        if (found.size() > shown) prints.getChildren().add(Ui.button("older-proofs", found.size() - shown + " older", "Hang more of them", () -> {
            shown += PAGE;
            refresh();
        }, "small", "on-easel"));
        if (found.isEmpty()) prints.getChildren().add(Ui.label("No proof has these words.", "rail-empty"));
    }

    /** Words that are looked for in numbers, names, notes, views and presets. */
    private TextField search() {
        TextField f = new TextField(bench.prints().searchedProperty().get());
        f.setId("find-proof");
        f.setPromptText("Find");
        f.setAccessibleText("Find proofs by number, name, note, view or preset");
        f.setStyle("-fx-pref-width: 7.5em;");
        f.setOnAction(e -> bench.prints().searchedProperty().set(f.getText()));
        f.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE) bench.prints().searchedProperty().set("");
        });
        return f;
    }

    private Button print(Proof p) {
        ImageView v = new ImageView(image(bench.prints().store().picture(p)));
        v.setFitWidth(PRINT_W - 4);
        v.setFitHeight(PRINT_H - 4);
        v.setPreserveRatio(true);
        StackPane frame = new StackPane(v);
        frame.getStyleClass().add("print");
        frame.setMinSize(PRINT_W, PRINT_H);
        boolean a = p == bench.prints().aProperty().get(), b = p == bench.prints().bProperty().get();
        if (a) frame.getStyleClass().add("print-a");
        if (b) frame.getStyleClass().add("print-b");
        Circle hook = new Circle(4.5);
        hook.getStyleClass().add(a ? "hook-a" : b ? "hook-b" : "hook");
        String name = (a ? "A  " : b ? "B  " : "") + p.number() + (p.title().isEmpty() ? "" : " " + p.title())
                + (p.pinned() ? " \u2020" : "");
        HBox text = new HBox(6, Ui.label(name, "print-number"), Ui.spring(), Ui.label(Texts.time(p.seconds()), "print-time"));
        text.setMaxWidth(PRINT_W);
        VBox box = new VBox(2, hook, frame, text);
        box.setAlignment(Pos.TOP_CENTER);
        Button button = new Button(null, box);
        button.setId("print-" + p.number());
        button.getStyleClass().add("print-button");
        button.setAccessibleText("Proof " + p.number());
        button.setTooltip(Ui.tip("Proof " + p.number() + (p.title().isEmpty() ? "" : ", " + p.title()) + "\n" + p.view().name() + ", "
                + p.preset().name() + ", " + Texts.size(p.width(), p.height()) + "\n"
                + Texts.time(p.seconds()) + ", " + Texts.figure(p) + ", " + p.passes() + " passes"
                + (p.stopped() ? ", stopped" : "") + (p.note().isEmpty() ? "" : "\n" + p.note()) + "\nClick or Enter: A   with Shift: B   F2: rename   Delete"));
        button.setOnMouseClicked(e -> {
            if (e.getButton() != javafx.scene.input.MouseButton.PRIMARY) return;
            hang(p, e.isShiftDown());
        });
        button.setOnKeyPressed(e -> {
            switch (e.getCode()) {
                case ENTER, SPACE -> hang(p, e.isShiftDown());
                case DELETE -> bench.prints().delete(p);
                case F2 -> rename(p);
                default -> {
                    return;
                }
            }
            e.consume();
        });
        button.setContextMenu(menu(p));
        return button;
    }

    private void hang(Proof p, boolean asB) {
        var at = asB ? bench.prints().bProperty() : bench.prints().aProperty();
        var other = asB ? bench.prints().aProperty() : bench.prints().bProperty();
        at.set(at.get() == p ? null : p);
        if (other.get() == p) other.set(null);
    }

    private ContextMenu menu(Proof p) {
        MenuItem asA = new MenuItem("Hang as A"), asB = new MenuItem("Hang as B");
        asA.setOnAction(e -> hang(p, false));
        asB.setOnAction(e -> hang(p, true));
        MenuItem pin = new MenuItem(p.pinned() ? "Unpin" : "Pin to the front"), name = new MenuItem("Rename\u2026"),
                back = new MenuItem("Take back from it"), noted = new MenuItem("Note\u2026"),
                file = new MenuItem("Save as a picture\u2026"), gone = new MenuItem("Delete");
        pin.setOnAction(e -> bench.prints().keep(p.withPinned(!p.pinned())));
        name.setOnAction(e -> rename(p));
        back.setOnAction(e -> {
            bench.stationProperty().set(Station.PROVE);
            bench.takingBack().ask(p);
        });
        noted.setOnAction(e -> ask("Note on proof " + p.number(), "Note", p.note(), t -> bench.prints().keep(p.withNote(t))));
        file.setOnAction(e -> save(p));
        gone.setOnAction(e -> bench.prints().delete(p));
        return new ContextMenu(asA, asB, pin, name, back, noted, file, gone);
    }

    private void save(Proof p) {
        FileChooser c = new FileChooser();
        c.setTitle("Save proof " + p.number() + " as a picture");
        c.setInitialFileName("proof " + p.number() + ".png");
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("PNG", "*.png"));
        File f = c.showSaveDialog(getScene().getWindow());
        if (f != null) bench.prints().stamp().save(p, f.toPath());
    }

    private void rename(Proof p) {
        ask("Rename proof " + p.number(), "Name", p.title(), t -> bench.prints().keep(p.withTitle(t)));
    }

    private void ask(String title, String what, String before, Consumer<String> take) {
        TextInputDialog d = new TextInputDialog(before);
        d.initOwner(getScene().getWindow());
        d.setTitle(title);
        d.setHeaderText(null);
        d.setGraphic(null);
        d.setContentText(what);
        d.getDialogPane().getStylesheets().addAll(getScene().getStylesheets());
        d.setX(60);
        d.setY(160);
        d.showAndWait().ifPresent(t -> take.accept(t.strip()));
    }

    private Image image(Path p) {
        return images.computeIfAbsent(p, k -> new Image(k.toUri().toString(), 3 * PRINT_W, 3 * PRINT_H, true, true, true));
    }
}
