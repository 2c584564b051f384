package bake.core.geometry;

/**
 * Decides about triangles that are not simply solid: cut-outs, soft coverage and panes. Only asked for materials
 * whose flag says so, hence off the fast path.
 */
public interface TriangleFilter {
    /** Flag of a material: nothing special, every hit counts and blocks. */
    byte SOLID = 0;
    /** Flag: some points of the surface are not there. */
    byte CUT_OUT = 1;
    /** Flag: shadow rays go through, dimmed. */
    byte PANE = 2;

    /** One flag byte for each material. */
    byte[] flags();

    /** Whether a cut-out surface is there at a hit. */
    boolean present(Blas blas, int prim, float u, float v);

    /** Multiplies the ray's kept colour by what passes at this hit; false when nothing does. */
    boolean pass(Blas blas, int prim, float u, float v, float cosine, Ray ray);
}
