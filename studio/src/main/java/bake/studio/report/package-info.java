/**
 * What a delivery is handed over with: its pictures, how they were made and how long it took, as a page, as a print, and as one
 * archive.
 */
package bake.studio.report;
