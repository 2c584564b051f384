package bake.formats;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.scene.Texture;
import bake.formats.picture.TextureReader;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.zip.Deflater;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;
import org.junit.jupiter.api.Test;

/** Textures of every kind come in with the codes that are in the file. */
class TextureKindsTest {
    private static Texture read(byte[] b) throws IOException {
        return TextureReader.read(b, "t", true);
    }

    private static int code(Texture t, int x, int y, int channel) {
        return t.rgba()[4 * (y * t.width() + x) + channel] & 255;
    }

    private static byte[] write(BufferedImage i, String format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(i, format, out);
        return out.toByteArray();
    }

    private static BufferedImage grey(int type, int value) {
        BufferedImage i = new BufferedImage(4, 4, type);
        for (int y = 0; y < 4; y++) for (int x = 0; x < 4; x++) i.getRaster().setSample(x, y, 0, value);
        return i;
    }

    @Test
    void greyKeepsItsCodes() throws IOException {
        assertEquals(128, code(read(write(grey(BufferedImage.TYPE_BYTE_GRAY, 128), "png")), 1, 1, 0));
        assertEquals(128, code(read(write(grey(BufferedImage.TYPE_USHORT_GRAY, 0x8080), "png")), 1, 1, 1));
        assertEquals(128, code(read(write(grey(BufferedImage.TYPE_BYTE_GRAY, 128), "jpeg")), 1, 1, 2), 1);
        ComponentColorModel m = new ComponentColorModel(ColorSpace.getInstance(ColorSpace.CS_GRAY), true, false, 3, DataBuffer.TYPE_BYTE);
        WritableRaster r = Raster.createInterleavedRaster(DataBuffer.TYPE_BYTE, 4, 4, 2, null);
        for (int y = 0; y < 4; y++) for (int x = 0; x < 4; x++) r.setPixel(x, y, new int[] {90, 40});
        Texture t = read(write(new BufferedImage(m, r, false, null), "png"));
        assertEquals(90, code(t, 2, 2, 0));
        assertEquals(40, code(t, 2, 2, 3));
    }

    /** 8 x 8 of 16 bit, deflated after each number was taken from the one to its right (TIFF 6.0, section 14). */
    @Test
    void sixteenBitTiffWithAPredictor() throws IOException {
        ByteBuffer raw = ByteBuffer.allocate(8 * 8 * 6).order(ByteOrder.LITTLE_ENDIAN);
        for (int y = 0; y < 8; y++)
            for (int x = 0; x < 8; x++)
                for (int c = 0; c < 3; c++) raw.putShort((short) (value(x, y, c) - (x == 0 ? 0 : value(x - 1, y, c))));
        Deflater d = new Deflater();
        d.setInput(raw.array());
        d.finish();
        byte[] packed = new byte[1000];
        int n = d.deflate(packed);
        d.end();
        int[][] tags = {{256, 4, 1, 8}, {257, 4, 1, 8}, {258, 3, 3, 150}, {259, 3, 1, 8}, {262, 3, 1, 2}, {273, 4, 1, 200}, {277, 3, 1, 3},
            {278, 4, 1, 8}, {279, 4, 1, n}, {317, 3, 1, 2}};
        ByteBuffer b = ByteBuffer.allocate(200 + n).order(ByteOrder.LITTLE_ENDIAN);
        b.put((byte) 'I').put((byte) 'I').putShort((short) 42).putInt(8).putShort((short) tags.length);
        for (int[] t : tags) b.putShort((short) t[0]).putShort((short) t[1]).putInt(t[2]).putInt(t[3]);
        b.putInt(0);
        b.position(150);
        for (int c = 0; c < 3; c++) b.putShort((short) 16);
        b.position(200);
        b.put(packed, 0, n);
        Texture t = read(b.array());
        assertEquals(3 * 0x11, code(t, 3, 5, 0), 1);
        assertEquals(5 * 0x10, code(t, 3, 5, 1), 1);
        assertEquals(0xC0, code(t, 3, 5, 2), 1);
    }

    private static int value(int x, int y, int c) {
        return c == 0 ? x * 0x1111 : c == 1 ? y * 0x1010 : 0xC0C0;
    }

    @Test
    void tgaWithAndWithoutRuns() throws IOException {
        // 16 x 8, 24 bit, from the bottom; blue, green, red.
        ByteBuffer b = tga(2, 16, 8, 18 + 3 * 16 * 8);
        for (int k = 0; k < 16 * 8; k++) b.put((byte) 10).put((byte) k).put((byte) 200);
        Texture t = read(b.array());
        assertEquals(200, code(t, 0, 0, 0));
        assertEquals(16 * 7, code(t, 0, 0, 1), "the last row is the upper one");
        ByteBuffer runs = tga(10, 64, 64, 18 + 4 * 32);
        for (int k = 0; k < 32; k++) runs.put((byte) 0xFF).put((byte) 1).put((byte) 2).put((byte) (100 + k));
        assertEquals(100, code(read(runs.array()), 3, 63, 0));
        assertEquals(131, code(read(runs.array()), 3, 0, 0));
    }

    private static ByteBuffer tga(int kind, int w, int h, int bytes) {
        ByteBuffer b = ByteBuffer.allocate(bytes).order(ByteOrder.LITTLE_ENDIAN);
        b.put(2, (byte) kind).putShort(12, (short) w).putShort(14, (short) h).put(16, (byte) 24);
        return b.position(18);
    }

    /** Printing inks, stored the other way round as most programs do (Adobe's technical note 5116): red stays red. */
    @Test
    void jpegOfPrintingInks() throws IOException {
        WritableRaster inks = Raster.createInterleavedRaster(DataBuffer.TYPE_BYTE, 16, 16, 4, null);
        for (int y = 0; y < 16; y++) for (int x = 0; x < 16; x++) inks.setPixel(x, y, new int[] {255, 20, 20, 255});
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageWriter w = ImageIO.getImageWritersByFormatName("jpeg").next();
        try (ImageOutputStream s = ImageIO.createImageOutputStream(out)) {
            w.setOutput(s);
            w.write(null, new IIOImage(inks, null, null), null);
        } finally {
            w.dispose();
        }
        // The marker that says so goes after the first two bytes.
        byte[] plain = out.toByteArray(), marker = {(byte) 0xFF, (byte) 0xEE, 0, 14, 'A', 'd', 'o', 'b', 'e', 0, 100, 0, 0, 0, 0, 0};
        ByteBuffer whole = ByteBuffer.allocate(plain.length + marker.length);
        whole.put(plain, 0, 2).put(marker).put(plain, 2, plain.length - 2);
        Texture t = read(whole.array());
        assertTrue(code(t, 8, 8, 0) > code(t, 8, 8, 1) + 60 && code(t, 8, 8, 0) > code(t, 8, 8, 2) + 60,
                "red " + code(t, 8, 8, 0) + " green " + code(t, 8, 8, 1) + " blue " + code(t, 8, 8, 2));
    }
}
