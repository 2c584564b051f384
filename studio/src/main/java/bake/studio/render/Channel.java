package bake.studio.render;

import bake.core.meters.FirstHits;
import bake.core.path.LightPart;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;

/** What an EXR file can hold beside the picture. */
public enum Channel {
    LIGHTS("light.<source>.R, .G, .B: the light of each source group, which add up to the picture"),
    PARTS("seen, direct, bounced, reflected, refracted, each .R, .G, .B: the light by its way to the camera, which add up to the picture"),
    CLEAN("clean.R, .G, .B: the denoised light, 32 bit, and what lines are drawn from, so that bake finish makes the same picture again"),
    DEPTH("Z: metres along the view, 1e10 where there is nothing; depth.Y: the same from 0 at the nearest to 1 at the farthest"),
    POSITION("P.X, P.Y, P.Z: place in the scene, metres"),
    NORMAL("N.X, N.Y, N.Z: normal in the scene, on the side that is seen"),
    FACING("facing.X, .Y, .Z: the same as the camera sees it: to the right, up and towards it"),
    UV("uv.X, uv.Y: where on its texture"),
    SHADOW("shadow.Y: of the light that sun and lamps would send to what is seen, the share that arrives, 0 in full shadow"),
    COLOUR("albedo.R, .G, .B: base colour of what is seen behind panes"),
    OCCLUSION("occlusion.Y: share of what lies around that is open, 1 in the open, 0 shut in"),
    NOISE("noise.Y: estimated standard error of the luminance, cd/m2"),
    SAMPLES("samples.Y: paths of each pixel"),
    MATERIALS("CryptoMaterial: mattes of materials by name"),
    OBJECTS("CryptoObject: mattes of objects by name"),
    LAYERS("CryptoLayer: mattes of layers by name"),
    SOURCES("CryptoSource: mattes of what gives light itself, by the name of its source group");

    private final String help;

    Channel(String help) {
        this.help = help;
    }

    /** Numbers of four bytes that it has for each pixel, in a scene of so many source groups. */
    int floats(int groups) {
        return switch (this) {
            case LIGHTS -> 3 * groups;
            case PARTS -> 3 * LightPart.COUNT;
            case CLEAN -> 10;
            case NOISE, SAMPLES, OCCLUSION, SHADOW -> 1;
            case DEPTH, UV -> 2;
            case POSITION, NORMAL, FACING, COLOUR -> 3;
            case MATERIALS, OBJECTS, LAYERS, SOURCES -> 3 + 2 * FirstHits.SHARES;
        };
    }

    /** Memory that a pixel of a picture takes with channels beside it while it is made, about, bytes. */
    public static long memory(List<Channel> wanted, int groups) {
        return ExtraChannels.bytes(wanted, groups);
    }

    /** What a pixel of the file takes at most, before it is packed, bytes. */
    public static long disk(List<Channel> wanted, int groups) {
        long floats = 4;
        for (Channel c : wanted) floats += c.floats(groups);
        return 4 * floats;
    }

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Its channels in the file, and what they hold. */
    public String help() {
        return help;
    }

    /** Words of all, each with what it holds. */
    public static Map<String, String> words() {
        Map<String, String> out = new LinkedHashMap<>();
        for (Channel c : values()) out.put(c.word(), c.help());
        return out;
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
