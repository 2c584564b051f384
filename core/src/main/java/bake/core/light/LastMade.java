package bake.core.light;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Supplier;

/**
 * The few things that were made last, by what they were made from. They are let go of when memory is short. Threads may ask at once; each
 * then makes its own, and all are equal.
 */
final class LastMade<K, V> {
    private final Map<K, java.lang.ref.SoftReference<V>> made = new LinkedHashMap<>(16, 0.75f, true);
    private final int most;

    LastMade(int most) {
        this.most = most;
    }

    V of(K from, Supplier<V> maker) {
        synchronized (made) {
            var there = made.get(from);
            V v = there == null ? null : there.get();
            if (v != null) return v;
        }
        V v = maker.get();
        synchronized (made) {
            made.put(from, new java.lang.ref.SoftReference<>(v));
            if (made.size() > most) made.remove(made.keySet().iterator().next());
        }
        return v;
    }
}
