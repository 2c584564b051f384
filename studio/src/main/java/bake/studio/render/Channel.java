package bake.studio.render;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** What an EXR file can hold beside the picture. */
public enum Channel {
    LIGHTS("light.<source>.R, .G, .B: the light of each source group, which add up to the picture"),
    PARTS("seen, direct, bounced, reflected, refracted, each .R, .G, .B: the light by its way to the camera, which add up to the picture"),
    CLEAN("clean.R, .G, .B: the denoised light, 32 bit, and what lines are drawn from, so that bake finish makes the same picture again"),
    DEPTH("Z: metres along the view, 1e10 where there is nothing"),
    POSITION("P.X, P.Y, P.Z: place in the scene, metres"),
    NORMAL("N.X, N.Y, N.Z: normal in the scene, on the side that is seen"),
    COLOUR("albedo.R, .G, .B: base colour of what is seen behind panes"),
    OCCLUSION("occlusion.Y: share of what lies around that is open, 1 in the open, 0 shut in"),
    NOISE("noise.Y: estimated standard error of the luminance, cd/m2"),
    SAMPLES("samples.Y: paths of each pixel"),
    MATERIALS("CryptoMaterial: mattes of materials by name"),
    OBJECTS("CryptoObject: mattes of objects by name");

    private final String help;

    Channel(String help) {
        this.help = help;
    }

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Its channels in the file, and what they hold. */
    public String help() {
        return help;
    }

    /** @throws IllegalArgumentException naming those there are */
    public static Channel of(String word) {
        for (Channel c : values()) if (c.word().equals(word.strip().toLowerCase(Locale.ROOT))) return c;
        throw new IllegalArgumentException("there is no channel '" + word + "'; there are " + Arrays.stream(values()).map(Channel::word)
                .collect(Collectors.joining(", ")));
    }

    /** Those of a list of words, null for none. */
    public static List<Channel> all(List<String> words) {
        return words == null ? List.of() : words.stream().map(Channel::of).distinct().sorted().toList();
    }
}
