package bake.formats.picture;

import bake.core.finish.Gamut;
import bake.formats.AtomicFile;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.Iterator;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageTypeSpecifier;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.metadata.IIOMetadata;
import javax.imageio.metadata.IIOMetadataNode;
import javax.imageio.plugins.tiff.BaselineTIFFTagSet;
import javax.imageio.plugins.tiff.TIFFDirectory;
import javax.imageio.plugins.tiff.TIFFField;
import javax.imageio.plugins.tiff.TIFFTag;
import javax.imageio.stream.ImageOutputStream;
import javax.imageio.stream.MemoryCacheImageOutputStream;

/** Display-referred pictures, sRGB unless said otherwise: PNG and TIFF in 8 or 16 bit, and JPEG. */
public final class DisplayPicture {
    private DisplayPicture() {}

    /** An image over 16 bit sRGB codes, three for each pixel. */
    public static BufferedImage image16(int width, int height, short[] rgb) {
        ComponentColorModel model = new ComponentColorModel(ColorSpace.getInstance(ColorSpace.CS_sRGB), false, false,
                ComponentColorModel.OPAQUE, DataBuffer.TYPE_USHORT);
        WritableRaster r = Raster.createInterleavedRaster(new DataBufferUShort(rgb, rgb.length), width, height, 3 * width, 3,
                new int[] {0, 1, 2}, null);
        return new BufferedImage(model, r, false, null);
    }

    /** An image over 16 bit sRGB codes and coverage, four for each pixel; colours are not multiplied by coverage. */
    public static BufferedImage image16WithAlpha(int width, int height, short[] rgba) {
        ComponentColorModel model = new ComponentColorModel(ColorSpace.getInstance(ColorSpace.CS_sRGB), true, false,
                ComponentColorModel.TRANSLUCENT, DataBuffer.TYPE_USHORT);
        WritableRaster r = Raster.createInterleavedRaster(new DataBufferUShort(rgba, rgba.length), width, height, 4 * width, 4,
                new int[] {0, 1, 2, 3}, null);
        return new BufferedImage(model, r, false, null);
    }

    /** An image over packed 0xAARRGGBB codes; alpha is kept when {@code alpha}. */
    public static BufferedImage image8(int width, int height, int[] argb, boolean alpha) {
        BufferedImage i = new BufferedImage(width, height, alpha ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        i.setRGB(0, 0, width, height, argb, 0, width);
        return i;
    }

    /** Writes a PNG tagged as sRGB. */
    public static void writePng(Path file, BufferedImage image, double dpi) throws IOException {
        writePng(file, image, dpi, Gamut.SRGB);
    }

    /** Writes a PNG whose codes are of a gamut, and says so (chunks iCCP and cICP; sRGB has its own). */
    public static void writePng(Path file, BufferedImage image, double dpi, Gamut g) throws IOException {
        AtomicFile.write(file, out -> writePng(out, image, dpi, g));
    }

    public static void writePng(OutputStream out, BufferedImage image, double dpi) throws IOException {
        writePng(out, image, dpi, Gamut.SRGB);
    }

    private static void writePng(OutputStream out, BufferedImage image, double dpi, Gamut g) throws IOException {
        ImageWriter w = writer("png", "com.sun.imageio");
        ImageWriteParam p = w.getDefaultWriteParam();
        IIOMetadata meta = w.getDefaultImageMetadata(ImageTypeSpecifier.createFromRenderedImage(image), p);
        String format = "javax_imageio_png_1.0";
        IIOMetadataNode root = new IIOMetadataNode(format), phys = new IIOMetadataNode("pHYs");
        String perMetre = Long.toString(Math.round(dpi / 0.0254));
        phys.setAttribute("pixelsPerUnitXAxis", perMetre);
        phys.setAttribute("pixelsPerUnitYAxis", perMetre);
        phys.setAttribute("unitSpecifier", "meter");
        root.appendChild(phys);
        if (g == Gamut.SRGB) {
            IIOMetadataNode srgb = new IIOMetadataNode("sRGB");
            srgb.setAttribute("renderingIntent", "Perceptual");
            root.appendChild(srgb);
        } else {
            IIOMetadataNode profile = new IIOMetadataNode("iCCP"), others = new IIOMetadataNode("UnknownChunks"),
                    points = new IIOMetadataNode("UnknownChunk");
            profile.setAttribute("profileName", GamutProfile.name(g));
            profile.setAttribute("compressionMethod", "deflate");
            profile.setUserObject(GamutProfile.deflated(g));
            root.appendChild(profile);
            points.setAttribute("type", "cICP");
            points.setUserObject(GamutProfile.codePoints(g));
            others.appendChild(points);
            root.appendChild(others);
        }
        meta.mergeTree(format, root);
        write(w, out, new IIOImage(image, null, meta), p);
    }

    /** Writes a deflated TIFF with its resolution and the profile of its colours. */
    public static void writeTiff(Path file, BufferedImage image, double dpi, Gamut g) throws IOException {
        AtomicFile.write(file, out -> {
            ImageWriter w = writer("tiff", "com.sun.imageio");
            ImageWriteParam p = w.getDefaultWriteParam();
            p.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            p.setCompressionType("Deflate");
            write(w, out, new IIOImage(image, null, tagged(w.getDefaultImageMetadata(ImageTypeSpecifier.createFromRenderedImage(image),
                    p), dpi, g)), p);
        });
    }

    /**
     * Writes a JPEG with its resolution, and the profile of its colours unless they are sRGB, which is what a JPEG without one is.
     *
     * @param quality 0 to 1
     */
    public static void writeJpeg(Path file, BufferedImage image, double dpi, float quality, Gamut g) throws IOException {
        AtomicFile.write(file, out -> {
            ImageWriter w = writer("jpeg", "com.sun.imageio");
            ImageWriteParam p = w.getDefaultWriteParam();
            p.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            p.setCompressionQuality(quality);
            IIOMetadata meta = w.getDefaultImageMetadata(ImageTypeSpecifier.createFromRenderedImage(image), p);
            String format = "javax_imageio_jpeg_image_1.0";
            IIOMetadataNode root = (IIOMetadataNode) meta.getAsTree(format), jfif = (IIOMetadataNode) root.getElementsByTagName("app0JFIF").item(0);
            jfif.setAttribute("resUnits", "1");
            jfif.setAttribute("Xdensity", Long.toString(Math.round(dpi)));
            jfif.setAttribute("Ydensity", Long.toString(Math.round(dpi)));
            if (g != Gamut.SRGB) {
                IIOMetadataNode icc = new IIOMetadataNode("app2ICC");
                icc.setUserObject(ICC_Profile.getInstance(GamutProfile.icc(g)));
                jfif.appendChild(icc);
            }
            meta.setFromTree(format, root);
            write(w, out, new IIOImage(image, null, meta), p);
        });
    }

    /** Tags of baseline TIFF 6.0: resolution in pixels by inch; and the ICC profile (ICC.1, annex B.4). */
    private static IIOMetadata tagged(IIOMetadata plain, double dpi, Gamut g) throws IOException {
        TIFFDirectory d = TIFFDirectory.createFromMetadata(plain);
        BaselineTIFFTagSet tags = BaselineTIFFTagSet.getInstance();
        long[][] perInch = {{Math.round(dpi * 1000), 1000}};
        for (int tag : new int[] {BaselineTIFFTagSet.TAG_X_RESOLUTION, BaselineTIFFTagSet.TAG_Y_RESOLUTION})
            d.addTIFFField(new TIFFField(tags.getTag(tag), TIFFTag.TIFF_RATIONAL, 1, perInch));
        d.addTIFFField(new TIFFField(tags.getTag(BaselineTIFFTagSet.TAG_RESOLUTION_UNIT), BaselineTIFFTagSet.RESOLUTION_UNIT_INCH));
        byte[] profile = g == Gamut.SRGB ? ICC_Profile.getInstance(ColorSpace.CS_sRGB).getData() : GamutProfile.icc(g);
        d.addTIFFField(new TIFFField(tags.getTag(BaselineTIFFTagSet.TAG_ICC_PROFILE), TIFFTag.TIFF_UNDEFINED, profile.length, profile));
        return d.getAsMetadata();
    }

    private static void write(ImageWriter w, OutputStream out, IIOImage image, ImageWriteParam p) throws IOException {
        // A stream with a file behind it leaves that file when the process is killed, and cannot be begun when it is asked to end.
        try (ImageOutputStream s = new MemoryCacheImageOutputStream(out)) {
            w.setOutput(s);
            w.write(null, image, p);
        } finally {
            w.dispose();
        }
    }

    /** The JDK's own writer: others that may be on the class path fail on 16 bit. */
    private static ImageWriter writer(String format, String packagePrefix) {
        for (Iterator<ImageWriter> i = ImageIO.getImageWritersByFormatName(format); i.hasNext(); ) {
            ImageWriter w = i.next();
            if (w.getClass().getName().startsWith(packagePrefix)) return w;
        }
        throw new IllegalStateException("this Java has no writer for " + format);
    }
}
