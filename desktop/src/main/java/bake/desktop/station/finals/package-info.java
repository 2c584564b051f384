/** The Finals station: which pictures are made in full, where they go, and how far they are. */
package bake.desktop.station.finals;
