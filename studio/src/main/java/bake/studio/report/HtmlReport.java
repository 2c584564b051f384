package bake.studio.report;

import bake.formats.AtomicFile;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Base64;
import javax.imageio.ImageIO;

/** A report as one page that needs nothing else: pictures are in it. */
public final class HtmlReport {
    private static final String STYLE = """
            body{font:15px/1.5 system-ui,sans-serif;color:#1f2429;background:#fff;margin:2em auto;max-width:60em;padding:0 1em}
            h1{font-size:1.5em;margin:0}h2{font-size:1.1em;margin:2.2em 0 .4em}img{width:100%;height:auto;display:block}
            table{border-collapse:collapse;margin:.6em 0}td{padding:.15em 1.2em .15em 0;vertical-align:top}td:first-child{color:#5b6166}
            figure{margin:0}.pair{display:grid;grid-template-columns:1fr 1fr;gap:1em}figcaption{color:#5b6166;font-size:.85em}
            code{font-size:.8em;word-break:break-all;color:#5b6166}.quiet{color:#5b6166}""";

    private HtmlReport() {}

    public static void write(Path file, Report r) throws IOException {
        StringBuilder b = new StringBuilder("<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>").append(text(r.title() + ", "
                + r.round())).append("</title>\n<style>").append(STYLE).append("</style></head><body>\n<h1>").append(text(r.title())).append("</h1>\n");
        b.append("<p class=\"quiet\">").append(text("Delivery " + r.round() + ", " + r.date() + (r.due() == null ? "" : ", due " + r.due().replace('T',
                ' ')) + ". " + r.views().size() + (r.views().size() == 1 ? " picture" : " pictures") + " in " + Report.time(r.seconds()) + ".")).append(
                        "</p>\n");
        for (Report.Made m : r.views()) {
            b.append("<h2>").append(text(m.view())).append("</h2>\n");
            if (m.preview() != null && m.before() != null) b.append("<div class=\"pair\"><figure>").append(image(m.view() + ", last round", m.before()))
                    .append("<figcaption>last round</figcaption></figure><figure>").append(image(m.view(), m.preview())).append("<figcaption>")
                    .append(text(r.round())).append("</figcaption></figure></div>\n");
            else if (m.preview() != null) b.append(image(m.view(), m.preview())).append('\n');
            else b.append("<p class=\"quiet\">Only its scene light was written, which pages do not show.</p>\n");
            b.append("<table>");
            for (String[] f : m.facts()) b.append("<tr><td>").append(text(f[0])).append("</td><td>").append(text(f[1])).append("</td></tr>\n");
            for (int i = 0; i < m.files().size(); i++) b.append("<tr><td>File</td><td>").append(text(m.files().get(i).getFileName().toString())).append(
                    "<br><code>SHA-256 ").append(text(m.sums().size() > i ? m.sums().get(i) : "")).append("</code></td></tr>\n");
            if (m.changes() != null) b.append("<tr><td>Since the last round</td><td>").append(m.changes().isEmpty() ? "nothing changed" : String.join(
                    "<br>", m.changes().stream().map(HtmlReport::text).toList())).append("</td></tr>\n");
            b.append("</table>\n");
        }
        byte[] bytes = b.append("</body></html>\n").toString().getBytes(StandardCharsets.UTF_8);
        AtomicFile.write(file, o -> o.write(bytes));
    }

    private static String image(String name, BufferedImage i) throws IOException {
        ByteArrayOutputStream o = new ByteArrayOutputStream();
        ImageIO.write(i, "jpeg", o);
        return "<img alt=\"" + text(name) + "\" src=\"data:image/jpeg;base64," + Base64.getEncoder().encodeToString(o.toByteArray()) + "\">";
    }

    private static String text(String s) {
        return s.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\"", "&quot;");
    }
}
