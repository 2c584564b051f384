/**
 * A scene as renderers read it: flat arrays, immutable, shared by all threads, and a camera made ready. Nothing is computed here but what a
 * scene description says.
 */
package bake.core.compiled;
