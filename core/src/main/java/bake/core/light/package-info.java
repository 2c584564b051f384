/** Where light comes from: skies and panoramas as tables to sample, lamps and glowing surfaces as a tree, panes of openings as targets. */
package bake.core.light;
