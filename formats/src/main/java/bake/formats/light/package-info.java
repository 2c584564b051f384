/** Photometric files, kept guides and kept caches. */
package bake.formats.light;
