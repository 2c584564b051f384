/** The Model station: files, layers and materials of the model, and how it is shown. */
package bake.desktop.station.model;
