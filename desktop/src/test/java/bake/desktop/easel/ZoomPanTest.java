package bake.desktop.easel;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Test;

/** Where a picture lies on the easel, fitted, enlarged and moved. */
class ZoomPanTest {
    private static ZoomPan zoom(double pixels) {
        ZoomPan z = new ZoomPan();
        z.room(1028, 614, 2, pixels, 1);
        return z;
    }

    @Test
    void fittedItStandsInTheMiddle() {
        ZoomPan.Box b = zoom(4000).box();
        assertEquals(new ZoomPan.Box(14, 57, 1000, 500), b);
    }

    @Test
    void theWheelKeepsThePlaceUnderThePointer() {
        ZoomPan z = zoom(4000);
        double u = (300 - z.box().x()) / z.box().w();
        for (int i = 0; i < 5; i++) z.zoom(1.25, 300, 250);
        assertEquals(u, (300 - z.box().x()) / z.box().w(), 0.001);
        assertTrue(z.zoomed());
    }

    @Test
    void onePixelToOneAndBack() {
        ZoomPan z = zoom(4000);
        z.toggle(514, 307);
        assertEquals(1, z.magnification(), 1e-9);
        assertEquals(4000, z.box().w(), 1e-6);
        z.toggle(514, 307);
        assertFalse(z.zoomed());
        // A picture that has as many pixels as the easel is enlarged to twice that.
        ZoomPan same = zoom(1000);
        same.toggle(514, 307);
        assertEquals(2, same.magnification(), 1e-9);
    }

    @Test
    void screensWithFinerPixelsCount() {
        ZoomPan z = new ZoomPan();
        z.room(1028, 614, 2, 4000, 2);
        z.toggle(514, 307);
        assertEquals(2000, z.box().w(), 1e-6);
    }

    @Test
    void panningLeavesNoGapAndAnswersAtOnceOnTheWayBack() {
        ZoomPan z = zoom(4000);
        z.toggle(514, 307);
        z.pan(1e6, 1e6);
        assertEquals(0, z.box().x());
        assertEquals(0, z.box().y());
        z.pan(-10, 0);
        assertEquals(-10, z.box().x());
    }

    @Test
    void enlargesToPixelsThatCanBeCountedAndNoFurther() {
        ZoomPan z = zoom(64);
        for (int i = 0; i < 100; i++) z.zoom(1.25, 0, 0);
        assertEquals(32, z.magnification(), 1e-6);
        for (int i = 0; i < 100; i++) z.zoom(0.8, 0, 0);
        assertFalse(z.zoomed());
    }
}
