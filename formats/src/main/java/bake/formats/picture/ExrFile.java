package bake.formats.picture;

import static org.lwjgl.util.tinyexr.TinyEXR.*;

import bake.formats.AtomicFile;
import bake.formats.FormatException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.FloatBuffer;
import java.nio.IntBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.SortedMap;
import org.lwjgl.PointerBuffer;
import org.lwjgl.system.MemoryStack;
import org.lwjgl.system.MemoryUtil;
import org.lwjgl.util.tinyexr.EXRChannelInfo;
import org.lwjgl.util.tinyexr.EXRHeader;
import org.lwjgl.util.tinyexr.EXRImage;
import org.lwjgl.util.tinyexr.EXRVersion;

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
            if (size <= 0 || size > Integer.MAX_VALUE) throw new FormatException(file.getFileName().toString(), null, "could not be coded: " + message(error));
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

    /** Reads the colours of a picture: R, G, B, or Y for grey. Broken values are mended. */
    public static Raster read(Path file) throws IOException {
        String name = file.getFileName().toString();
        long length = Files.size(file);
        if (length > Integer.MAX_VALUE - 16) throw new FormatException(name, null, "is larger than 2 GB; save it compressed");
        byte[] all = Files.readAllBytes(file);
        ExrHeaderCheck.check(all, name);
        ByteBuffer bytes = MemoryUtil.memAlloc(all.length);
        try (MemoryStack stack = MemoryStack.stackPush()) {
            bytes.put(0, all);
            EXRVersion version = EXRVersion.calloc(stack);
            must(ParseEXRVersionFromMemory(version, bytes), name, "the header cannot be read");
            if (version.multipart() || version.non_image()) throw new FormatException(name, null, "multi-part and deep pictures are not read; save a single flat part");
            EXRHeader header = EXRHeader.calloc(stack);
            InitEXRHeader(header);
            PointerBuffer error = stack.callocPointer(1);
            must(ParseEXRHeaderFromMemory(header, version, bytes, error), name, "the header cannot be read");
            try {
                return load(stack, header, bytes, name);
            } finally {
                FreeEXRHeader(header);
            }
        } finally {
            MemoryUtil.memFree(bytes);
        }
    }

    private static Raster load(MemoryStack stack, EXRHeader header, ByteBuffer bytes, String name) throws IOException {
        int n = header.num_channels();
        IntBuffer want = header.requested_pixel_types();
        for (int i = 0; i < n; i++) want.put(i, TINYEXR_PIXELTYPE_FLOAT);
        EXRImage image = EXRImage.calloc(stack);
        InitEXRImage(image);
        PointerBuffer error = stack.callocPointer(1);
        must(LoadEXRImageFromMemory(image, header, bytes, error), name, "the pixels cannot be read (" + message(error) + ")");
        try {
            int[] at = {-1, -1, -1};
            for (int i = 0; i < n; i++) {
                String c = header.channels().get(i).nameString();
                if (c.equals("R")) at[0] = i;
                if (c.equals("G")) at[1] = i;
                if (c.equals("B")) at[2] = i;
                if (c.equals("Y")) for (int k = 0; k < 3; k++) if (at[k] < 0) at[k] = i;
            }
            if (at[0] < 0 || at[1] < 0 || at[2] < 0) throw new FormatException(name, null, "has no colour channels R, G, B; save it with them");
            int w = image.width(), h = image.height();
            float[] rgb = new float[3 * w * h];
            if (image.images() != null)
                for (int c = 0; c < 3; c++) {
                    FloatBuffer p = MemoryUtil.memFloatBuffer(image.images().get(at[c]), w * h);
                    for (int i = 0; i < w * h; i++) rgb[3 * i + c] = p.get(i);
                }
            else
                for (int t = 0; t < image.num_tiles(); t++) copyTile(image.tiles().get(t), header, at, rgb, w, h);
            Raster r = new Raster(w, h, rgb);
            r.mend();
            return r;
        } finally {
            FreeEXRImage(image);
        }
    }

    private static void copyTile(org.lwjgl.util.tinyexr.EXRTile tile, EXRHeader header, int[] at, float[] rgb, int w, int h) {
        if (tile.level_x() != 0 || tile.level_y() != 0) return;
        int tw = header.tile_size_x(), th = header.tile_size_y();
        for (int c = 0; c < 3; c++) {
            FloatBuffer p = MemoryUtil.memFloatBuffer(tile.images(header.num_channels()).get(at[c]), tw * th);
            for (int y = 0; y < tile.height(); y++)
                for (int x = 0; x < tile.width(); x++) {
                    int gx = tile.offset_x() * tw + x, gy = tile.offset_y() * th + y;
                    if (gx < w && gy < h) rgb[3 * (gy * w + gx) + c] = p.get(y * tw + x);
                }
        }
    }

    private static void must(int result, String name, String what) throws FormatException {
        if (result != TINYEXR_SUCCESS) throw new FormatException(name, null, what + "; it may be broken or use a coding that is not read (DWAA, DWAB): save it as ZIP");
    }
}
