package bake.core.light;

import java.util.Arrays;
import java.util.List;

/** Aiming at all of the surroundings, or at pieces of panes and portals, each with its chance. */
final class PaneAim extends Aim {
    /** Panes that are aimed at; the others are left to aiming at everything. */
    private static final int MOST = 14;
    /** Share of all worth from which on further panes would cost more than they bring. */
    private static final float ENOUGH = 0.95f;
    /** Least chance of aiming at everything: that alone reaches every direction. */
    private static final float LEAST_WHOLE = 0.06f;

    private final Pane[] panes;
    private final int[] numbers;
    private final int cuts;
    private final boolean oneSided;
    /** Chance of each piece, pane by pane, and running sums of them. */
    private final float[] chances, sums;

    private PaneAim(Pane[] panes, int[] numbers, int cuts, float whole, float[] chances) {
        super(whole);
        this.panes = panes;
        boolean any = false;
        for (Pane p : panes) any |= p.oneSided();
        oneSided = any;
        this.numbers = numbers;
        this.cuts = cuts;
        this.chances = chances;
        sums = new float[chances.length];
        float run = 0;
        for (int i = 0; i < sums.length; i++) sums[i] = run += chances[i];
    }

    static Aim of(List<Pane> all, int cuts, float[] weights, int o) {
        int pieces = cuts * cuts, n = all.size();
        float[] total = new float[n];
        Integer[] best = new Integer[n];
        for (int p = 0; p < n; p++) {
            best[p] = p;
            for (int k = 0; k < pieces; k++) total[p] += weights[o + 1 + p * pieces + k];
        }
        Arrays.sort(best, (a, b) -> Float.compare(total[b], total[a]));
        int kept = 0;
        float sum = 0, every = 0;
        for (float t : total) every += t;
        while (kept < Math.min(MOST, n) && total[best[kept]] > 0 && sum < ENOUGH * every) sum += total[best[kept++]];
        Pane[] panes = new Pane[kept];
        int[] numbers = new int[kept];
        float[] chances = new float[kept * pieces];
        float whole = sum > 0 ? Math.clamp(weights[o] / (weights[o] + sum), LEAST_WHOLE, 1f) : 1, k = sum > 0 ? (1 - whole) / sum : 0;
        for (int i = 0; i < kept; i++) {
            numbers[i] = best[i];
            panes[i] = all.get(best[i]);
            for (int j = 0; j < pieces; j++) chances[i * pieces + j] = weights[o + 1 + best[i] * pieces + j] * k;
        }
        return new PaneAim(panes, numbers, cuts, whole, chances);
    }

    @Override
    public int sample(float px, float py, float pz, float choose, float u1, float u2, LightSample out) {
        float target = choose * sums[sums.length - 1];
        int a = 0, b = sums.length - 1;
        while (a < b) {
            int m = (a + b) >>> 1;
            if (sums[m] <= target) a = m + 1;
            else b = m;
        }
        int pieces = cuts * cuts, pane = a / pieces, piece = a % pieces;
        if (!panes[pane].faces(px, py, pz)) return -1;
        panes[pane].aim(px, py, pz, (piece % cuts + u1) / cuts, (piece / cuts + u2) / cuts, out.rgb);
        out.x = out.rgb[0];
        out.y = out.rgb[1];
        out.z = out.rgb[2];
        return 1 + numbers[pane] * pieces + piece;
    }

    @Override
    public float pdf(float px, float py, float pz, float dx, float dy, float dz, float whole, int bin) {
        float sum = wholeFrom(px, py, pz) * whole;
        for (int k = 0; k < panes.length; k++) sum += panes[k].perSteradian(px, py, pz, dx, dy, dz, cuts, chances, k * cuts * cuts);
        return sum;
    }

    @Override
    public float wholeFrom(float px, float py, float pz) {
        float w = whole();
        if (oneSided) for (int k = 0; k < panes.length; k++) if (!panes[k].faces(px, py, pz))
            w += sums[(k + 1) * cuts * cuts - 1] - (k == 0 ? 0 : sums[k * cuts * cuts - 1]);
        return w;
    }

    @Override
    public boolean indoors() {
        return whole() < 0.5f;
    }
}
