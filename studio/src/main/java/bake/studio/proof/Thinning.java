package bake.studio.proof;

import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Which proofs are kept when there are too many: those that are pinned, named or noted, the newest of each view, and those of the last
 * days.
 *
 * @param newest of each view that stay, 0 to 10,000
 * @param days for which all stay, 0 to 10,000
 */
public record Thinning(int newest, int days) {
    public static final Thinning USUAL = new Thinning(20, 14);

    /** @throws IllegalArgumentException for what is out of range */
    public Thinning {
        if (newest < 0 || newest > 10_000 || days < 0 || days > 10_000) throw new IllegalArgumentException("takes 0 to 10,000");
    }

    /**
     * Those that would go.
     *
     * @param all newest first
     */
    public List<Proof> gone(List<Proof> all, LocalDateTime now) {
        Map<String, Integer> seen = new HashMap<>();
        return all.stream().filter(p -> seen.merge(p.view().name(), 1, Integer::sum) > newest && !kept(p) && old(p, now)).toList();
    }

    private static boolean kept(Proof p) {
        return p.pinned() || !p.title().isEmpty() || !p.note().isEmpty();
    }

    private boolean old(Proof p, LocalDateTime now) {
        try {
            return !LocalDateTime.parse(p.made()).isAfter(now.minusDays(days));
        } catch (DateTimeParseException e) {
            return false; // of unknown age: it stays
        }
    }
}
