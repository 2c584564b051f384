/**
 * The queue of finals: what is to be rendered on this machine, written down before it is done, and worked by one process that may be killed
 * at any moment.
 */
package bake.studio.queue;
