/** The Light station: surroundings, sun and sky, panoramas, portals, guides, lamps, and the faders under the easel. */
package bake.desktop.station.light;
