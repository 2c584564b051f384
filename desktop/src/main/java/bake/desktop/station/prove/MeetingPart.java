package bake.desktop.station.prove;

import bake.desktop.parts.Field;
import bake.desktop.parts.Ui;
import bake.desktop.work.PresetMeeting;
import bake.formats.project.SharedPreset;
import bake.studio.preset.PresetChanges;
import javafx.scene.control.Button;
import javafx.scene.control.Toggle;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** Somebody else was quicker: setting by setting, side by side. */
final class MeetingPart extends VBox {
    /** What one's own is called when both are kept. */
    private String name;

    MeetingPart(PresetMeeting hand, PresetMeeting.Meeting m, String title) {
        super(6);
        name = title;
        SharedPreset t = m.theirs();
        String who = t.author() == null ? "Somebody" : t.author();
        setId("preset-meeting");
        getChildren().add(Ui.note(who + " saved version " + t.preset().version() + " of " + t.preset().name() + " meanwhile"
                + (t.reason() == null ? "." : ": " + t.reason() + ".") + (m.merge() == null ? " What both were made from is not on the shelf."
                        : m.merge().conflicts().isEmpty() ? " Nothing that you changed was changed there."
                                : " Both changed what follows; choose for each.")));
        if (m.merge() != null) for (PresetChanges.Change c : m.merge().conflicts()) {
            ToggleGroup g = new ToggleGroup();
            HBox two = Ui.choice(g, "meet-" + c.key() + "-", "theirs", "mine");
            for (Toggle x : g.getToggles()) {
                boolean mine = x.getUserData().equals("mine");
                ((javafx.scene.control.ToggleButton) x).setText((mine ? "mine " : "theirs ") + (mine ? c.is() : c.was()));
                if (m.takesMine().containsKey(c.key()) && m.takesMine().get(c.key()) == mine) x.setSelected(true);
            }
            g.selectedToggleProperty().addListener((o, a, b) -> {
                if (b != null) hand.decide(c.key(), b.getUserData().equals("mine"));
            });
            getChildren().addAll(Ui.label(c.name(), "note"), two);
        }
        Button merge = Ui.button("meet-merge", "Save both together", "As version " + (t.preset().version() + 1), hand::merge, "small");
        merge.setDisable(!hand.decided());
        Field other = new Field("meet-name", 120, x -> name = x);
        other.show(name.equalsIgnoreCase(t.preset().name()) ? name + ", mine" : name);
        name = other.getText();
        getChildren().addAll(Ui.row(merge, Ui.button("meet-leave", "Save nothing", "Your settings stay changed in this project",
                hand::leaveIt, "small")), Ui.row(Ui.button("meet-keep", "Keep mine as", "A preset of its own beside theirs",
                        () -> hand.keepBoth(name), "small"), other));
    }
}
