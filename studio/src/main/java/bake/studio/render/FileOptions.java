package bake.studio.render;

import bake.core.film.Film;
import bake.core.finish.Gamut;
import bake.formats.project.Preset;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.util.List;
import java.util.stream.Stream;

/**
 * How picture files are written.
 *
 * @param dpi of print, 1 to 10,000
 * @param bits of PNG and TIFF, 8 or 16
 * @param quality of JPEG, 1 to 100
 * @param wholeFloats whether EXR holds 32 bit numbers throughout; else 16 bit where those hold them
 * @param channels what EXR holds beside the picture
 * @param gamut of PNG, TIFF and JPEG, which are tagged with it; EXR and HDR are linear sRGB throughout
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record FileOptions(int dpi, int bits, int quality, boolean wholeFloats, List<Channel> channels, Gamut gamut) {
    /** For print, and for a look on the screen. */
    public static final FileOptions USUAL = new FileOptions(200, 16, 92, false, List.of(), Gamut.SRGB), SCREEN = USUAL.withDpi(72);

    /** @throws IllegalArgumentException for what is out of range */
    public FileOptions {
        channels = channels == null ? List.of() : List.copyOf(channels);
        gamut = gamut == null ? Gamut.SRGB : gamut;
        if (dpi < 1 || dpi > 10_000) throw new IllegalArgumentException("a picture has 1 to 10000 dpi, not " + dpi);
        if (bits != 8 && bits != 16) throw new IllegalArgumentException("a picture has 8 or 16 bits, not " + bits);
        if (quality < 1 || quality > 100) throw new IllegalArgumentException("the quality of a JPEG is 1 to 100, not " + quality);
    }

    public FileOptions withChannels(List<Channel> c) {
        return new FileOptions(dpi, bits, quality, wholeFloats, c, gamut);
    }

    /** The same with what a preset wants beside the picture too. */
    public FileOptions beside(Preset p) {
        return withChannels(Stream.concat(channels.stream(), Channel.all(p.channels()).stream()).distinct().sorted().toList());
    }

    /** What of the light is to be kept apart for it. */
    public Film.Split split() {
        return Film.Split.of(channels.contains(Channel.LIGHTS), channels.contains(Channel.PARTS));
    }

    /** @throws IllegalArgumentException for a word that names none; null is sRGB */
    public static Gamut gamut(String word) {
        if (word == null) return Gamut.SRGB;
        for (Gamut g : Gamut.values()) if (g.name().equalsIgnoreCase(word.strip())) return g;
        throw new IllegalArgumentException("the colours of a picture are srgb, p3 or bt2020, not '" + word + "'");
    }

    public FileOptions withGamut(Gamut g) {
        return new FileOptions(dpi, bits, quality, wholeFloats, channels, g);
    }

    public FileOptions withBits(int b) {
        return new FileOptions(dpi, b, quality, wholeFloats, channels, gamut);
    }

    public FileOptions withDpi(int d) {
        return new FileOptions(d, bits, quality, wholeFloats, channels, gamut);
    }
}
