package bake.studio.queue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** What finals are called: a template with places for project, view, date, version and size, free of what file systems refuse. */
public final class FileNames {
    public static final String USUAL = "{view}";
    private static final int LONGEST = 150;
    private static final Set<String> RESERVED = Set.of("con", "prn", "aux", "nul", "com1", "com2", "com3", "com4", "lpt1", "lpt2", "lpt3");

    private FileNames() {}

    /**
     * A file's name without its ending.
     *
     * @param template with {project}, {view}, {date}, {delivery}, {preset}, {size}, {width}, {height}
     * @throws IllegalArgumentException when it names a place that there is not, naming those there are
     */
    public static String name(String template, String project, String view, LocalDate date, String delivery, String preset, int width,
            int height) {
        String t = template.isBlank() ? USUAL : template;
        String[][] all = {{"project", project}, {"view", view}, {"date", date.toString()}, {"delivery", delivery}, {"preset", preset},
            {"size", width + "x" + height}, {"width", "" + width}, {"height", "" + height}};
        for (String[] p : all) t = t.replace("{" + p[0] + "}", p[1]);
        int open = t.indexOf('{');
        if (open >= 0) throw new IllegalArgumentException("there is no place '" + t.substring(open, Math.min(t.length(), open + 20))
                + "'; there are {project}, {view}, {date}, {delivery}, {preset}, {size}, {width} and {height}");
        return clean(t);
    }

    /** What any file system takes: small letters of any alphabet, digits and dashes; other signs become dashes. */
    public static String clean(String t) {
        String s = t.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{Nd}]+", "-").replaceAll("(^-|-$)", "");
        if (s.length() > LONGEST) s = s.substring(0, LONGEST);
        return s.isEmpty() ? "view" : RESERVED.contains(s) ? s + "-view" : s;
    }

    /** Names of one picture's files of which none is there or taken: numbered alike where that is needed. */
    static List<String> free(List<String> files, Set<String> taken, boolean replace) {
        for (int n = 1; ; n++) {
            List<String> out = new ArrayList<>();
            for (String f : files) out.add(n == 1 ? f : numbered(f, n));
            if (out.stream().noneMatch(f -> taken.contains(f) || !replace && Files.exists(Path.of(f)))) return out;
        }
    }

    private static String numbered(String file, int n) {
        int dot = file.lastIndexOf('.');
        return file.substring(0, dot) + "-" + n + file.substring(dot);
    }

    /** Where a picture goes that was stopped: never in place of a whole one. */
    public static Path unfinished(Path file) {
        String n = file.getFileName().toString();
        int dot = n.lastIndexOf('.');
        return file.resolveSibling(n.substring(0, dot) + " (unfinished)" + n.substring(dot));
    }
}
