/** What was computed and is kept for the next picture: caches of light, guides, hierarchies; each knows what it was made from. */
package bake.studio.cache;
