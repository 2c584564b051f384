/** What light does on surfaces: layered matt, glossy and clear bodies, textures and their pyramids, edges that look rounded. */
package bake.core.surface;
