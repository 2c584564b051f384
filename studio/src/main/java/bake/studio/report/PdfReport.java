package bake.studio.report;

import bake.formats.AtomicFile;
import bake.formats.picture.Stamp;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.apache.pdfbox.pdmodel.graphics.image.JPEGFactory;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;

/** A report as a PDF: a contact sheet of all pictures, then a page for each. */
public final class PdfReport {
    private static final float MARGIN = 48, GAP = 14, LINE = 13, SMALL = 8, USUAL = 9.5f, LARGE = 17;
    private static final int ACROSS = 2;
    private static final float QUALITY = 0.88f;

    private final PDDocument document = new PDDocument();
    private final PDFont font;
    private final PDRectangle paper = new PDRectangle(PDRectangle.A4.getHeight(), PDRectangle.A4.getWidth());

    private PdfReport() throws IOException {
        font = PDType0Font.load(document, Stamp.font(), true);
    }

    public static void write(Path file, Report r) throws IOException {
        PdfReport w = new PdfReport();
        try (PDDocument d = w.document) {
            d.getDocumentInformation().setTitle(r.title() + ", " + r.round());
            List<PDImageXObject> images = new ArrayList<>();
            for (Report.Made m : r.views()) images.add(m.preview() == null ? null : JPEGFactory.createFromImage(d, m.preview(), QUALITY));
            w.sheet(r, images);
            for (int i = 0; i < r.views().size(); i++) {
                Report.Made m = r.views().get(i);
                w.page(r.round(), m, images.get(i), m.before() == null ? null : JPEGFactory.createFromImage(d, m.before(), QUALITY));
            }
            AtomicFile.write(file, d::save);
        }
    }

    /** All pictures side by side, on as many pages as they need. */
    private void sheet(Report r, List<PDImageXObject> images) throws IOException {
        float w = (paper.getWidth() - 2 * MARGIN - (ACROSS - 1) * GAP) / ACROSS, h = (paper.getHeight() - 2 * MARGIN - 60) / 2;
        for (int first = 0; first < images.size(); first += 2 * ACROSS) {
            PDPage page = new PDPage(paper);
            document.addPage(page);
            try (PDPageContentStream c = new PDPageContentStream(document, page)) {
                float top = paper.getHeight() - MARGIN;
                text(c, r.title(), MARGIN, top - LARGE, LARGE);
                text(c, "Delivery " + r.round() + ", " + r.date() + (r.due() == null ? "" : ", due " + r.due().replace('T', ' ')) + ". " + r.views()
                        .size() + (r.views().size() == 1 ? " picture" : " pictures") + " in " + Report.time(r.seconds()) + ".", MARGIN, top - LARGE
                                - 2 * LINE, USUAL);
                for (int i = first; i < Math.min(images.size(), first + 2 * ACROSS); i++) {
                    int k = i - first;
                    float x = MARGIN + k % ACROSS * (w + GAP), y = top - 60 - (k / ACROSS + 1) * h;
                    if (images.get(i) != null) fit(c, images.get(i), x, y + LINE + 4, w, h - LINE - GAP);
                    text(c, r.views().get(i).view() + ", " + r.views().get(i).width() + " x " + r.views().get(i).height(), x, y + 4, SMALL);
                }
            }
        }
    }

    /** @param before of the last round, or null */
    private void page(String round, Report.Made m, PDImageXObject image, PDImageXObject before) throws IOException {
        PDPage page = new PDPage(paper);
        document.addPage(page);
        List<String> lines = new ArrayList<>();
        for (String[] f : m.facts()) lines.add(String.format("%-14s%s", f[0], f[1]));
        for (int i = 0; i < m.files().size(); i++) {
            lines.add(String.format("%-14s%s", "File", m.files().get(i).getFileName()));
            if (m.sums().size() > i) lines.add("              SHA-256 " + m.sums().get(i));
        }
        if (m.changes() != null) {
            lines.add(m.changes().isEmpty() ? "Nothing changed since the last round." : "Since the last round:");
            for (String s : m.changes()) lines.add("              " + s);
        }
        try (PDPageContentStream c = new PDPageContentStream(document, page)) {
            float top = paper.getHeight() - MARGIN, y = MARGIN + LINE * Math.min(lines.size(), 16);
            text(c, m.view(), MARGIN, top - LARGE, LARGE);
            float room = paper.getWidth() - 2 * MARGIN, high = top - LARGE - GAP - y - GAP, half = (room - GAP) / 2;
            if (image != null && before == null) fit(c, image, MARGIN, y + GAP, room, high);
            if (image != null && before != null) {
                fit(c, before, MARGIN, y + GAP, half, high - LINE);
                fit(c, image, MARGIN + half + GAP, y + GAP, half, high - LINE);
                text(c, "last round", MARGIN, top - LARGE - GAP + 3, SMALL);
                text(c, round, MARGIN + half + GAP, top - LARGE - GAP + 3, SMALL);
            }
            for (String l : lines.subList(0, Math.min(lines.size(), 16))) {
                y -= LINE;
                text(c, l, MARGIN, y + 3, SMALL);
            }
        }
    }

    /** As large as it fits, at the left and the top. */
    private static void fit(PDPageContentStream c, PDImageXObject i, float x, float y, float w, float h) throws IOException {
        float k = Math.min(w / i.getWidth(), h / i.getHeight()), iw = k * i.getWidth(), ih = k * i.getHeight();
        c.drawImage(i, x, y + h - ih, iw, ih);
    }

    private void text(PDPageContentStream c, String t, float x, float y, float size) throws IOException {
        c.beginText();
        c.setFont(font, size);
        c.newLineAtOffset(x, y);
        c.showText(known(t));
        c.endText();
    }

    /** Signs that the font does not have become question marks. */
    private String known(String t) {
        StringBuilder b = new StringBuilder();
        t.codePoints().forEach(p -> {
            String s = Character.toString(p);
            try {
                font.encode(s);
                b.append(s);
            } catch (IOException | IllegalArgumentException e) {
                b.append('?');
            }
        });
        return b.toString();
    }
}
