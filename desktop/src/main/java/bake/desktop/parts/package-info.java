/** Small controls that stations are made of. */
package bake.desktop.parts;
