package bake.core.cache;

/**
 * Shares among records what is rare in them: light of small and bright things far off, which one record met by chance and
 * its neighbours did not. Kept where it was found it would be seen as a spot as wide as the record. As the others of a surface would have
 * found it as well, their mean is the better estimate for all: light is filtered wider where it is rarer, and none is lost or gained (path
 * space filtering: Keller, Dahm and Binder 2014; that few samples bring it tells it apart: Zirr, Hanika and Dachsbacher 2018, "Re-Weighting
 * Firefly Samples for Improved Finite-Sample Monte Carlo Estimates"). Records share with those that they see, so that none passes a wall,
 * and with those of earlier rounds, which keep what they were given then: in a late round a record may be the only one of its corner.
 */
public final class RareIrradiance {
    private final int channels;
    private final IrradianceCache around;
    private final RecordSamples wide;

    public RareIrradiance(int channels) {
        this.channels = channels;
        wide = new RecordSamples(channels);
        around = new IrradianceCache(channels);
    }

    /** Looks at the records of a round; chunks that were not made are null. */
    public void round(RecordSamples... chunks) {
        RecordSamples part = new RecordSamples(channels);
        float[] none = new float[6], rare = new float[channels];
        for (RecordSamples c : chunks) {
            if (c == null) continue;
            for (int i = 0; i < c.count; i++) {
                float[] d = c.data;
                int o = i * c.stride, r = i * (1 + channels);
                if (!(c.rare[r] > 0)) continue;
                System.arraycopy(c.rare, r + 1, rare, 0, channels);
                for (RecordSamples of : new RecordSamples[] {wide, part}) of.add(d[o], d[o + 1], d[o + 2], d[o + IrradianceCache.NORMAL],
                        d[o + IrradianceCache.NORMAL + 1], d[o + IrradianceCache.NORMAL + 2], c.rare[r], none, rare);
            }
        }
        around.append(part);
    }

    /** Gives the records of one chunk the mean of what is rare around them in place of their own. Chunks may be done at the same time. */
    public void share(RecordSamples s, Sight sight) {
        if (s == null) return;
        Mean mean = new Mean(sight);
        for (int i = 0; i < s.count; i++) {
            int o = i * s.stride, light = o + IrradianceCache.LIGHT, r = i * (1 + channels);
            if (!(s.rare[r] > 0)) continue;
            mean.around(s.data, o);
            float before = CellSamples.luminance(s.data, light, channels);
            for (int c = 0; c < channels; c++) s.data[light + c] = Math.max(0, s.data[light + c] - s.rare[r + 1 + c]) + mean.light[c];
            float after = CellSamples.luminance(s.data, light, channels);
            // Gradients are relative to all light; those of what is rare are not known.
            for (int g = 0; after > 0 && g < 6; g++) s.data[o + IrradianceCache.ROTATION + g] *= Math.min(2, before / after);
            s.rare[r] = 0;
        }
    }

    /** Sums what is rare in the records that reach a place. */
    private final class Mean implements IrradianceCache.Found {
        final float[] light = new float[channels];
        private final Sight sight;
        private float[] of;
        private int at;
        private float sum;

        Mean(Sight sight) {
            this.sight = sight;
        }

        void around(float[] data, int o) {
            of = data;
            at = o;
            sum = 0;
            java.util.Arrays.fill(light, 0);
            around.each(data[o], data[o + 1], data[o + 2], data[o + IrradianceCache.NORMAL], data[o + IrradianceCache.NORMAL + 1],
                    data[o + IrradianceCache.NORMAL + 2], this);
            for (int c = 0; c < channels; c++) light[c] /= sum;
        }

        @Override
        public void record(int number, float weight) {
            int o = number * wide.stride;
            float[] d = wide.data;
            if (!sight.clear(of[at], of[at + 1], of[at + 2], of[at + IrradianceCache.NORMAL], of[at + IrradianceCache.NORMAL + 1],
                    of[at + IrradianceCache.NORMAL + 2], d[o], d[o + 1], d[o + 2])) return;
            sum += weight;
            for (int c = 0; c < channels; c++) light[c] += weight * d[o + IrradianceCache.LIGHT + c];
        }
    }
}
