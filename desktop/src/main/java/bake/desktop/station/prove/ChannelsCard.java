package bake.desktop.station.prove;

import bake.desktop.parts.Ui;
import bake.desktop.parts.WordBoxes;
import bake.desktop.text.Texts;
import bake.formats.project.Preset;
import bake.studio.preset.Presets;
import bake.studio.render.Channel;
import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** What the preset's EXR files hold beside the picture, and what that takes. */
final class ChannelsCard extends VBox {
    private final ProveWork work;
    private final WordBoxes boxes;
    private final Label cost = Ui.note("");

    ChannelsCard(ProveWork work) {
        this.work = work;
        cost.setId("preset-channels-cost");
        boxes = new WordBoxes("preset-channels", "preset-channel-", Channel.words(),
                words -> work.prover().change(p -> p.withChannels(words.isEmpty() ? null : words)));
        getChildren().add(Ui.card("Channels", null, boxes, cost));
        work.prover().presetProperty().addListener((o, a, b) -> refresh());
        work.prover().runningProperty().addListener((o, a, b) -> boxes.setDisable(b));
        work.document().projectProperty().addListener((o, a, b) -> refresh());
        refresh();
    }

    private void refresh() {
        Preset p = work.prover().presetProperty().get();
        List<Channel> wanted = p == null ? List.of() : Channel.all(p.channels());
        boxes.show(wanted.stream().map(Channel::word).toList());
        if (wanted.isEmpty() || work.document().view() == null) {
            cost.setText("EXR files of proofs and finals hold these beside the picture.");
            return;
        }
        int[] s = Presets.size(p, work.document().view());
        long pixels = (long) s[0] * s[1];
        int groups = work.document().sourceGroups();
        cost.setText("A picture of this size takes about " + Texts.bytes(pixels * Channel.memory(wanted, groups))
                + " of memory with them, and at most " + Texts.bytes(pixels * Channel.disk(wanted, groups)) + " on disk before it is packed.");
    }
}
