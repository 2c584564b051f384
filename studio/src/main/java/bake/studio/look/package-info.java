/** How pictures are finished: named looks on shelves, colour tables of the project, and pictures finished again from their files. */
package bake.studio.look;
