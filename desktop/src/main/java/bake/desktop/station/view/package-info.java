/** The View station: cameras, exposure and tones. */
package bake.desktop.station.view;
