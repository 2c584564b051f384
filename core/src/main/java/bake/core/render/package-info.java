/**
 * Pictures: samples of pixels, filtered, in passes over the film, with all that comes before a pass.
 */
package bake.core.render;
