package bake.formats.picture;

import static org.lwjgl.util.tinyexr.TinyEXR.*;

import bake.formats.AtomicFile;
import bake.formats.FormatException;
import bake.formats.picture.exr.Reader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.FloatBuffer;
import java.nio.IntBuffer;
import java.nio.file.Path;
import java.util.SortedMap;
import org.lwjgl.PointerBuffer;
import org.lwjgl.system.MemoryStack;
import org.lwjgl.system.MemoryUtil;
import org.lwjgl.util.tinyexr.EXRChannelInfo;
import org.lwjgl.util.tinyexr.EXRHeader;
import org.lwjgl.util.tinyexr.EXRImage;

/** OpenEXR pictures, scene-referred: cd/m2 by colour, Rec. 709 primaries. */
public final class ExrFile {
    private ExrFile() {}

    /**
     * Writes channels of equal size, ZIP compressed.
     *
     * @param channels name to plane of {@code width * height} floats; sorted by name, as the format asks
     * @param half whether colours are stored in 16 bit; names starting with a capital Z stay 32 bit
     */
    public static void write(Path file, int width, int height, SortedMap<String, float[]> channels, boolean half) throws IOException {
        int n = channels.size();
        FloatBuffer[] planes = new FloatBuffer[n];
        try (MemoryStack stack = MemoryStack.stackPush()) {
            EXRHeader header = EXRHeader.calloc(stack);
            InitEXRHeader(header);
            EXRImage image = EXRImage.calloc(stack);
            InitEXRImage(image);
            EXRChannelInfo.Buffer infos = EXRChannelInfo.calloc(n, stack);
            IntBuffer in = stack.mallocInt(n), out = stack.mallocInt(n);
            PointerBuffer pointers = stack.mallocPointer(n);
            int i = 0;
            for (var c : channels.entrySet()) {
                ByteBuffer name = stack.ASCII(c.getKey());
                MemoryUtil.memCopy(name, infos.get(i).name().slice(0, name.remaining()));
                planes[i] = MemoryUtil.memAllocFloat(width * height);
                boolean small = half && !c.getKey().startsWith("Z");
                // Half floats end at 65,504: what is brighter, such as the sun's disc, is cut there and not made infinite.
                for (int k = 0; k < width * height; k++) planes[i].put(k, small ? Math.min(65_504f, c.getValue()[k]) : c.getValue()[k]);
                pointers.put(i, planes[i]);
                in.put(i, TINYEXR_PIXELTYPE_FLOAT);
                out.put(i, small ? TINYEXR_PIXELTYPE_HALF : TINYEXR_PIXELTYPE_FLOAT);
                i++;
            }
            header.num_channels(n);
            header.channels(infos);
            header.pixel_types(in);
            header.requested_pixel_types(out);
            header.compression_type(TINYEXR_COMPRESSIONTYPE_ZIP);
            image.num_channels(n);
            image.images(pointers);
            image.width(width);
            image.height(height);
            PointerBuffer memory = stack.callocPointer(1), error = stack.callocPointer(1);
            long size = SaveEXRImageToMemory(image, header, memory, error);
            if (size <= 0 || size > Integer.MAX_VALUE)
                throw new FormatException(file.getFileName().toString(), null, "could not be coded: " + message(error));
            ByteBuffer bytes = MemoryUtil.memByteBuffer(memory.get(0), (int) size);
            try {
                byte[] all = new byte[(int) size];
                bytes.get(0, all);
                AtomicFile.write(file, o -> o.write(all));
            } finally {
                org.lwjgl.system.libc.LibCStdlib.nfree(memory.get(0));
            }
        } finally {
            for (FloatBuffer p : planes) MemoryUtil.memFree(p);
        }
    }

    private static String message(PointerBuffer error) {
        return error.get(0) == 0 ? "unknown reason" : MemoryUtil.memUTF8(error.get(0));
    }

    /** Reads the colours of a picture: R, G, B, or Y for grey, in its display window. Broken values are mended. */
    public static Raster read(Path file) throws IOException {
        Raster[] out = new Raster[1];
        Reader.read(file, (w, h) -> {
            if (3L * w * h > Integer.MAX_VALUE - 16)
                throw new FormatException(file.getFileName().toString(), null, "is too large to hold as a whole");
            float[] rgb = new float[3 * w * h];
            out[0] = new Raster(w, h, rgb);
            return (x, y, row, n) -> {
                for (int i = 0; i < n; i++) if (x + i >= 0 && x + i < w && y >= 0 && y < h)
                    System.arraycopy(row, 3 * i, rgb, 3 * (y * w + x + i), 3);
            };
        }, done -> {}, () -> false);
        out[0].mend();
        return out[0];
    }
}
