package bake.formats.model;

/**
 * Something in a file that an artist should know; never fatal.
 *
 * @param kind what sort of thing, one for each line of the Model station
 * @param where object, material or file it was seen at
 * @param text what it is and what follows
 */
public record Finding(Kind kind, String where, String text) {
    /** In one line: what sort of thing, where, and what it is. */
    public String line() {
        return kind.words() + ": " + where + ": " + text;
    }

    /** Sorts of findings. */
    public enum Kind {
        FLIPPED_NORMALS("flipped normals"), ZERO_AREA("zero-area faces"), MISSING_TEXTURE("missing textures"),
        BROKEN_VALUES("broken values"), NOT_READ("parts not read"), HUGE_TEXTURE("huge textures"), UNITS("units"), UNLIT("unlit materials"),
        VARIANTS("variants"), POSED("bones and movement");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
