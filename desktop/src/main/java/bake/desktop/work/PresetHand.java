package bake.desktop.work;

import bake.formats.project.Preset;
import bake.formats.project.Project;
import bake.formats.project.SharedPreset;
import bake.formats.project.ShippedPresets;
import bake.studio.preset.PresetChanges;
import bake.studio.preset.PresetShelf;
import bake.studio.preset.Presets;
import bake.studio.preset.Shelves;
import bake.studio.render.NoiseFall;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Executor;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** The presets of shelves: which there are, saving to them, and what to do when somebody else was quicker. Holds no control. */
public final class PresetHand {
    private final Workbench bench;
    private final Executor background;
    private final Prover prover;
    private final ObjectProperty<List<Preset>> all = new SimpleObjectProperty<>(List.of());
    private final ObjectProperty<List<String>> shelfNames = new SimpleObjectProperty<>(List.of());
    private final ObjectProperty<SharedPreset> newer = new SimpleObjectProperty<>();
    private final ObjectProperty<SharedPreset> about = new SimpleObjectProperty<>();
    private final PresetMeeting meeting;
    private final PresetFiles files;
    /** The studio's shelf; null for the one of the environment. */
    private Path studio;
    private int asked;

    PresetHand(Workbench bench, Executor background, Prover prover) {
        this.bench = bench;
        this.background = background;
        this.prover = prover;
        meeting = new PresetMeeting(this);
        files = new PresetFiles(bench, background, this);
        bench.projectProperty().addListener((o, a, b) -> {
            if (a == null || b == null || a.presets() != b.presets()) look();
        });
        prover.presetProperty().addListener((o, a, b) -> {
            if (a == null || b == null || !a.name().equals(b.name()) || a.version() != b.version()) look();
        });
    }

    /** All presets that pictures of the project can be made with. */
    public ObjectProperty<List<Preset>> allProperty() {
        return all;
    }

    /** A newer version of the chosen preset than the project uses, or null. */
    public ObjectProperty<SharedPreset> newerProperty() {
        return newer;
    }

    /** Two that saved one preset, until it is decided. */
    public PresetMeeting meeting() {
        return meeting;
    }

    /** The chosen preset as its shelf, or what ships, describes it; null where nothing does. */
    public ObjectProperty<SharedPreset> aboutProperty() {
        return about;
    }

    /** Where the studio's shelf is, for as long as the window is open. */
    public void useStudio(Path folder) {
        studio = folder;
        look();
    }

    /** Where the studio's shelf is from now on. */
    public void chooseStudio(Path folder) {
        try {
            Shelves.chooseStudio(folder);
        } catch (IOException e) {
            bench.notices().fail(e);
        }
        useStudio(folder);
    }

    /** What the shelves are called that a preset can be saved to, and which of them are away. */
    public ObjectProperty<List<String>> shelfNamesProperty() {
        return shelfNames;
    }

    /** Looks at the shelves again. */
    public void look() {
        Project p = bench.project();
        Preset chosen = prover.presetProperty().get();
        int number = ++asked;
        if (p == null) return;
        Path folder = bench.folder(), shared = studio;
        // A share that hangs is waited for here and not by the window.
        background.execute(() -> {
            Shelves s = Shelves.of(folder, shared);
            List<String> names = s.all().stream().map(x -> x.name() + (x.away() ? ", away" : "")).toList();
            List<Preset> found = Presets.all(p, s);
            SharedPreset better = chosen == null ? null : s.newer(chosen), told = chosen == null ? null : s.about(chosen);
            bench.later(() -> {
                if (number != asked) return;
                shelfNames.set(names);
                all.set(found);
                newer.set(better);
                about.set(told);
            });
        });
    }

    /** Makes the next proofs with a preset; the project keeps this version of one that is from a shelf. */
    public void choose(Preset p) {
        if (!ShippedPresets.PRESETS.contains(p)) bench.edit(null, q -> Presets.pinned(q, p));
        prover.presetProperty().set(p);
    }

    /** Takes the newer version that is offered. */
    public void takeNewer() {
        SharedPreset n = newer.get();
        if (n != null) choose(n.preset());
    }

    /** Whether a preset is for the view's setting, or for any; it may get dark in all of them. */
    public boolean suits(Preset p) {
        return bench.view() == null || p.setting().equals("any") || p.setting().equals("dusk")
                || p.setting().equals(bench.view().setting());
    }

    /** Exposure of the view, EV at ISO 100; null without a view. */
    public Double ev() {
        return bench.view() == null ? null : bench.view().camera().camera().ev100();
    }

    /** Exposes the view. */
    public void expose(double ev) {
        bench.editView(null, v -> v.withCamera(v.camera().camera().withEv(ev)));
    }

    /** Presets as single files. */
    public PresetFiles files() {
        return files;
    }

    /** What differs from the preset of the same name. */
    public List<PresetChanges.Change> changes() {
        Preset now = prover.presetProperty().get(), base = base();
        return now == null || base == null ? List.of() : PresetChanges.between(base, now);
    }

    /** The preset as it is kept, before it was changed here. */
    private Preset base() {
        Preset now = prover.presetProperty().get();
        if (now == null || bench.project() == null) return null;
        return Presets.all(bench.project()).stream().filter(x -> x.name().equals(now.name())).findFirst()
                .orElseGet(() -> all.get().stream().filter(x -> x.name().equals(now.name())).findFirst().orElse(null));
    }

    /** Takes one change back, or all for null. */
    public void back(String key) {
        Preset base = base();
        if (base != null) prover.change(p -> key == null ? base : PresetChanges.back(p, base, key));
    }

    /**
     * Saves the settings as the next version of their preset, or as a new one under another name.
     *
     * @param shelf its place in {@link #shelfNamesProperty}
     */
    public void save(int shelf, String name, String reason) {
        Preset p = prover.presetProperty().get();
        if (p == null || name.isBlank()) return;
        Path folder = bench.folder(), shared = studio;
        background.execute(() -> {
            try {
                PresetShelf s = Shelves.of(folder, shared).all().get(shelf);
                PresetShelf.Entry there = s.find(name);
                boolean same = name.equalsIgnoreCase(p.name());
                // Settings under another name begin a preset of their own.
                // What was made from one that ships goes on from its number.
                boolean goesOn = same && (there != null || ShippedPresets.find(name, p.version()) != null);
                save(s, p.named(same && there != null ? there.name() : name, goesOn ? p.version() : 0), reason);
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    /** Saves in the background; what goes wrong is said. */
    void saving(PresetShelf s, Preset p, String reason) {
        background.execute(() -> {
            try {
                save(s, p, reason);
            } catch (IOException e) {
                bench.notices().fail(e);
            }
        });
    }

    private void save(PresetShelf s, Preset p, String reason) throws IOException {
        try {
            SharedPreset made = s.save(SharedPreset.of(p), reason.isBlank() ? null : reason, System.getProperty("user.name"));
            bench.later(() -> saved(s, made));
        } catch (PresetShelf.Conflict c) {
            bench.later(() -> meeting.begin(s, p, c, reason));
        }
    }

    /** Takes what was saved into use. */
    void saved(PresetShelf s, SharedPreset made) {
        meeting.leaveIt();
        choose(made.preset());
        bench.notices().say("Saved as version " + made.preset().version() + " of " + made.preset().name() + " on the "
                + s.name() + " shelf.");
        look();
    }

    /** Moves all settings of quality together: each step up doubles the samples, which halves the variance. */
    public void quality(double doublings) {
        Preset base = base();
        if (base == null) return;
        double more = Math.pow(2, doublings);
        prover.change(p -> {
            Preset q = p.withLimits(Math.min(100, base.noiseAim() / Math.pow(more, falling(base))), base.timeLimit() * more,
                    (int) Math.min(1 << 24, Math.round(base.samples() * more)));
            return base.gatherRays() == null ? q : q.withGatherRays((int) Math.clamp(Math.round(base.gatherRays() * more), 32, 16384));
        });
    }

    /** With which power of the samples the noise falls that a preset aims at. */
    private static double falling(Preset p) {
        return p.aimsAtDenoised() ? NoiseFall.DENOISED : 0.5;
    }

    /** By how many doublings of its samples the settings differ from their preset. */
    public double quality() {
        Preset base = base(), now = prover.presetProperty().get();
        if (base == null || now == null) return 0;
        if (base.noiseAim() > 0 && now.noiseAim() > 0) return Math.log(base.noiseAim() / now.noiseAim()) / Math.log(2) / falling(base);
        return base.samples() > 0 && now.samples() > 0 ? Math.log((double) now.samples() / base.samples()) / Math.log(2) : 0;
    }
}
