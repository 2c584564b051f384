package bake.desktop.text;

import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads what an artist types into a field: "EV 13", "f/5.6", "1,000", "12.5 %", "2700K", "1/125", "240 cm", or a plain number. */
public enum Quantity {
    NUMBER("", Map.of(), "a number"), PERCENT("%", Map.of("%", 1.0), "a percentage looks like 12.5 %"),
    METRES("m", lengths(1), "a length looks like 2.4 m, 240 cm or 7.9 ft"),
    MILLIMETRES("mm", lengths(0.001), "a length looks like 24 mm or 2.4 cm"),
    SECONDS("s", Map.of("s", 1.0, "sec", 1.0, "ms", 0.001, "min", 60.0, "h", 3600.0), "a time looks like 45 s, 10 min or 1/125"),
    KELVIN("K", Map.of("k", 1.0), "a colour temperature looks like 2700 K"),
    LUMENS("lm", Map.of("lm", 1.0, "klm", 1000.0), "light looks like 800 lm"),
    LUX("lx", Map.of("lx", 1.0, "lux", 1.0, "klx", 1000.0), "illuminance looks like 500 lx or 20 klx"),
    CANDELA("cd", Map.of("cd", 1.0, "kcd", 1000.0), "intensity looks like 300 cd"),
    LUMINANCE("cd/m\u00b2", Map.of("cd/m\u00b2", 1.0, "cd/m2", 1.0, "nt", 1.0, "kcd/m\u00b2", 1000.0, "kcd/m2", 1000.0),
            "luminance looks like 1000 cd/m\u00b2"),
    STOPS("stops", Map.of("stops", 1.0, "stop", 1.0, "ev", 1.0), "a level looks like +1.5 stops"),
    DEGREES("\u00b0", Map.of("\u00b0", 1.0, "deg", 1.0, "degrees", 1.0), "an angle looks like 30\u00b0"),
    PIXELS("px", Map.of("px", 1.0, "pixels", 1.0), "a size looks like 640 px"),
    EXPOSURE("EV", Map.of("ev", 1.0), "an exposure looks like EV 13"), F_NUMBER("f/", Map.of(), "an aperture looks like f/5.6");

    private static final Pattern TEXT = Pattern.compile("(ev|f/|\u0192/|f|iso)?\\s*([-+]?[\\d.,' \u00a0\u202f]*\\d[.,]?)(?:\\s*/\\s*(\\d+(?:[.,]\\d+)?))?\\s*([^\\d\\s].*)?");
    private static final Pattern THOUSANDS = Pattern.compile("[-+]?[1-9]\\d{0,2}([,.]\\d{3})+");

    private final String unit, example;
    private final Map<String, Double> units;

    Quantity(String unit, Map<String, Double> units, String example) {
        this.unit = unit;
        this.units = units;
        this.example = example;
    }

    private static Map<String, Double> lengths(double one) {
        return Map.of("m", 1 / one, "cm", 0.01 / one, "mm", 0.001 / one, "km", 1000 / one, "in", 0.0254 / one, "\"", 0.0254 / one, "ft",
                0.3048 / one, "'", 0.3048 / one);
    }

    /** What a field with a format such as "%.1f mm" or "EV %.1f" holds. */
    public static Quantity of(String format) {
        String u = format.replaceAll("%[-+.0-9]*f", "").replace("%%", "%").strip();
        for (Quantity q : values()) if (q.unit.equals(u)) return q;
        return NUMBER;
    }

    /**
     * The value of a text, in the unit of this quantity.
     *
     * @throws IllegalArgumentException when it has none, saying what one looks like
     */
    public double parse(String text) {
        String t = text.strip().toLowerCase(Locale.ROOT).replace('\u2212', '-');
        Matcher m = TEXT.matcher(t);
        if (!m.matches()) throw wrong(text);
        String prefix = m.group(1), u = m.group(4) == null ? "" : m.group(4).strip();
        if (prefix != null && !(prefix.equals("ev") && (this == EXPOSURE || this == STOPS) || prefix.contains("f") && this == F_NUMBER))
            throw wrong(text);
        double v = number(m.group(2), text);
        if (m.group(3) != null) v /= number(m.group(3), text);
        if (!u.isEmpty()) {
            Double factor = units.get(u);
            if (factor == null) throw wrong(text);
            v *= factor;
        }
        if (!Double.isFinite(v)) throw wrong(text);
        return v;
    }

    /**
     * A number as people write it: 1,000 and 1.000.000 are whole thousands, 0,5 and 1,25 are decimals, and blanks and apostrophes between
     * digits count for nothing.
     */
    private double number(String s, String text) {
        String n = s.replaceAll("['\\s\u00a0\u202f]", "");
        int comma = n.lastIndexOf(','), point = n.lastIndexOf('.');
        if (comma >= 0 && point >= 0) n = comma > point ? n.replace(".", "").replace(',', '.') : n.replace(",", "");
        else if (comma >= 0) n = THOUSANDS.matcher(n).matches() ? n.replace(",", "") : n.replace(',', '.');
        else if (n.indexOf('.') != point) n = THOUSANDS.matcher(n).matches() ? n.replace(".", "") : n;
        try {
            return Double.parseDouble(n);
        } catch (NumberFormatException e) {
            throw wrong(text);
        }
    }

    /**
     * The same within a range.
     *
     * @throws IllegalArgumentException when it lies outside of it
     */
    public double parse(String text, double least, double most) {
        double v = parse(text);
        // What is shown rounded may be typed as it is shown.
        double room = 1e-9 * Math.max(Math.abs(least), Math.abs(most));
        if (v < least - room || v > most + room)
            throw new IllegalArgumentException("'" + text.strip() + "' is out of range: " + range(least, most) + ".");
        return Math.clamp(v, least, most);
    }

    /** "0.2 to 30 %". */
    public String range(double least, double most) {
        String r = plain(least) + " to " + plain(most);
        return this == EXPOSURE ? "EV " + r : this == F_NUMBER ? "f/" + r : unit.isEmpty() ? r : r + (this == DEGREES ? unit : " " + unit);
    }

    private static String plain(double v) {
        return v == Math.rint(v) && Math.abs(v) < 1e9 ? String.format(Locale.ROOT, "%,d", (long) v) : Double.toString(v);
    }

    private IllegalArgumentException wrong(String text) {
        return new IllegalArgumentException("'" + text.strip() + "' is not understood: " + example + ".");
    }
}
