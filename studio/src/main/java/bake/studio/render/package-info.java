/**
 * One picture: the job with its limits, bands for those that do not fit into memory, checkpoints, files, and the name of what decides on
 * its bits.
 */
package bake.studio.render;
