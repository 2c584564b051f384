/** What all files have in common: atomic writing, paths that stay in their folder, errors that name file, place and mend. */
package bake.formats;
