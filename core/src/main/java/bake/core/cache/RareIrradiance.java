package bake.core.cache;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * Shares among the records of a round what is rare in them: light of small and bright things far off, which one record met by chance and its
 * neighbours did not. Kept where it was found it would be seen as a spot as wide as the record. As each record stands for what the others
 * of its surface would have found as well, their mean is the better estimate for all: light is filtered wider where it is rarer, and none
 * is lost or gained (path space filtering: Keller, Dahm and Binder 2014; for what few samples carry, Zirr, Hanika and Dachsbacher 2018,
 * "Re-Weighting Firefly Samples for Improved Finite-Sample Monte Carlo Estimates", tell such light apart by how few bring it).
 */
final class RareIrradiance {
    private RareIrradiance() {}

    /** Shares light, in place; chunks that were not made are null. */
    static void share(RecordSamples[] chunks, int channels) {
        RecordSamples wide = new RecordSamples(channels);
        float[] none = new float[6], rare = new float[channels];
        for (RecordSamples c : chunks) {
            if (c == null) continue;
            for (int i = 0; i < c.count; i++) {
                float[] d = c.data;
                int o = i * c.stride, r = i * (1 + channels);
                if (!(c.rare[r] > 0)) continue;
                System.arraycopy(c.rare, r + 1, rare, 0, channels);
                wide.add(d[o], d[o + 1], d[o + 2], d[o + IrradianceCache.NORMAL], d[o + IrradianceCache.NORMAL + 1],
                        d[o + IrradianceCache.NORMAL + 2], c.rare[r], none, rare);
            }
        }
        if (wide.count == 0) return;
        IrradianceCache around = new IrradianceCache(channels);
        around.append(wide);
        IntStream.range(0, chunks.length).parallel().filter(i -> chunks[i] != null).forEach(i -> share(chunks[i], around, channels));
    }

    private static void share(RecordSamples s, IrradianceCache around, int channels) {
        float[] mean = new float[channels];
        for (int i = 0; i < s.count; i++) {
            float[] d = s.data;
            int o = i * s.stride, light = o + IrradianceCache.LIGHT, r = i * (1 + channels);
            if (!(s.rare[r] > 0)) continue;
            around.read(d[o], d[o + 1], d[o + 2], d[o + IrradianceCache.NORMAL], d[o + IrradianceCache.NORMAL + 1],
                    d[o + IrradianceCache.NORMAL + 2], mean);
            float before = CellSamples.luminance(d, light, channels);
            for (int c = 0; c < channels; c++) d[light + c] = Math.max(0, d[light + c] - s.rare[r + 1 + c]) + mean[c];
            float after = CellSamples.luminance(d, light, channels);
            // Gradients are relative to all light, and those of rare light are not known.
            for (int g = 0; after > 0 && g < 6; g++) d[o + IrradianceCache.ROTATION + g] *= Math.min(2, before / after);
            Arrays.fill(s.rare, r, r + 1 + channels, 0);
        }
    }
}
