package bake.studio.queue;

import java.util.Locale;

/** What the queue leaves to somebody who works at the machine. */
public enum Manners {
    /** Nothing. */
    ALL,
    /** Half of the threads. */
    HALF,
    /** Everything: it rests until nobody does. */
    REST;

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** @throws IllegalArgumentException naming those there are */
    public static Manners of(String word) {
        for (Manners m : values()) if (m.word().equals(word.strip().toLowerCase(Locale.ROOT))) return m;
        throw new IllegalArgumentException("while someone works here the queue takes all of the machine, half of it, or has a rest: all, half or rest; not '"
                + word + "'");
    }
}
