package bake.formats.picture;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Test;

class IdMatteTest {
    /** Values of MurmurHash3 x86 32 with seed 0 that others publish (from memory). */
    @Test
    void hashes() {
        assertEquals(0, IdMatte.hash(""));
        assertEquals(0x248bfa47, IdMatte.hash("hello"));
        assertEquals(0x149bbb7f, IdMatte.hash("hello, world"));
        assertEquals(0x2e4ff723, IdMatte.hash("The quick brown fox jumps over the lazy dog"));
    }

    /** No name becomes a number that arithmetic would change. */
    @Test
    void bitsAreUsualNumbers() {
        for (int h : new int[] {0, 1, 0x7f800000, 0x7fc00001, 0xff800000, 0x80000000, 0x00012345, 0x12345678}) {
            float f = Float.intBitsToFloat(IdMatte.bits(h));
            assertTrue(Float.isFinite(f) && Math.abs(f) >= Float.MIN_NORMAL, Integer.toHexString(h));
        }
        assertEquals(0x12345678, IdMatte.bits(0x12345678));
    }
}
