package bake.studio.report;

import bake.formats.AtomicFile;
import bake.studio.queue.FileNames;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Everything that is handed over: the page, the print, a contact sheet, and an archive of the pictures with both and their sums. */
public final class Handover {
    private Handover() {}

    /** Writes the page, the print, the contact sheet and the archive into a folder, named after the delivery; returns them. */
    public static List<Path> write(Path folder, Report r) throws IOException {
        String name = FileNames.clean(r.title() + " " + r.round());
        Path html = folder.resolve(name + "-report.html"), pdf = folder.resolve(name + "-report.pdf"), zip = folder.resolve(name + ".zip");
        HtmlReport.write(html, r);
        PdfReport.write(pdf, r);
        Path sheet = folder.resolve(name + "-sheet.jpg");
        ContactSheet.write(sheet, r.title() + ", " + r.round(), r.views().stream().map(m -> new ContactSheet.Cell(m.view() + ", " + m.width() + " x "
                + m.height(), m.preview())).toList());
        List<Path> all = new ArrayList<>();
        StringBuilder sums = new StringBuilder();
        for (Report.Made m : r.views()) for (int i = 0; i < m.files().size(); i++) {
            if (!Files.isRegularFile(m.files().get(i))) throw new IOException(m.files().get(i) + " is gone; render it again");
            all.add(m.files().get(i));
            sums.append(m.sums().get(i)).append("  ").append(m.files().get(i).getFileName()).append('\n');
        }
        all.add(html);
        all.add(pdf);
        all.add(sheet);
        AtomicFile.write(zip, o -> {
            ZipOutputStream z = new ZipOutputStream(o, StandardCharsets.UTF_8);
            // Pictures are packed already.
            z.setLevel(Deflater.BEST_SPEED);
            for (Path f : all) {
                z.putNextEntry(new ZipEntry(f.getFileName().toString()));
                Files.copy(f, z);
                z.closeEntry();
            }
            z.putNextEntry(new ZipEntry("SHA256SUMS"));
            z.write(sums.toString().getBytes(StandardCharsets.UTF_8));
            z.closeEntry();
            z.finish();
        });
        return List.of(html, pdf, sheet, zip);
    }
}
