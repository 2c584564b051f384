package bake.studio.look;

import bake.core.finish.ColourTable;
import bake.formats.FormatException;
import java.awt.Transparency;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_ColorSpace;
import java.awt.color.ICC_Profile;
import java.awt.image.BufferedImage;
import java.awt.image.ColorConvertOp;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.WritableRaster;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * How a picture will look in print, by the ICC profile of its paper: through the profile and back, by Java's colour management. Colours
 * that
 * come back as others are ones which the paper cannot show.
 */
public final class SoftProof {
    private static final int SIDE = 33;
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
        ICC_ColorSpace paper = new ICC_ColorSpace(profile);
        int n = SIDE * SIDE * SIDE;
        BufferedImage in = new BufferedImage(SIDE * SIDE, SIDE, BufferedImage.TYPE_INT_RGB), out = new BufferedImage(SIDE * SIDE, SIDE,
                BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < n; i++) in.setRGB(i % (SIDE * SIDE), i / (SIDE * SIDE), code(i % SIDE) << 16 | code(
                i / SIDE % SIDE) << 8 | code(i / SIDE / SIDE));
        ComponentColorModel model = new ComponentColorModel(paper, false, false, Transparency.OPAQUE, DataBuffer.TYPE_BYTE);
        WritableRaster r = model.createCompatibleWritableRaster(SIDE * SIDE, SIDE);
        BufferedImage printed = new BufferedImage(model, r, false, null);
        new ColorConvertOp(null).filter(in, printed);
        new ColorConvertOp(ColorSpace.getInstance(ColorSpace.CS_sRGB), null).filter(printed, out);
        float[] v = new float[3 * n];
        for (int i = 0; i < n; i++) {
            int c = out.getRGB(i % (SIDE * SIDE), i / (SIDE * SIDE));
            v[3 * i] = (c >> 16 & 255) / 255f;
            v[3 * i + 1] = (c >> 8 & 255) / 255f;
            v[3 * i + 2] = (c & 255) / 255f;
        }
        return new SoftProof(name, new ColourTable(SIDE, true, new float[3], new float[] {1, 1, 1}, v));
    }

    private static int code(int k) {
        return Math.round(255f * k / (SIDE - 1));
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
