package bake.formats.picture;

import bake.core.scene.Texture;
import bake.formats.FormatException;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.Raster;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.HashSet;
import java.util.Iterator;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;

/**
 * Reads textures as 8 bit: PNG, JPEG (of printing inks, too), TIFF, TGA and what else there are plugins for. The size is checked before
 * memory is taken.
 */
public final class TextureReader {
    private static final long MOST_PIXELS = 16384L * 16384;

    private TextureReader() {}

    public static Texture read(byte[] bytes, String name, boolean srgb) throws IOException {
        return read(new ByteArrayInputStream(bytes), name, srgb);
    }

    public static Texture read(InputStream in, String name, boolean srgb) throws IOException {
        return read(in, name, srgb, w -> {});
    }

    /** @param wrong told in words what is wrong with a picture that can be read all the same */
    public static Texture read(InputStream in, String name, boolean srgb, Consumer<String> wrong) throws IOException {
        return with(in, name, (r, w, h) -> {
            Set<String> said = new HashSet<>();
            r.addIIOReadWarningListener((source, warning) -> {
                if (said.add(words(warning))) wrong.accept(words(warning));
            });
            return texture(r.read(0), name, srgb);
        });
    }

    /** What a decoder warns of, in words for people. */
    private static String words(String warning) {
        String w = warning.toLowerCase(Locale.ROOT);
        if (w.contains("icc") || w.contains("profile")) return "its colour profile is damaged and not used; colours are taken for sRGB";
        if (w.contains("end of") || w.contains("premature") || w.contains("eoi") || w.contains("truncated"))
            return "the picture is cut short; what is missing is grey. Copy it again";
        return "parts of the picture are damaged; save or copy it again";
    }

    /** Width and height in pixels, without decoding. */
    public static int[] size(InputStream in, String name) throws IOException {
        return with(in, name, (r, w, h) -> new int[] {w, h});
    }

    private interface Use<T> {
        T with(ImageReader r, int w, int h) throws IOException;
    }

    private static <T> T with(InputStream in, String name, Use<T> use) throws IOException {
        try (ImageInputStream stream = ImageIO.createImageInputStream(in)) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(stream);
            if (!readers.hasNext()) throw new FormatException(name, null, "is not a picture that is read here; save it as PNG, JPEG, TIFF or TGA");
            ImageReader r = readers.next();
            try {
                r.setInput(stream, false, true);
                int w = r.getWidth(0), h = r.getHeight(0);
                if (w < 1 || h < 1 || (long) w * h > MOST_PIXELS)
                    throw new FormatException(name, null, "a texture of " + w + "x" + h + " pixels is too large; the most is 16384x16384");
                return use.with(r, w, h);
            } catch (FormatException e) {
                throw e;
            } catch (IOException | RuntimeException e) { // decoders throw what they like on broken data
                throw new FormatException(name, null, "the picture is damaged; save or copy it again", e);
            } finally {
                r.dispose();
            }
        }
    }

    /**
     * Codes of grey pictures as they are: the class library takes them for linear light, though files hold them as they hold colours. 16
     * bit lose their lower half.
     */
    private static void grey(BufferedImage image, byte[] out) {
        Raster r = image.getRaster();
        int w = r.getWidth(), h = r.getHeight(), bands = r.getNumBands();
        int[] row = new int[w * bands], bits = image.getSampleModel().getSampleSize();
        for (int y = 0; y < h; y++) {
            r.getPixels(r.getMinX(), r.getMinY() + y, w, 1, row);
            for (int x = 0; x < w; x++) {
                int o = 4 * (y * w + x);
                out[o] = out[o + 1] = out[o + 2] = (byte) code(row[x * bands], bits[0]);
                out[o + 3] = (byte) (bands > 1 ? code(row[x * bands + 1], bits[1]) : 255);
            }
        }
    }

    private static int code(int v, int bits) {
        return bits == 8 ? v : bits > 8 ? v >>> bits - 8 : v * 255 / ((1 << bits) - 1);
    }

    private static Texture texture(BufferedImage image, String name, boolean srgb) {
        int w = image.getWidth(), h = image.getHeight();
        byte[] out = new byte[4 * w * h];
        if (image.getColorModel().getColorSpace().getType() == ColorSpace.TYPE_GRAY) {
            grey(image, out);
            return new Texture(name, w, h, out, srgb);
        }
        int[] row = new int[w];
        for (int y = 0; y < h; y++) {
            image.getRGB(0, y, w, 1, row, 0, w);
            for (int x = 0; x < w; x++) {
                int o = 4 * (y * w + x), c = row[x];
                out[o] = (byte) (c >> 16);
                out[o + 1] = (byte) (c >> 8);
                out[o + 2] = (byte) c;
                out[o + 3] = (byte) (c >> 24);
            }
        }
        return new Texture(name, w, h, out, srgb);
    }
}
