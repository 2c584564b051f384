/** Vectors, transforms, frames, colour and black bodies, polygons, and the sequences that samples are taken from. */
package bake.core.math;
