package bake.desktop.parts;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.css.CssMetaData;
import javafx.css.StyleConverter;
import javafx.css.Styleable;
import javafx.css.StyleableObjectProperty;
import javafx.scene.canvas.Canvas;
import javafx.scene.paint.Color;
import javafx.scene.paint.Paint;

/** A canvas that draws in the colours of the style sheet, and anew when they change. */
public final class Drawing extends Canvas {
    private static final CssMetaData<Drawing, Paint> INK = meta("-drawing-ink", d -> d.ink), RULE = meta("-drawing-rule", d -> d.rule),
            ACCENT = meta("-drawing-accent", d -> d.accent), QUIET = meta("-drawing-quiet", d -> d.quiet);
    private final StyleableObjectProperty<Paint> ink = colour(INK), rule = colour(RULE), accent = colour(ACCENT), quiet = colour(QUIET);

    private final Consumer<Drawing> painter;

    /** @param painter draws all anew; may be asked before what is to be drawn is there */
    public Drawing(double w, double h, Consumer<Drawing> painter) {
        super(w, h);
        this.painter = painter;
        getStyleClass().add("drawing");
    }

    private interface Of {
        StyleableObjectProperty<Paint> in(Drawing d);
    }

    private static CssMetaData<Drawing, Paint> meta(String name, Of of) {
        return new CssMetaData<>(name, StyleConverter.getPaintConverter(), Color.GRAY) {
            @Override
            public boolean isSettable(Drawing d) {
                return !of.in(d).isBound();
            }

            @Override
            public StyleableObjectProperty<Paint> getStyleableProperty(Drawing d) {
                return of.in(d);
            }
        };
    }

    private StyleableObjectProperty<Paint> colour(CssMetaData<Drawing, Paint> meta) {
        return new StyleableObjectProperty<>(Color.GRAY) {
            @Override
            protected void invalidated() {
                get();
                redraw();
            }

            @Override
            public Object getBean() {
                return Drawing.this;
            }

            @Override
            public String getName() {
                return meta.getProperty();
            }

            @Override
            public CssMetaData<? extends Styleable, Paint> getCssMetaData() {
                return meta;
            }
        };
    }

    /** Draws all anew, on an empty ground. */
    public void redraw() {
        getGraphicsContext2D().clearRect(0, 0, getWidth(), getHeight());
        painter.accept(this);
    }

    /** Colour of what is written and of main lines. */
    public Paint ink() {
        return ink.get();
    }

    /** Colour of lines that only part things. */
    public Paint rule() {
        return rule.get();
    }

    /** Colour of what can be moved. */
    public Paint accent() {
        return accent.get();
    }

    /** Colour of small texts. */
    public Paint quiet() {
        return quiet.get();
    }

    @Override
    public List<CssMetaData<? extends Styleable, ?>> getCssMetaData() {
        List<CssMetaData<? extends Styleable, ?>> all = new ArrayList<>(Canvas.getClassCssMetaData());
        all.addAll(List.of(INK, RULE, ACCENT, QUIET));
        return all;
    }
}
