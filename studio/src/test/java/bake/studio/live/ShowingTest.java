package bake.studio.live;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertTrue;

import bake.core.path.LightPart;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class ShowingTest {
    /** Every way of light can be shown alone, and is found again. */
    @ParameterizedTest
    @EnumSource(LightPart.class)
    void waysOfLight(LightPart p) {
        Showing s = Showing.of(p);
        assertSame(p, s.part());
        assertTrue(s.ofLight());
    }

    @Test
    void allLightIsThePicture() {
        assertSame(Showing.PICTURE, Showing.of(null));
        assertNull(Showing.PICTURE.part());
    }

    /** What is shown belongs to one station: light, caches, or the model and the picture of all. */
    @Test
    void nothingIsOfTwoKinds() {
        for (Showing s : Showing.values()) assertTrue(!s.ofLight() || !s.ofCaches(), s.name());
        assertEquals(3, Arrays.stream(Showing.values()).filter(Showing::ofCaches).count());
        assertEquals(LightPart.COUNT + 3, Arrays.stream(Showing.values()).filter(Showing::ofLight).count());
    }
}
