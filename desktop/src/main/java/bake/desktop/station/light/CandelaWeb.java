package bake.desktop.station.light;

import bake.core.scene.PhotometricWeb;
import bake.desktop.parts.Drawing;
import bake.desktop.text.Texts;
import java.util.Locale;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.StackPane;
import javafx.scene.paint.Paint;
import javafx.scene.text.Font;

/** The intensities of a photometric file around two planes: ink along its x axis, kiln across it. Down is straight ahead. */
final class CandelaWeb extends StackPane {
    private static final double W = 280, H = 150, R = 62;

    private final Drawing drawing = new Drawing(W, H, this::draw);
    private PhotometricWeb web;

    CandelaWeb() {
        setId("candela-web");
        setAccessibleText("Intensities around the lamp");
        getChildren().add(drawing);
    }

    void show(PhotometricWeb w) {
        web = w;
        drawing.redraw();
    }

    private void draw(Drawing d) {
        GraphicsContext g = d.getGraphicsContext2D();
        if (web == null) return;
        double cx = W / 2, cy = H / 2;
        g.setLineWidth(1);
        g.setStroke(d.rule());
        for (int k = 1; k <= 2; k++) g.strokeOval(cx - R * k / 2, cy - R * k / 2, R * k, R * k);
        g.strokeLine(cx - R, cy, cx + R, cy);
        g.strokeLine(cx, cy - R, cx, cy + R);
        curve(g, web, cx, cy, false, d.accent());
        curve(g, web, cx, cy, true, d.ink());
        g.setFill(d.quiet());
        g.setFont(Font.font("Inter", 11));
        g.fillText(String.format(Locale.ROOT, "%s cd at most", Texts.three(web.peak())), 4, H - 5);
        g.fillText(String.format(Locale.ROOT, "%s lm", Texts.three(web.lumens())), W - 70, H - 5);
    }

    private static void curve(GraphicsContext g, PhotometricWeb web, double cx, double cy, boolean alongX, Paint c) {
        g.setStroke(c);
        g.setLineWidth(1.5);
        g.beginPath();
        for (int a = 0; a <= 360; a += 2) {
            double t = Math.toRadians(a), s = Math.sin(t), z = Math.cos(t),
                    r = R * web.candela(alongX ? s : 0, alongX ? 0 : s, z) / Math.max(1e-9, web.peak());
            double x = cx + r * s, y = cy + r * z;
            if (a == 0) g.moveTo(x, y);
            else g.lineTo(x, y);
        }
        g.stroke();
    }
}
