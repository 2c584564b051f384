package bake.cli;

import bake.core.compare.Flip;
import bake.formats.FormatException;
import bake.formats.Json;
import bake.formats.picture.DisplayPicture;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import javax.imageio.ImageIO;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** How far two pictures are apart. */
@Command(name = "compare", mixinStandardHelpOptions = true, description =
        "Say how far two pictures of a size are apart for a viewer (FLIP, 0 to 1) and in codes.")
final class CompareCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "A", description = "picture for a display: .png, .tif or .jpg")
    private Path a;

    @Parameters(index = "1", paramLabel = "B")
    private Path b;

    @Option(names = "--map", paramLabel = "FILE.png", description = "write the difference, from black for none to white for the greatest")
    private Path map;

    @Option(names = "--json", description = "print one JSON document")
    private boolean json;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        BufferedImage x = read(a), y = read(b);
        int w = x.getWidth(), h = x.getHeight();
        if (w != y.getWidth() || h != y.getHeight()) throw new IllegalArgumentException("the pictures have two sizes: " + w + "x" + h + " and "
                + y.getWidth() + "x" + y.getHeight() + "; make them of one size");
        int[] p = x.getRGB(0, 0, w, h, null, 0, w), q = y.getRGB(0, 0, w, h, null, 0, w);
        float[] f = Flip.map(p, q, w, h, Flip.PIXELS_PER_DEGREE);
        double sum = 0, most = 0;
        long differ = 0;
        for (int i = 0; i < p.length; i++) {
            most = Math.max(most, f[i]);
            if ((p[i] & 0xffffff) != (q[i] & 0xffffff)) differ++;
            for (int c = 0; c < 24; c += 8) sum += Math.pow((p[i] >> c & 255) - (q[i] >> c & 255), 2);
        }
        double rmse = Math.sqrt(sum / p.length / 3) / 255 * 100;
        if (map != null) {
            int[] grey = new int[f.length];
            for (int i = 0; i < grey.length; i++) {
                int g = Math.clamp(Math.round(255 * f[i]), 0, 255);
                grey[i] = 0xff000000 | g << 16 | g << 8 | g;
            }
            DisplayPicture.writePng(map, DisplayPicture.image8(w, h, grey, false), 72);
        }
        if (json) {
            ObjectNode n = Json.MAPPER.createObjectNode().put("flip", Flip.mean(f)).put("greatestFlip", most).put("rmsePercent", rmse)
                    .put("pixelsThatDiffer", differ).put("width", w).put("height", h);
            spec.commandLine().getOut().println(n.toPrettyString());
        } else spec.commandLine().getOut().printf(Locale.ROOT, "FLIP %.4f (greatest %.3f), RMSE %.2f %% of white, %d of %d pixels differ%n",
                Flip.mean(f), most, rmse, differ, (long) w * h);
        return 0;
    }

    private static BufferedImage read(Path f) throws IOException {
        if (!Files.isRegularFile(f)) throw new FormatException(f.toString(), null, "there is no such file");
        BufferedImage i = ImageIO.read(f.toFile());
        if (i == null) throw new FormatException(f.getFileName().toString(), null, "is not a picture for a display; give a PNG, TIFF or JPEG");
        return i;
    }
}
