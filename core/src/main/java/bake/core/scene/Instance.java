package bake.core.scene;

import bake.core.math.Affine;

/** A mesh placed in the world; {@code mesh} and {@code layer} are indices into the scene's lists. */
public record Instance(String name, int mesh, Affine toWorld, int layer) {}
