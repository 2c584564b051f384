package bake.core.denoise;

import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicBoolean;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * What a row of pixels gathers from one tap after another: light, variance and weight. Eight pixels at a time once that is compiled, which
 * takes about a second that nobody waits for; one by one until then, with the same bits.
 */
final class WaveletTap {
    /** Differences beyond which a weight is nothing, and the least cosine; both keep products in the range of normal numbers. */
    private static final float FARTHEST = 20, LEAST_COSINE = 0.1f, NOTHING = 1e-7f;
    private static final VectorSpecies<Float> EIGHT = FloatVector.SPECIES_256;
    private static final AtomicBoolean BEGUN = new AtomicBoolean();
    private static final int PRACTICE_PIXELS = 896, PRACTICES = 2500;
    private static volatile boolean compiled;

    final float[] r, g, b, v, sum;
    /** Of the row's own pixels: 1 by the difference in light that counts, how depth changes, and by how much it may. */
    final float[] reach, slope, still;
    final Pixels own, tap;

    /** A row of pixels: normals, depth, light with its luminance and variance. */
    static final class Pixels {
        final float[] nx, ny, nz, z, r, g, b, l, v;

        Pixels(int w) {
            nx = new float[w];
            ny = new float[w];
            nz = new float[w];
            z = new float[w];
            r = new float[w];
            g = new float[w];
            b = new float[w];
            l = new float[w];
            v = new float[w];
        }
    }

    WaveletTap(int w) {
        r = new float[w];
        g = new float[w];
        b = new float[w];
        v = new float[w];
        sum = new float[w];
        reach = new float[w];
        slope = new float[w];
        still = new float[w];
        own = new Pixels(w);
        tap = new Pixels(w);
    }

    /** Adds what lies in {@link #tap} to pixels x0 to x1; {@code far} is how many pixels of depth's slope lie between. */
    void add(int x0, int x1, float kernel, float far) {
        if (!compiled) {
            if (BEGUN.compareAndSet(false, true)) ForkJoinPool.commonPool().execute(WaveletTap::practise);
            single(x0, x1, kernel, far);
        } else single(eight(x0, x1, kernel, far), x1, kernel, far);
    }

    /** Runs until the virtual machine has compiled it. */
    private static void practise() {
        WaveletTap t = new WaveletTap(PRACTICE_PIXELS);
        for (int i = 0; i < PRACTICES; i++) t.eight(0, PRACTICE_PIXELS, 1, 1);
        compiled = true;
    }

    void single(int x0, int x1, float kernel, float far) {
        for (int x = x0; x < x1; x++) {
            float cos = Math.max(own.nx[x] * tap.nx[x] + own.ny[x] * tap.ny[x] + own.nz[x] * tap.nz[x], LEAST_COSINE);
            float n2 = cos * cos, n4 = n2 * n2, n8 = n4 * n4, n16 = n8 * n8;
            float q = Math.abs(own.z[x] - tap.z[x]) / (slope[x] * far + still[x]) + Math.abs(own.l[x] - tap.l[x]) * reach[x];
            // e to the minus q as (e to the minus q/32) to the 32nd, by its series.
            float t = Math.min(q, FARTHEST) * (1 / 32f), e = ((t * (-1 / 6f) + 0.5f) * t - 1) * t + 1;
            float e2 = e * e, e4 = e2 * e2, e8 = e4 * e4, e16 = e8 * e8, e32 = e16 * e16;
            float k = Math.max(n16 * e32 * kernel - NOTHING, 0);
            r[x] += k * tap.r[x];
            g[x] += k * tap.g[x];
            b[x] += k * tap.b[x];
            v[x] += k * k * tap.v[x];
            sum[x] += k;
        }
    }

    /** The same by eights; returns where it ended. */
    int eight(int x0, int x1, float kernel, float far) {
        // Fields would be read again after every store.
        float[] sr = r, sg = g, sb = b, sv = v, ss = sum, re = reach, sl = slope, st = still;
        float[] anx = own.nx, any = own.ny, anz = own.nz, az = own.z, al = own.l;
        float[] bnx = tap.nx, bny = tap.ny, bnz = tap.nz, bz = tap.z, bl = tap.l, br = tap.r, bg = tap.g, bb = tap.b, bv = tap.v;
        int x = x0;
        for (; x + EIGHT.length() <= x1; x += EIGHT.length()) {
            FloatVector cos = at(anx, x).mul(at(bnx, x)).add(at(any, x).mul(at(bny, x)))
                    .add(at(anz, x).mul(at(bnz, x))).max(LEAST_COSINE);
            FloatVector n2 = cos.mul(cos), n4 = n2.mul(n2), n8 = n4.mul(n4), n16 = n8.mul(n8);
            FloatVector q = at(az, x).sub(at(bz, x)).abs().div(at(sl, x).mul(far).add(at(st, x)))
                    .add(at(al, x).sub(at(bl, x)).abs().mul(at(re, x)));
            FloatVector t = q.min(FARTHEST).mul(1 / 32f), e = t.mul(-1 / 6f).add(0.5f).mul(t).sub(1).mul(t).add(1);
            FloatVector e2 = e.mul(e), e4 = e2.mul(e2), e8 = e4.mul(e4), e16 = e8.mul(e8), e32 = e16.mul(e16);
            FloatVector k = n16.mul(e32).mul(kernel).sub(NOTHING).max(0);
            at(sr, x).add(k.mul(at(br, x))).intoArray(sr, x);
            at(sg, x).add(k.mul(at(bg, x))).intoArray(sg, x);
            at(sb, x).add(k.mul(at(bb, x))).intoArray(sb, x);
            at(sv, x).add(k.mul(k).mul(at(bv, x))).intoArray(sv, x);
            at(ss, x).add(k).intoArray(ss, x);
        }
        return x;
    }

    private static FloatVector at(float[] a, int x) {
        return FloatVector.fromArray(EIGHT, a, x);
    }
}
