package bake.studio.proof;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** What a stamp on a picture can say. */
public enum StampField {
    PROJECT("project"), VIEW("view"), PRESET("preset"), SIZE("size"), TIME("time"), NOISE("noise"), DATE("date"), NUMBER("number"), NOTE("note");

    private final String word;

    StampField(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    /** @throws IllegalArgumentException naming those there are */
    public static StampField of(String word) {
        for (StampField f : values()) if (f.word.equals(word.strip().toLowerCase(Locale.ROOT))) return f;
        throw new IllegalArgumentException("a stamp can say project, view, preset, size, time, noise, date, number and note, not '" + word + "'");
    }

    /** What a picture's stamp says, a line each; what the picture has nothing for is left out. */
    public static List<String> lines(List<StampField> wanted, Proof p, String project) {
        List<String> out = new ArrayList<>();
        for (StampField f : wanted) {
            String t = switch (f) {
                case PROJECT -> project;
                case VIEW -> p.view().name();
                case PRESET -> p.preset().name() + " v" + p.preset().version();
                case SIZE -> p.width() + " x " + p.height();
                case TIME -> time(p.seconds());
                case NOISE -> String.format(Locale.ROOT, "noise %.1f %%", p.noise());
                case DATE -> p.made().replace('T', ' ');
                case NUMBER -> p.number() > 0 ? "proof " + p.number() : "";
                case NOTE -> p.note();
            };
            if (t != null && !t.isBlank()) out.add(t);
        }
        return out;
    }

    private static String time(double s) {
        long n = Math.round(s);
        return n < 60 ? String.format(Locale.ROOT, "%.1f s", s) : n < 3600 ? n / 60 + " min " + n % 60 + " s"
                : n / 3600 + " h " + n % 3600 / 60 + " min";
    }
}
