package bake.core.cache;

import java.util.Arrays;
import java.util.function.Consumer;
import java.util.stream.IntStream;

/**
 * Irradiance at places on the surfaces that the camera sees, interpolated in between (Ward, Rubinstein and Clear 1988) with gradients (Ward
 * and Heckbert 1992). Records weigh by how near they are and how alike they face, falling to nothing at their radius, so that none begins
 * or ends with an edge (Tabellion and Lamorlette 2004, section 4.2). A radius is no more than those of its neighbours and the way to them
 * (Krivanek, Bouatouch, Pattanaik and Zara 2006, "Making Radiance and Irradiance Caching Practical", section 4: neighbour clamping).
 *
 * <p>In narrow places, or everywhere by choice, irradiance is split into what comes from near and from far (Arikan, Forsyth and O'Brien
 * 2005, "Fast and Detailed Approximate Global Illumination by Irradiance Decomposition"): records hold what is far, which changes slowly,
 * and what is near is left to rays.
 *
 * <p>Read by all threads at once; {@link #merge} only between rounds.
 */
public final class IrradianceCache {
    static final int NORMAL = 3, RADIUS = 6, KIND = 7, ROTATION = 8, TRANSLATION = 11, LIGHT = 14;
    static final int HEAD = ROTATION;
    /** Kinds of records: irradiance; a mark that nothing is to be interpolated there; irradiance from beyond the near field alone. */
    static final float WHOLE = 0, MARK = 1, FAR = 2;
    /**
     * In the place of gradients, what a far record has: how near the near field ends, and the share of irradiance's directions that are
     * open up to there.
     */
    static final int NEAR = ROTATION, OPEN = ROTATION + 1;
    /** One minus the cosine between normals from which on a record does not count: 32 degrees. */
    static final float TURN = 0.15f;
    /** How far in front of a place a record may lie, in its radius; what is far looks much alike from a little in front. */
    private static final float FRONT = 0.05f, FAR_FRONT = 0.25f;
    /**
     * How far off its plane a record may still count, in its radius: what {@link #weight} allows a place that faces up to 32 degrees
     * otherwise, since the plane half way between is tilted by 16.
     */
    private static final float THICK = 0.29f + 2.1f * FRONT, FAR_THICK = 0.29f + 2.1f * FAR_FRONT;
    /** Openness below which nothing can be said of what is far. */
    private static final float SHUT = 0.02f;
    /** Weight of all records together from which on a place counts as covered. */
    private static final float COVERED = 0.6f, TRUSTED = 0.1f;
    /** Bounds of what gradients make of a record. */
    private static final float LEAST = 0.4f, MOST = 2f;

    private final int channels, stride, wide;
    /**
     * What says whether a record counts at a place, in {@link #HEAD} numbers each, and what it brings there: many records are asked for one
     * that counts.
     */
    private float[] heads, data;
    /** By what the luminance of each record scatters, squared; 0 where that is not known. */
    private float[] scatter;
    private int count;
    /** For each size of records a hash of cubes to the records that reach into them: where each slot's list begins, and the lists. */
    private final int[][] starts = new int[CellGrid.LEVELS][], lists = new int[CellGrid.LEVELS][];

    /** @param channels three colours for each source group */
    public IrradianceCache(int channels) {
        this.channels = channels;
        stride = LIGHT + channels;
        wide = stride - HEAD;
        heads = new float[64 * HEAD];
        data = new float[64 * wide];
        scatter = new float[64];
    }

    public int channels() {
        return channels;
    }

    /** Records, marks of places to avoid counted in. */
    public int records() {
        return count;
    }

    public long bytes() {
        long n = 4L * (heads.length + data.length + scatter.length);
        for (int l = 0; l < CellGrid.LEVELS; l++) if (starts[l] != null) n += 4L * (starts[l].length + lists[l].length);
        return n;
    }

    /** Place, normal, radius and kind of records, {@link #HEAD} numbers each. */
    float[] heads() {
        return heads;
    }

    float light(int record, int channel) {
        return data[record * wide - HEAD + LIGHT + channel];
    }

    float luminance(int record) {
        return CellSamples.luminance(data, record * wide - HEAD + LIGHT, channels);
    }

    /** By what the luminance of a record scatters, squared; 0 where that is not known. */
    float scatter(int record) {
        return scatter[record];
    }

    /** Gives a record other light; its gradients, which are relative to that, change by as much the other way. */
    void relight(int record, float[] light, int from) {
        float before = luminance(record);
        System.arraycopy(light, from, data, record * wide - HEAD + LIGHT, channels);
        float after = luminance(record);
        for (int g = 0; after > 0 && heads[record * HEAD + KIND] == WHOLE && g < 6; g++)
            data[record * wide + g] *= Math.min(2, before / after);
    }

    /** Numbers that {@link #save} hands out for each record. */
    public int rowFloats() {
        return stride;
    }

    /** Hands out all records, row by row. The row is used again. */
    public void save(Consumer<float[]> rows) {
        float[] row = new float[stride];
        for (int i = 0; i < count; i++) {
            System.arraycopy(heads, i * HEAD, row, 0, HEAD);
            System.arraycopy(data, i * wide, row, HEAD, wide);
            rows.accept(row);
        }
    }

    /**
     * Takes records that {@link #save} handed out, in their order.
     *
     * @param rows asked for each record; fills it
     * @throws IllegalArgumentException when one cannot be
     */
    public void load(int records, Consumer<float[]> rows) {
        float[] row = new float[stride];
        heads = new float[Math.multiplyExact(Math.max(64, records), HEAD)];
        data = new float[Math.multiplyExact(Math.max(64, records), wide)];
        scatter = new float[Math.max(64, records)];
        for (int i = 0; i < records; i++) {
            rows.accept(row);
            check(row);
            put(row, 0, i);
        }
        count = records;
        index();
    }

    private void put(float[] from, int at, int record) {
        System.arraycopy(from, at, heads, record * HEAD, HEAD);
        System.arraycopy(from, at + HEAD, data, record * wide, wide);
    }

    private static void check(float[] row) {
        for (float v : row) if (!(Math.abs(v) < 1e12f)) throw new IllegalArgumentException("a record that cannot be");
        for (int i = LIGHT; i < row.length; i++) if (row[i] < 0) throw new IllegalArgumentException("light that cannot be");
        double n = Math.sqrt(row[NORMAL] * row[NORMAL] + row[NORMAL + 1] * row[NORMAL + 1] + row[NORMAL + 2] * row[NORMAL + 2]);
        boolean placed = Math.abs(row[0]) < 1e6f && Math.abs(row[1]) < 1e6f && Math.abs(row[2]) < 1e6f;
        if (!(row[RADIUS] > 1e-4f && row[RADIUS] < 16) || !placed || Math.abs(n - 1) > 0.01
                || !(row[KIND] == WHOLE || row[KIND] == MARK || row[KIND] == FAR && row[NEAR] > 0 && row[OPEN] >= 0
                && row[OPEN] <= 1)) throw new IllegalArgumentException("a record that cannot be");
    }

    /** Adds the records of a round, chunk by chunk; chunks not made are null. */
    public void merge(RecordSamples[] chunks) {
        int before = count;
        append(chunks);
        clampToNeighbours(before);
        index();
    }

    /** Adds records as they are. */
    void append(RecordSamples... chunks) {
        for (RecordSamples c : chunks) {
            if (c == null) continue;
            int room = heads.length / HEAD;
            if (count + c.count > room) {
                room = Math.max(count + c.count, room + room / 2);
                heads = Arrays.copyOf(heads, Math.multiplyExact(room, HEAD));
                data = Arrays.copyOf(data, Math.multiplyExact(room, wide));
                scatter = Arrays.copyOf(scatter, room);
            }
            for (int i = 0; i < c.count; i++) {
                scatter[count] = c.scatter[i];
                put(c.data, i * stride, count++);
            }
        }
        index();
    }

    /** A radius that is larger than a neighbour's and the way to it has missed what the neighbour sees. */
    private void clampToNeighbours(int before) {
        float[] radius = new float[count];
        for (int i = 0; i < count; i++) radius[i] = heads[i * HEAD + RADIUS];
        for (int i = 0; i < count; i++) {
            int o = i * HEAD;
            if (heads[o + KIND] == MARK) continue;
            for (int level = 0; level < CellGrid.LEVELS; level++) {
                int s = slot(level, heads[o], heads[o + 1], heads[o + 2]);
                if (s < 0) continue;
                for (int k = starts[level][s]; k < starts[level][s + 1]; k++) {
                    int j = lists[level][k], q = j * HEAD;
                    if (j == i || i < before && j < before || heads[q + KIND] != heads[o + KIND]
                            || facing(q, heads[o + NORMAL], heads[o + NORMAL + 1], heads[o + NORMAL + 2]) < 1 - TURN) continue;
                    float d = distance(q, heads[o], heads[o + 1], heads[o + 2]);
                    radius[i] = Math.min(radius[i], heads[q + RADIUS] + d);
                    radius[j] = Math.min(radius[j], heads[o + RADIUS] + d);
                }
            }
        }
        for (int i = 0; i < count; i++) heads[i * HEAD + RADIUS] = radius[i];
    }

    private float facing(int o, float nx, float ny, float nz) {
        return heads[o + NORMAL] * nx + heads[o + NORMAL + 1] * ny + heads[o + NORMAL + 2] * nz;
    }

    private float distance(int o, float x, float y, float z) {
        float dx = x - heads[o], dy = y - heads[o + 1], dz = z - heads[o + 2];
        return (float) Math.sqrt(dx * dx + dy * dy + dz * dz);
    }

    private int levelOf(int record) {
        return Math.clamp(CellGrid.level(heads[record * HEAD + RADIUS]), CellGrid.FINEST, CellGrid.COARSEST) - CellGrid.FINEST;
    }

    private void index() {
        int[] from = new int[CellGrid.LEVELS + 1], sorted = new int[count];
        byte[] levels = new byte[count];
        for (int i = 0; i < count; i++) from[(levels[i] = (byte) levelOf(i)) + 1]++;
        for (int l = 0; l < CellGrid.LEVELS; l++) from[l + 1] += from[l];
        int[] at = from.clone();
        for (int i = 0; i < count; i++) sorted[at[levels[i]]++] = i;
        IntStream.range(0, CellGrid.LEVELS).parallel().forEach(l -> index(l, sorted, from[l], from[l + 1]));
    }

    private void index(int level, int[] records, int from, int to) {
        starts[level] = lists[level] = null;
        if (from == to) return;
        int[] begin = new int[Integer.highestOneBit(2 * (to - from)) * 2 + 1], last = new int[begin.length];
        Arrays.fill(last, -1);
        for (int i = from; i < to; i++) each(records[i], level, begin, last, null);
        int sum = 0;
        for (int s = 0; s < begin.length; s++) sum = begin[s] += sum;
        int[] list = new int[sum];
        Arrays.fill(last, -1);
        // From the end, so that each list is in the order of the records.
        for (int i = to - 1; i >= from; i--) each(records[i], level, begin, last, list);
        starts[level] = begin;
        lists[level] = list;
    }

    /** Goes over the cubes that a record reaches into: counts it, or lists it, once for those that share a slot. */
    private void each(int i, int level, int[] begin, int[] last, int[] list) {
        int o = i * HEAD, mask = begin.length - 2;
        float x = heads[o], y = heads[o + 1], z = heads[o + 2];
        float nx = heads[o + NORMAL], ny = heads[o + NORMAL + 1], nz = heads[o + NORMAL + 2];
        float r = heads[o + RADIUS], side = CellGrid.side(level + CellGrid.FINEST), k = 1 / side, half = 0.5f * side,
                wide = (r + 1e-4f) * (r + 1e-4f);
        float thick = half * (Math.abs(nx) + Math.abs(ny) + Math.abs(nz)) + (heads[o + KIND] == FAR ? FAR_THICK : THICK) * r + 1e-4f;
        int x1 = cube(x + r, k), y1 = cube(y + r, k), z1 = cube(z + r, k);
        for (int cx = cube(x - r, k); cx <= x1; cx++) {
            float dx = (cx + 0.5f) * side - x, ax = Math.max(0, Math.abs(dx) - half);
            for (int cy = cube(y - r, k); cy <= y1; cy++) {
                float dy = (cy + 0.5f) * side - y, ay = Math.max(0, Math.abs(dy) - half), flat = ax * ax + ay * ay;
                for (int cz = cube(z - r, k); cz <= z1; cz++) {
                    float dz = (cz + 0.5f) * side - z, az = Math.max(0, Math.abs(dz) - half);
                    // A record counts within its radius, and near its own plane alone.
                    if (flat + az * az > wide || Math.abs(nx * dx + ny * dy + nz * dz) > thick) continue;
                    int s = hash(cx, cy, cz) & mask;
                    if (last[s] == i) continue;
                    last[s] = i;
                    if (list == null) begin[s]++;
                    else list[--begin[s]] = i;
                }
            }
        }
    }

    private static int cube(float x, float k) {
        return (int) Math.floor(Math.clamp(x * k, -1e9f, 1e9f));
    }

    private static int hash(int x, int y, int z) {
        return (int) CellGrid.hash(x * 0x9e3779b97f4a7c15L ^ y * 0xc2b2ae3d27d4eb4fL ^ z * 0x165667b19e3779f9L);
    }

    private int slot(int level, float x, float y, float z) {
        if (starts[level] == null) return -1;
        float k = 1 / CellGrid.side(level + CellGrid.FINEST);
        return hash(cube(x, k), cube(y, k), cube(z, k)) & starts[level].length - 2;
    }

    /** What is known of a place. */
    public enum Known { NOTHING, LITTLE, ENOUGH, NARROW }

    /**
     * Interpolates at a place.
     *
     * @param out gets irradiance over pi by source group, cd/m2, when something is known; null only to ask
     */
    public Known read(float x, float y, float z, float nx, float ny, float nz, float[] out) {
        if (out != null) Arrays.fill(out, 0, channels, 0);
        float sum = 0;
        for (int level = 0; level < CellGrid.LEVELS; level++) {
            int s = slot(level, x, y, z);
            if (s < 0) continue;
            for (int k = starts[level][s]; k < starts[level][s + 1]; k++) {
                int i = lists[level][k], o = i * HEAD;
                float w = weight(o, x, y, z, nx, ny, nz);
                if (!(w > 0)) continue;
                if (heads[o + KIND] == FAR) continue;
                if (heads[o + KIND] == MARK) return Known.NARROW;
                sum += w;
                if (out != null) add(i, w, x, y, z, nx, ny, nz, out);
            }
        }
        if (!(sum > TRUSTED)) return Known.NOTHING;
        if (out != null) for (int c = 0; c < channels; c++) out[c] /= sum;
        return sum < COVERED ? Known.LITTLE : Known.ENOUGH;
    }

    /**
     * Interpolates what is far from a place.
     *
     * @param near where the near field ends, metres; records made for another distance do not count
     * @param out gets the mean radiance from beyond it by source group, cd/m2, or zero where nothing of it is seen; null only to ask
     * @return whether anything is known
     */
    public boolean far(float near, float x, float y, float z, float nx, float ny, float nz, float[] out) {
        if (out != null) Arrays.fill(out, 0, channels, 0);
        float sum = 0, open = 0;
        for (int level = 0; level < CellGrid.LEVELS; level++) {
            int s = slot(level, x, y, z);
            if (s < 0) continue;
            for (int k = starts[level][s]; k < starts[level][s + 1]; k++) {
                int i = lists[level][k], o = i * HEAD;
                if (heads[o + KIND] != FAR || data[i * wide + NEAR - HEAD] != near) continue;
                float w = weight(o, x, y, z, nx, ny, nz);
                if (!(w > 0)) continue;
                sum += w;
                open += w * data[i * wide + OPEN - HEAD];
                if (out != null) for (int c = 0; c < channels; c++) out[c] += w * data[i * wide + LIGHT - HEAD + c];
            }
        }
        if (!(sum > TRUSTED)) return false;
        if (out == null) return sum > COVERED;
        if (open < SHUT * sum) return false;
        for (int c = 0; c < channels; c++) out[c] /= open;
        return true;
    }

    /**
     * What a place is interpolated from.
     *
     * @param records that count there
     * @param nearest how far the nearest of them lies, {@code widest} the greatest radius, metres; 0 without any
     * @param weight of all together: below about a half, records far off stand for the place
     * @param narrow whether what is near is traced there
     */
    public record Sources(int records, float nearest, float widest, float weight, boolean narrow) {}

    /** Says what a place is interpolated from. */
    public Sources sources(float x, float y, float z, float nx, float ny, float nz) {
        var of = new Found() {
            private int n;
            private float nearest = Float.POSITIVE_INFINITY, widest, sum;
            private boolean narrow;

            @Override
            public void record(int number, float weight) {
                int o = number * HEAD;
                narrow |= heads[o + KIND] == MARK;
                if (heads[o + KIND] != WHOLE) return;
                n++;
                sum += weight;
                nearest = Math.min(nearest, distance(o, x, y, z));
                widest = Math.max(widest, heads[o + RADIUS]);
            }
        };
        each(x, y, z, nx, ny, nz, of);
        return new Sources(of.n, of.n == 0 ? 0 : of.nearest, of.widest, of.sum, of.narrow);
    }

    /** Gets records that count at a place, with their weights, in the order in which they were added to each size. */
    interface Found {
        void record(int number, float weight);
    }

    /** Goes through the records that count at a place, of whatever kind. */
    void each(float x, float y, float z, float nx, float ny, float nz, Found found) {
        for (int level = 0; level < CellGrid.LEVELS; level++) {
            int s = slot(level, x, y, z);
            if (s < 0) continue;
            for (int k = starts[level][s]; k < starts[level][s + 1]; k++) {
                int record = lists[level][k];
                float w = weight(record * HEAD, x, y, z, nx, ny, nz);
                if (w > 0) found.record(record, w);
            }
        }
    }

    /**
     * The record that counts most at a place: its number, -1 where there is none, -2 where nothing is to be interpolated.
     *
     * @param out gets its weight, 0 to 1
     */
    public int nearest(float x, float y, float z, float nx, float ny, float nz, float[] out) {
        int[] best = {-1};
        out[0] = 0;
        each(x, y, z, nx, ny, nz, (record, w) -> {
            if (heads[record * HEAD + KIND] == MARK) best[0] = -2;
            if (best[0] == -2 || w <= out[0]) return;
            out[0] = w;
            best[0] = record;
        });
        return best[0];
    }

    private float weight(int o, float x, float y, float z, float nx, float ny, float nz) {
        float dx = x - heads[o], dy = y - heads[o + 1], dz = z - heads[o + 2], d2 = dx * dx + dy * dy + dz * dz, r = heads[o + RADIUS];
        if (d2 >= r * r) return 0;
        float turn = 1 - facing(o, nx, ny, nz);
        if (turn >= TURN) return 0;
        float px = nx + heads[o + NORMAL], py = ny + heads[o + NORMAL + 1], pz = nz + heads[o + NORMAL + 2];
        if (Math.abs(dx * px + dy * py + dz * pz) > 4 * (heads[o + KIND] == FAR ? FAR_FRONT : FRONT) * r + 1e-6f) return 0;
        return 1 - Math.max((float) Math.sqrt(d2) / r, (float) Math.sqrt(Math.max(0, turn) / TURN));
    }

    private void add(int i, float w, float x, float y, float z, float nx, float ny, float nz, float[] out) {
        int o = i * HEAD, from = i * wide - HEAD;
        float mx = heads[o + NORMAL], my = heads[o + NORMAL + 1], mz = heads[o + NORMAL + 2];
        float change = 1 + (my * nz - mz * ny) * data[from + ROTATION] + (mz * nx - mx * nz) * data[from + ROTATION + 1]
                + (mx * ny - my * nx) * data[from + ROTATION + 2]
                + (x - heads[o]) * data[from + TRANSLATION] + (y - heads[o + 1]) * data[from + TRANSLATION + 1] + (z - heads[o + 2])
                * data[from + TRANSLATION + 2];
        float k = w * Math.min(MOST, Math.max(LEAST, change));
        for (int c = 0; c < channels; c++) out[c] += k * data[from + LIGHT + c];
    }
}
