package bake.core.path;

import bake.core.cache.IrradianceCache;
import bake.core.cache.MattLight;
import bake.core.surface.Scatter;

/**
 * What a path does at points that caches know: takes their light from there, and goes on only by gloss. One for each {@link PathTracer}.
 */
public final class CachedPoints {
    /** Light that is worth a shadow ray of its own for gloss, in what a cell knows of the point. */
    private static final float LEAST_GLOSS = 0.25f;

    private final PathTracer path;
    private final CachedBounces cells;
    private final CachedIrradiance records;
    private final SplitBounce split;
    /**
     * Whether light ends after its first bounce off a matt surface: what such a bounce meets shows only what it gives off and is lit with.
     */
    private boolean onlyFirst;

    CachedPoints(PathTracer path, SplitBounce split) {
        this.path = path;
        this.split = split;
        cells = new CachedBounces(path.channels());
        records = new CachedIrradiance(path.channels(), split);
    }

    void follow(BounceSettings how) {
        onlyFirst = how.later() == BounceSettings.Later.NONE;
        records.follow(how);
    }

    /** Reads cells from now on, from some number of bounces on; null for none. */
    public void follow(MattLight c, int bounces) {
        cells.follow(c, bounces);
        if (split != null) split.rays().cached().follow(c, 1);
    }

    /** Reads records from now on; null for none. */
    public void follow(IrradianceCache c) {
        records.follow(c);
    }

    /** Whether the path ends at its point, since what follows would be a second bounce. */
    boolean ends() {
        return onlyFirst && path.wide > 0 && Scatter.mostlyMatt(path.point());
    }

    /** Whether cells know what the point scatters; to be asked once, before {@link #addBounces}. */
    boolean knowsBounces() {
        return cells.on() && cells.read(path.point(), path.scatter, path.ray, path.wide, path.random);
    }

    /** Whether records know it; the same. */
    boolean knowsIrradiance() {
        return path.wide == 0 && !path.cells.on() && !path.onlook.catching() && records.read(path.point(), path.scatter, path.random);
    }

    /** Adds what cells know of the point; false when the path ends there. */
    boolean addBounces(int bounce) {
        Scatter scatter = path.scatter;
        float sum = add(cells.light);
        boolean folds = scatter.foldsGloss(), mirrors = scatter.mirrors();
        if (folds && !scatter.hasGloss()) return mirrors && path.scatterOn(bounce) && scatter.smooth;
        // Gloss is traced on, and ends where it meets something matt. Of sunlight even wide gloss sends a good part one way.
        scatter.onlyGloss(false);
        path.direct().findGloss(bounce, LEAST_GLOSS * sum, folds);
        return folds ? mirrors && path.scatterOn(bounce) && scatter.smooth : path.scatterOn(bounce);
    }

    /** Adds what records know of the point, and light that comes straight; false when the path ends there, as it does off its matt body. */
    boolean addIrradiance(int bounce) {
        Scatter scatter = path.scatter;
        boolean before = path.indirect;
        path.indirect = true;
        if (path.shade < 1) for (int c = 0; c < records.light.length; c++) records.light[c] *= path.shade;
        add(records.light);
        path.indirect = before;
        boolean gloss = scatter.glossApart(), mirrors = scatter.mirrors();
        if (gloss) scatter.onlyGloss(true);
        path.caustics.add();
        path.direct().findBesideRecords(bounce, gloss);
        return (gloss || mirrors) && path.scatterOn(bounce) && (gloss || scatter.smooth);
    }

    /** Adds light of the point; returns its luminance, cd/m2. */
    private float add(float[] l) {
        float sum = 0;
        for (int c = 0; c < l.length; c += 3) {
            if (!(l[c] + l[c + 1] + l[c + 2] > 0)) continue;
            path.addBounced(c / 3, l[c], l[c + 1], l[c + 2]);
            sum += 0.2126f * l[c] + 0.7152f * l[c + 1] + 0.0722f * l[c + 2];
        }
        return sum;
    }
}
