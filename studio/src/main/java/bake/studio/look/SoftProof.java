package bake.studio.look;

import bake.core.finish.ColourTable;
import bake.formats.FormatException;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.awt.image.ColorConvertOp;
import java.awt.image.DataBuffer;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * How a picture will look in print, by the ICC profile of its paper: through the profile and back, by Java's colour management, with
 * perceptual intent. Colours that come back as others are ones which the paper cannot show.
 */
public final class SoftProof {
    private static final int SIDE = 65;
    private static final long MOST_BYTES = 32L << 20;
    /** Difference of a colour, in parts of white, from which on it counts as lost; and what marks it. */
    private static final float LOST = 0.06f;
    private static final int MARK = 0xff2f8f9c;

    private final String name;
    private final ColourTable table;

    private SoftProof(String name, ColourTable table) {
        this.name = name;
        this.table = table;
    }

    /** @throws FormatException when the file is no profile of colours that pictures can be turned into */
    public static SoftProof read(Path file) throws IOException {
        String name = file.getFileName().toString();
        if (Files.size(file) > MOST_BYTES) throw new FormatException(name, null, "is larger than any colour profile");
        try {
            return of(name, ICC_Profile.getInstance(Files.readAllBytes(file)));
        } catch (IllegalArgumentException | java.awt.color.CMMException | java.awt.color.ProfileDataException e) {
            throw new FormatException(name, null, "is no ICC profile that can be used; choose the one of the paper and printer");
        }
    }

    static SoftProof of(String name, ICC_Profile profile) {
        ICC_Profile srgb = ICC_Profile.getInstance(ColorSpace.CS_sRGB);
        int n = SIDE * SIDE * SIDE;
        // 16 bit throughout: inks of 8 bit are up to two CIELAB units off.
        WritableRaster in = Raster.createInterleavedRaster(DataBuffer.TYPE_USHORT, SIDE * SIDE, SIDE, 3, null),
                out = in.createCompatibleWritableRaster();
        int[] c = new int[3];
        for (int i = 0; i < n; i++) {
            c[0] = code(i % SIDE);
            c[1] = code(i / SIDE % SIDE);
            c[2] = code(i / SIDE / SIDE);
            in.setPixel(i % (SIDE * SIDE), i / (SIDE * SIDE), c);
        }
        new ColorConvertOp(new ICC_Profile[] {srgb, profile, srgb}, null).filter(in, out);
        float[] v = new float[3 * n];
        for (int i = 0; i < n; i++) {
            out.getPixel(i % (SIDE * SIDE), i / (SIDE * SIDE), c);
            for (int k = 0; k < 3; k++) v[3 * i + k] = c[k] / 65535f;
        }
        return new SoftProof(name, new ColourTable(SIDE, true, new float[3], new float[] {1, 1, 1}, v));
    }

    private static int code(int k) {
        return Math.round(65535f * k / (SIDE - 1));
    }

    public String name() {
        return name;
    }

    /** A picture as it would be printed; with {@code marks} what the paper cannot show is marked. */
    public int[] show(int[] argb, boolean marks) {
        int[] out = new int[argb.length];
        float[] c = new float[3];
        for (int i = 0; i < argb.length; i++) {
            float r = (argb[i] >> 16 & 255) / 255f, g = (argb[i] >> 8 & 255) / 255f, b = (argb[i] & 255) / 255f;
            c[0] = r;
            c[1] = g;
            c[2] = b;
            table.through(c);
            boolean lost = Math.max(Math.abs(c[0] - r), Math.max(Math.abs(c[1] - g), Math.abs(c[2] - b))) > LOST;
            out[i] = marks && lost ? MARK : 0xff000000 | Math.round(255 * c[0]) << 16 | Math.round(255 * c[1]) << 8 | Math.round(255
                    * c[2]);
        }
        return out;
    }
}
