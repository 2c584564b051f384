/**
 * Rays against triangles: two level hierarchies built in parallel, watertight packets of triangles in vectors, a scalar kernel for the
 * first seconds.
 */
package bake.core.geometry;
