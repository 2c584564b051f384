package bake.formats.foreign;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What things of an IFC file are called. The native library names nodes by class, name without spaces, and global identifier; here the name
 * is looked up by that identifier in the file itself (ISO 10303-21 for its text, from memory).
 */
final class IfcNames {
    private static final Pattern NODE = Pattern.compile("Ifc(\\w+?)_(.*)_([0-9A-Za-z_$]{22})");
    private static final Pattern LINE = Pattern.compile("=\\s*IFC\\w+\\s*\\(\\s*'([0-9A-Za-z_$]{22})'\\s*,[^,]*,\\s*'((?:[^']|'')*)'");
    private static final Pattern WIDE = Pattern.compile("\\\\X2\\\\((?:[0-9A-Fa-f]{4})+)\\\\X0\\\\");
    private static final int LONGEST_LINE = 10_000;
    private final Map<String, String> names = new HashMap<>();

    private IfcNames() {}

    /** Of a file; of one that is no IFC, none. */
    static IfcNames of(Path file) {
        IfcNames out = new IfcNames();
        if (!file.toString().toLowerCase(Locale.ROOT).endsWith(".ifc")) return out;
        try (BufferedReader r = Files.newBufferedReader(file, StandardCharsets.ISO_8859_1)) {
            for (String l = r.readLine(); l != null; l = r.readLine()) {
                if (l.length() > LONGEST_LINE || l.indexOf("IFC") < 0) continue;
                Matcher m = LINE.matcher(l);
                if (m.find()) out.names.put(m.group(1), text(m.group(2)));
            }
        } catch (IOException e) {
            // The names of the library will do.
        }
        return out;
    }

    private static String text(String coded) {
        return WIDE.matcher(coded.replace("''", "'")).replaceAll(m -> {
            StringBuilder s = new StringBuilder();
            for (int i = 0; i < m.group(1).length(); i += 4) s.append((char) Integer.parseInt(m.group(1).substring(i, i + 4), 16));
            return Matcher.quoteReplacement(s.toString());
        });
    }

    /** What a node is called in words; the same for one that is not named this way. */
    String plain(String node) {
        Matcher m = NODE.matcher(node);
        if (!m.matches()) return node;
        String known = names.get(m.group(3));
        return known != null && !known.isBlank() ? known : m.group(2).isEmpty() ? m.group(1) : m.group(2);
    }

    /** Whether a node is a storey, whose things make a layer together. */
    static boolean storey(String node) {
        return node.startsWith("IfcBuildingStorey_");
    }
}
