package bake.core.cache;

import bake.core.math.Frame;
import java.util.function.Consumer;

/**
 * Light that photons have left on matt surfaces (Jensen 1996, "Global Illumination Using Photon Maps"): irradiance at a place is the flux
 * of the nearest ones over the disc that holds them, so that the radius adapts to their density. {@link #settle} estimates it once where
 * every fourth photon lies (Christensen 1999, "Faster Photon Map Global Illumination"); a look-up then takes that of the nearest one of
 * these. Never changed after {@link #of} and {@link #settle}; read by all threads at once.
 */
public final class PhotonMap implements MattLight {
    /** Photons of an estimate. */
    public static final int NEAREST = 80;
    /** Directions in which an estimate looks around. */
    public static final int SECTORS = 16;
    private static final float LEAST_COVER = 0.2f;
    /** How far an estimate may be taken from, in the greatest radius. */
    private static final float FARTHEST = 5;
    /** Of so many photons one has an estimate. */
    private static final int EVERY = 4;
    /** Cosine between normals up to which a photon counts, and how far off the surface it may lie, in the radius. */
    private static final float ALIKE = 0.8f, FLAT = 0.2f;
    private static final int STRIDE = PhotonSamples.STRIDE, NORMAL = PhotonSamples.NORMAL, FLUX = PhotonSamples.FLUX,
            GROUP = PhotonSamples.GROUP;

    private final int channels, count;
    /** Photons in the order of a tree that halves them again and again: the middle one of each part is its node. */
    private final float[] data;
    private final byte[] axis;
    /** Irradiance over pi at every fourth photon by source group; null before {@link #settle}. */
    private float[] light;
    private final float most;

    private PhotonMap(int channels, int count, float[] data, byte[] axis, float most) {
        this.channels = channels;
        this.count = count;
        this.data = data;
        this.most = most;
        this.axis = axis == null ? new byte[count] : axis;
        if (axis == null) build(0, count);
    }

    /**
     * Makes a map of all photons of a number of emissions.
     *
     * @param chunks in a fixed order, null where there are none
     * @param emissions how many there were in all: each photon stands for its flux divided by that
     * @param most greatest radius of an estimate, metres
     */
    public static PhotonMap of(int channels, PhotonSamples[] chunks, long emissions, float most) {
        int n = 0;
        for (PhotonSamples c : chunks) if (c != null) n += c.count();
        float[] all = new float[Math.multiplyExact(n, STRIDE)];
        int at = 0;
        for (PhotonSamples c : chunks) {
            if (c == null) continue;
            System.arraycopy(c.data, 0, all, at, c.count() * STRIDE);
            at += c.count() * STRIDE;
        }
        float k = 1f / Math.max(1, emissions);
        for (int i = 0; i < n; i++) for (int c = 0; c < 3; c++) all[i * STRIDE + FLUX + c] *= k;
        return new PhotonMap(channels, n, all, null, most);
    }

    public int channels() {
        return channels;
    }

    /** Photons there are. */
    public int photons() {
        return count;
    }

    /** Whether estimates have been found, so that {@link #read} may be asked. */
    public boolean settled() {
        return light != null;
    }

    /** Greatest radius of an estimate, metres. */
    public float most() {
        return most;
    }

    public long bytes() {
        return 4L * data.length + axis.length + (light == null ? 0 : 4L * light.length);
    }

    private void build(int from, int to) {
        if (to - from < 2) return;
        int widest = 0;
        float width = -1;
        for (int a = 0; a < 3; a++) {
            float lo = Float.POSITIVE_INFINITY, hi = Float.NEGATIVE_INFINITY;
            for (int i = from; i < to; i++) {
                lo = Math.min(lo, data[i * STRIDE + a]);
                hi = Math.max(hi, data[i * STRIDE + a]);
            }
            if (hi - lo > width) {
                width = hi - lo;
                widest = a;
            }
        }
        int mid = (from + to) >>> 1;
        select(from, to - 1, mid, widest);
        axis[mid] = (byte) widest;
        build(from, mid);
        build(mid + 1, to);
    }

    /** Brings the photon that belongs in place {@code k} along an axis there, lower ones before and higher ones after it (Hoare 1961). */
    private void select(int lo, int hi, int k, int a) {
        while (lo < hi) {
            float pivot = data[(lo + hi >>> 1) * STRIDE + a];
            int i = lo, j = hi;
            while (i <= j) {
                while (data[i * STRIDE + a] < pivot) i++;
                while (data[j * STRIDE + a] > pivot) j--;
                if (i <= j) swap(i++, j--);
            }
            if (k <= j) hi = j;
            else if (k >= i) lo = i;
            else return;
        }
    }

    private void swap(int i, int j) {
        for (int c = 0; c < STRIDE; c++) {
            float t = data[i * STRIDE + c];
            data[i * STRIDE + c] = data[j * STRIDE + c];
            data[j * STRIDE + c] = t;
        }
    }

    /** Looks for photons near a place. One instance per thread. */
    public static final class Search {
        /** The nearest so far, the farthest of them first: squares of distances, and numbers. */
        private final float[] far = new float[NEAREST];
        private final int[] at = new int[NEAREST];
        private int found, wanted, every, self = -1;
        private float reach, x, y, z, nx, ny, nz;
        private final float[] open = new float[SECTORS];
        private final Frame frame = new Frame();

        /** Whether a photon so far off lies behind what is seen in its direction. */
        private boolean hides(float dx, float dy, float dz) {
            float a = dx * frame.tx + dy * frame.ty + dz * frame.tz, b = dx * frame.bx + dy * frame.by + dz * frame.bz;
            int k = (int) Math.floor((Math.atan2(b, a) / (2 * Math.PI) + 1) * SECTORS + 0.5) % SECTORS;
            return a * a + b * b > open[k] * open[k];
        }

        private void offer(float d2, int i) {
            if (found < wanted) {
                int k = found++;
                for (int up; k > 0 && far[up = (k - 1) / 2] < d2; k = up) move(up, k);
                put(k, d2, i);
            } else {
                int k = 0;
                for (int down; (down = 2 * k + 1) < found; k = down) {
                    if (down + 1 < found && far[down + 1] > far[down]) down++;
                    if (far[down] <= d2) break;
                    move(down, k);
                }
                put(k, d2, i);
            }
            if (found == wanted) reach = far[0];
        }

        private void move(int from, int to) {
            far[to] = far[from];
            at[to] = at[from];
        }

        private void put(int k, float d2, int i) {
            far[k] = d2;
            at[k] = i;
        }
    }

    private void find(Search s, float x, float y, float z, float nx, float ny, float nz, float most, int wanted, int every) {
        s.every = every;
        s.x = x;
        s.y = y;
        s.z = z;
        s.nx = nx;
        s.ny = ny;
        s.nz = nz;
        s.found = 0;
        s.wanted = wanted;
        s.reach = most * most;
        find(s, 0, count);
    }

    private void find(Search s, int from, int to) {
        if (from >= to) return;
        int mid = (from + to) >>> 1, o = mid * STRIDE;
        float dx = data[o] - s.x, dy = data[o + 1] - s.y, dz = data[o + 2] - s.z, d2 = dx * dx + dy * dy + dz * dz;
        int a = axis[mid];
        float off = a == 0 ? -dx : a == 1 ? -dy : -dz;
        if (off < 0) find(s, from, mid);
        else find(s, mid + 1, to);
        if (d2 < s.reach && mid % s.every == 0 && s.nx * data[o + NORMAL] + s.ny * data[o + NORMAL + 1] + s.nz
                * data[o + NORMAL + 2] > ALIKE) {
            float h = dx * s.nx + dy * s.ny + dz * s.nz;
            // Photons of another surface close by are none of this one.
            if (h * h <= FLAT * FLAT * s.reach) s.offer(d2, mid);
        }
        if (off * off < s.reach) {
            if (off < 0) find(s, mid + 1, to);
            else find(s, from, mid);
        }
    }

    /**
     * Estimates irradiance over pi at a place from the photons nearest to it, by source group, cd/m2.
     *
     * @param wanted how many photons at most, up to {@link #NEAREST}
     */
    public void estimate(Search s, float x, float y, float z, float nx, float ny, float nz, int wanted, float[] out) {
        find(s, x, y, z, nx, ny, nz, most, wanted, 1);
        sum(s, false, out);
    }

    private void sum(Search s, boolean hidden, float[] out) {
        java.util.Arrays.fill(out, 0, channels, 0);
        if (s.found == 0) return;
        if (hidden) s.frame.around(s.nx, s.ny, s.nz);
        // A cone's weight, which lets photons fade out towards the rim, and what it makes of even light (Jensen 1996, section 4.2).
        float r = (float) Math.sqrt(s.reach), k = 3 / ((float) (Math.PI * Math.PI) * s.reach);
        for (int i = 0; i < s.found; i++) {
            int o = s.at[i] * STRIDE, c = 3 * (int) data[o + GROUP];
            if (hidden && s.hides(data[o] - s.x, data[o + 1] - s.y, data[o + 2] - s.z)) continue;
            float w = k * (s.at[i] == s.self ? own(s.found) : 1 - (float) Math.sqrt(s.far[i]) / r);
            out[c] += w * data[o + FLUX];
            out[c + 1] += w * data[o + FLUX + 1];
            out[c + 2] += w * data[o + FLUX + 2];
        }
    }

    /**
     * Looks around on the surface at a place, in {@link #SECTORS} directions evenly spread around the normal from {@link Frame}'s first
     * axis on.
     */
    public interface Cover {
        /**
         * @param open gets how far one sees in each direction, metres, up to the radius
         * @return how much of the disc is surface on which photons could lie, each point counted by how near it is, 0 to 1
         */
        float open(float x, float y, float z, float nx, float ny, float nz, float radius, float[] open);
    }

    /**
     * What a photon counts in its own estimate. Those who read it stand some way off, where no other one is nearer: the one that is missing
     * there is this one, as far off as the nearest of a quarter of as many photons is on average.
     */
    private static float own(int found) {
        return Math.max(0, 1 - 0.886f * (float) Math.sqrt(EVERY / (double) found));
    }

    /** Makes room for estimates; they are found part by part with {@link #settle(int, int, Search, Cover, float[])}. */
    public void settle() {
        light = new float[Math.multiplyExact((count + EVERY - 1) / EVERY, channels)];
    }

    /** Finds the estimates of photons {@code from} to {@code to}. */
    public void settle(int from, int to, Search s, Cover cover, float[] spare) {
        for (int i = (from + EVERY - 1) / EVERY * EVERY; i < to; i += EVERY) {
            int o = i * STRIDE;
            s.self = i;
            float x = data[o], y = data[o + 1], z = data[o + 2], nx = data[o + NORMAL], ny = data[o + NORMAL + 1],
                    nz = data[o + NORMAL + 2];
            find(s, x, y, z, nx, ny, nz, most, NEAREST, 1);
            // Beside walls and edges the disc is not all surface, and what lies behind a wall is not seen.
            float k = 1 / Math.max(LEAST_COVER, cover.open(x, y, z, nx, ny, nz, (float) Math.sqrt(s.reach), s.open));
            sum(s, true, spare);
            for (int c = 0; c < channels; c++) light[i / EVERY * channels + c] = k * spare[c];
            s.self = -1;
        }
    }

    private static final ThreadLocal<Search> ONE = ThreadLocal.withInitial(Search::new);

    /** {@inheritDoc} That is what the nearest photon knows, if there is one within five times the greatest radius; else it is dark. */
    @Override
    public boolean read(float x, float y, float z, float nx, float ny, float nz, float widest, float u, float v, float[] out) {
        return read(ONE.get(), null, x, y, z, nx, ny, nz, out);
    }

    /** What one thread reads, which does not take over what it cannot see from where it asks: paths are traced on there. */
    public MattLight seenBy(Sight sight) {
        Search s = new Search();
        return (x, y, z, nx, ny, nz, widest, u, v, out) -> read(s, sight, x, y, z, nx, ny, nz, out);
    }

    /**
     * The photon nearest to a place, as {@link #read} looks for it: its number, or -1.
     *
     * @param estimating whether only those count that have an estimate
     * @param away gets how far off it lies, metres
     */
    public int nearest(float x, float y, float z, float nx, float ny, float nz, boolean estimating, float[] away) {
        Search s = ONE.get();
        find(s, x, y, z, nx, ny, nz, FARTHEST * most, 1, estimating ? EVERY : 1);
        if (s.found == 0) return -1;
        away[0] = (float) Math.sqrt(s.far[0]);
        return s.at[0];
    }

    private boolean read(Search s, Sight sight, float x, float y, float z, float nx, float ny, float nz, float[] out) {
        find(s, x, y, z, nx, ny, nz, FARTHEST * most, 1, EVERY);
        if (s.found == 0) java.util.Arrays.fill(out, 0, channels, 0);
        else {
            int o = s.at[0] * STRIDE;
            if (sight != null && !sight.clear(x, y, z, nx, ny, nz, data[o], data[o + 1], data[o + 2])) return false;
            System.arraycopy(light, s.at[0] / EVERY * channels, out, 0, channels);
        }
        return true;
    }

    /** Numbers that {@link #save} hands out for each photon. */
    public static int rowFloats() {
        return STRIDE + 1;
    }

    /**
     * Hands out all photons in the order of their tree, each with the axis that its part was halved across, row by row. The row is used
     * again.
     */
    public void save(Consumer<float[]> rows) {
        float[] row = new float[STRIDE + 1];
        for (int i = 0; i < count; i++) {
            System.arraycopy(data, i * STRIDE, row, 0, STRIDE);
            row[STRIDE] = axis[i];
            rows.accept(row);
        }
    }

    /**
     * A map of photons that {@link #save} handed out.
     *
     * @param rows asked for each photon; fills it
     * @throws IllegalArgumentException when one cannot be
     */
    public static PhotonMap load(int channels, int photons, float most, Consumer<float[]> rows) {
        byte[] axes = new byte[photons];
        float[] row = new float[STRIDE + 1], all = new float[Math.multiplyExact(photons, STRIDE)];
        for (int i = 0; i < photons; i++) {
            rows.accept(row);
            for (float v : row) if (!(Math.abs(v) < 1e12f)) throw new IllegalArgumentException("a photon that cannot be");
            boolean axis = row[STRIDE] == 0 || row[STRIDE] == 1 || row[STRIDE] == 2, group = row[GROUP] >= 0 && row[GROUP] < channels / 3
                    && row[GROUP] == (int) row[GROUP];
            if (!axis || !group || row[FLUX] < 0 || row[FLUX + 1] < 0 || row[FLUX + 2] < 0)
                throw new IllegalArgumentException("light that cannot be");
            System.arraycopy(row, 0, all, i * STRIDE, STRIDE);
            axes[i] = (byte) row[STRIDE];
        }
        return new PhotonMap(channels, photons, all, axes, most);
    }
}
