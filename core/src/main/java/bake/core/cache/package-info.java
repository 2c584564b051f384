/**
 * Light that was computed once and is used many times: cells of irradiance all over the scene, and records of irradiance where the camera
 * looks.
 *
 * <p>A cache is filled in rounds. Within a round it is only read, by all threads, while what they compute is kept apart, chunk by chunk;
 * after the round it is merged in the order of the chunks, so that what is in a cache depends on no timing. Nothing here reads or writes
 * files.
 */
package bake.core.cache;
