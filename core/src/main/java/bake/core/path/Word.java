package bake.core.path;

/** A choice that has a name in files and on the command line. */
interface Word {
    String word();

    /** @throws IllegalArgumentException naming those there are; null is the first one */
    static <T extends Enum<T> & Word> T of(Class<T> all, String key, String word) {
        StringBuilder names = new StringBuilder();
        T[] values = all.getEnumConstants();
        for (T t : values) {
            if (word == null || t.word().equals(word)) return t;
            names.append(names.isEmpty() ? "" : t == values[values.length - 1] ? " or " : ", ").append(t.word());
        }
        throw new IllegalArgumentException(key + " is " + names + ", not '" + word + "'");
    }
}
