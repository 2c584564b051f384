/** The reader of OpenEXR files. */
package bake.formats.picture.exr;
