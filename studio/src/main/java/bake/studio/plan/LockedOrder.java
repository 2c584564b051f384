package bake.studio.plan;

import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.function.Predicate;

/** An order some of whose members keep their places. */
public final class LockedOrder {
    private LockedOrder() {}

    /**
     * The order with one member before another; those that are locked stay where they are, and the others pass them.
     *
     * @param before what is to come after it, or null for the end
     * @return the same order where the one is locked, or not there
     */
    public static <T> List<T> moved(List<T> all, Predicate<T> locked, T what, T before) {
        if (locked.test(what) || !all.contains(what)) return all;
        List<T> wanted = new ArrayList<>(all);
        wanted.remove(what);
        int at = before == null ? -1 : wanted.indexOf(before);
        wanted.add(at < 0 ? wanted.size() : at, what);
        Iterator<T> free = wanted.stream().filter(locked.negate()).iterator();
        List<T> out = new ArrayList<>();
        for (T x : all) out.add(locked.test(x) ? x : free.next());
        return out;
    }
}
