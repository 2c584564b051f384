package bake.formats.picture;

import bake.core.scene.Texture;
import bake.formats.FormatException;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Iterator;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;

/** Reads 8 bit textures (PNG, JPEG and what else the JDK reads); the size is checked before memory is taken. */
public final class TextureReader {
    private static final long MOST_PIXELS = 16384L * 16384;

    private TextureReader() {}

    public static Texture read(byte[] bytes, String name, boolean srgb) throws IOException {
        return read(new ByteArrayInputStream(bytes), name, srgb);
    }

    public static Texture read(InputStream in, String name, boolean srgb) throws IOException {
        return with(in, name, (r, w, h) -> texture(r.read(0), name, srgb));
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
            if (!readers.hasNext()) throw new FormatException(name, null, "is not a picture that is read here; save it as PNG or JPEG");
            ImageReader r = readers.next();
            try {
                r.setInput(stream, true, true);
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

    private static Texture texture(BufferedImage image, String name, boolean srgb) {
        int w = image.getWidth(), h = image.getHeight();
        byte[] out = new byte[4 * w * h];
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
