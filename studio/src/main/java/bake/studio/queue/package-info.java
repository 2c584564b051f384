/** Finals, one after another. */
package bake.studio.queue;
