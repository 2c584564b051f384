package bake.desktop.station.finals;

import bake.core.finish.Gamut;
import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.parts.WordBoxes;
import bake.desktop.text.Moments;
import bake.desktop.text.Texts;
import bake.desktop.work.Finals;
import bake.desktop.work.QueueHand;
import bake.formats.project.DeliverySpec;
import bake.formats.project.Preset;
import bake.studio.plan.Deliveries;
import bake.studio.preset.Presets;
import bake.studio.queue.FileNames;
import bake.studio.queue.Manners;
import bake.studio.queue.QueueHours;
import bake.studio.render.Channel;
import java.io.File;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import javafx.util.StringConverter;

/** The Finals sheet: what is promised and when, when the machine may work, which files, where they go, and with which settings. */
public final class FinalsSheet extends VBox {
    private static final List<String> KINDS = List.of("png", "tif", "jpg", "exr", "hdr");
    private final FinalsWork work;
    private final Finals finals;
    private final Field due = new Field("due", 190, this::due), hours = new Field("finals-hours", 190, this::hours),
            names = new Field("finals-names", 190, this::names), dpi = new Field("finals-dpi", 60, this::dpi),
            quality = new Field("finals-quality", 60, this::quality);
    private final ComboBox<Manners> manners = new ComboBox<>();
    private final Label left = Ui.note(""), folder = Ui.label("", "figure"), example = Ui.note(""), round = Ui.label("", "figure");
    private final HBox kinds = new HBox(9);
    private final WordBoxes channels;
    private final Label cost = Ui.note("");
    private final CheckBox eight = new CheckBox("8 bit PNG and TIF, not 16");
    private final ComboBox<String> gamut = new ComboBox<>();
    private static final Map<String, Gamut> GAMUTS = gamuts();
    private final VBox presets = Ui.card("Final presets", null);

    private static Map<String, Gamut> gamuts() {
        Map<String, Gamut> out = new java.util.LinkedHashMap<>();
        out.put("sRGB", Gamut.SRGB);
        out.put("P3, D65", Gamut.P3);
        out.put("BT.2020", Gamut.BT2020);
        return out;
    }

    public FinalsSheet(FinalsWork work) {
        this.work = work;
        finals = work.finals();
        folder.setWrapText(true);
        due.setPromptText("14 March 2027 17:00");
        hours.setPromptText("always");
        hours.setTooltip(Ui.tip("When this machine may render: always, nights, or such as 19:00-07:30, weekends"));
        for (String k : KINDS) {
            CheckBox b = new CheckBox(k.toUpperCase(java.util.Locale.ROOT));
            b.setId("kind-" + k);
            b.setOnAction(e -> kind(k, b.isSelected()));
            kinds.getChildren().add(b);
        }
        manners.setId("finals-manners");
        manners.getItems().setAll(Manners.values());
        manners.setConverter(new StringConverter<>() {
            @Override
            public String toString(Manners m) {
                return m == null ? "" : switch (m) {
                    case ALL -> "all of the machine";
                    case HALF -> "half of its threads";
                    case REST -> "rest";
                };
            }

            @Override
            public Manners fromString(String s) {
                return null;
            }
        });
        manners.setTooltip(Ui.tip("What the queue takes while keys are pressed here; after two minutes without one it takes all again"));
        manners.setOnAction(e -> {
            QueueHand.Seen s = finals.queue().seenProperty().get();
            Manners m = manners.getValue();
            if (m != null && s != null && m != s.manners()) finals.queue().tell(q -> q.manners(m));
        });
        channels = new WordBoxes("finals-channels", "channel-", Channel.words(), words -> finals.change(d -> d.withChannels(words)));
        cost.setId("finals-channels-cost");
        gamut.setId("finals-gamut");
        gamut.setAccessibleText("Colours of the files");
        gamut.getItems().addAll(GAMUTS.keySet());
        gamut.setOnAction(e -> {
            Gamut g = GAMUTS.get(gamut.getValue());
            if (g != null && g != Deliveries.options(finals.delivery()).gamut())
                finals.change(d -> d.withGamut(g == Gamut.SRGB ? null : g.name().toLowerCase(java.util.Locale.ROOT)));
        });
        eight.setId("finals-eight");
        eight.setOnAction(e -> finals.change(d -> d.withBits(eight.isSelected() ? 8 : null)));
        getChildren().addAll(Ui.card("Promised", round, Ui.line("Due", due), left, Ui.line("Hours", hours), Ui.line("While I work here", manners),
                Ui.row(Ui.button("finals-round", "Next round", "The next delivery of this project begins as this one is; its files have places of their own",
                        finals::nextRound, "small"))),
                Ui.card("Files", null, kinds, Ui.line("Names", names), example, Ui.line("dpi", dpi), Ui.line("JPEG quality", quality), Ui.line("Colours", gamut), eight,
                        Ui.note("In EXR beside the picture:"), channels, cost,
                        Ui.note("PNG, TIF and JPG hold the finished picture, EXR and HDR the light of the scene in cd/m\u00b2.")),
                Ui.card("Folder", Ui.button("finals-folder", "Choose\u2026", null, this::choose, "small"), folder), new ReportCard(work),
                presets);
        finals.queue().seenProperty().addListener((o, a, b) -> {
            if (a == null || !a.hours().equals(b.hours()) || a.manners() != b.manners()) refresh();
        });
        work.document().projectProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private void due(String t) {
        String to = t.isEmpty() ? null : Moments.parse(t, LocalDateTime.now()).toString();
        // The first round is due when the project is.
        if (work.document().project().deliveries().size() < 2) work.document().edit(null, p -> p.withDue(to));
        else finals.change(d -> d.withDue(to));
    }

    private void hours(String t) {
        QueueHours h = QueueHours.of(t.isEmpty() ? "always" : t);
        finals.queue().tell(q -> q.hours(h));
    }

    private void names(String t) {
        FileNames.name(t, "p", "v", LocalDate.now(), "d", "f", 1, 1);
        finals.change(d -> d.withNames(t.isEmpty() ? null : t));
    }

    private void dpi(String t) {
        finals.change(d -> d.withDpi(number(t, 1, 10_000)));
    }

    private void quality(String t) {
        finals.change(d -> d.withQuality(number(t, 1, 100)));
    }

    private static Integer number(String t, int least, int most) {
        if (t.isEmpty()) return null;
        if (!t.matches("\\d{1,6}") || Integer.parseInt(t) < least || Integer.parseInt(t) > most)
            throw new IllegalArgumentException("A number from " + least + " to " + most);
        return Integer.parseInt(t);
    }

    private void kind(String k, boolean wanted) {
        List<String> now = new ArrayList<>(finals.delivery().files());
        if (wanted) now.add(k);
        else now.remove(k);
        // One is always there.
        if (now.isEmpty()) refresh();
        else finals.change(d -> d.withFiles(KINDS.stream().filter(now::contains).toList()));
    }

    /** What channels take of memory and disk in the largest picture. */
    private void cost(DeliverySpec d) {
        long pixels = finals.rows().stream().mapToLong(r -> (long) r.picture().width() * r.picture().height()).max().orElse(0);
        boolean any = work.document().project() != null && pixels > 0 && d.files().contains("exr") && !d.channels().isEmpty();
        cost.setVisible(any);
        cost.setManaged(any);
        if (!any) return;
        int groups = work.document().sourceGroups();
        List<Channel> wanted = Channel.all(d.channels());
        cost.setText("The largest picture takes about " + Texts.bytes(pixels * Channel.memory(wanted, groups)) + " of memory with them, and at most "
                + Texts.bytes(pixels * Channel.disk(wanted, groups)) + " on disk before it is packed.");
    }

    private void choose() {
        DirectoryChooser c = new DirectoryChooser();
        c.setTitle("Folder for the finals");
        if (work.document().folder() != null) c.setInitialDirectory(work.document().folder().toFile());
        File f = c.showDialog(getScene().getWindow());
        if (f != null) finals.change(d -> d.withFolder(text(f.toPath())));
    }

    /** In the project's folder as it lies there, else where it is. */
    private String text(Path f) {
        return f.startsWith(work.document().folder()) ? work.document().folder().relativize(f).toString() : f.toString();
    }

    private void refresh() {
        setDisable(work.document().project() == null);
        DeliverySpec d = finals.delivery();
        var promised = work.document().project() == null ? null : Moments.read(Deliveries.due(work.document().project(), d));
        round.setText(d.name());
        due.show(promised == null ? "" : Moments.text(promised));
        left.setText(promised == null ? "Date and time, such as \"Friday 12:00\" or 14 March 2027 17:00; empty for none."
                : Texts.until(LocalDateTime.now(), promised) + ".");
        hours.show(finals.plan().hours().text());
        QueueHand.Seen seen = finals.queue().seenProperty().get();
        manners.setValue(seen == null ? Manners.ALL : seen.manners());
        names.show(d.names() == null ? FileNames.USUAL : d.names());
        dpi.show("" + Deliveries.options(d).dpi());
        quality.show("" + Deliveries.options(d).quality());
        GAMUTS.forEach((name, g) -> {
            if (g == Deliveries.options(d).gamut()) gamut.setValue(name);
        });
        eight.setSelected(Deliveries.options(d).bits() == 8);
        kinds.getChildren().forEach(n -> ((CheckBox) n).setSelected(d.files().contains(n.getId().substring(5))));
        channels.setDisable(!d.files().contains("exr"));
        channels.show(d.channels());
        var rows = finals.rows();
        cost(d);
        example.setText("{project} {view} {date} {delivery} {preset} {size}" + (rows.isEmpty() ? "" : "\n" + rows.getFirst().picture().files().getFirst()
                .getFileName()));
        Path f = finals.folder();
        folder.setText(f == null ? "" : work.document().folder() != null && f.startsWith(work.document().folder())
                ? work.document().folder().relativize(f).toString() : f.toString());
        presets.getChildren().remove(1, presets.getChildren().size());
        if (work.document().project() == null) return;
        for (Preset p : Presets.all(work.document().project())) {
            if (!p.isFinal()) continue;
            presets.getChildren().add(Ui.line(p.name(), Ui.label(Texts.aimed(p) + " " + Texts.noise(p.noiseAim()) + ", " + p.bounces() + " bounces",
                    "figure")));
        }
    }
}
