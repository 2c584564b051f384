/**
 * One path from the camera: unidirectional path tracing (Kajiya 1986). At each surface light is looked for (next-event estimation) and met
 * by bounces, the two weighed by the power heuristic (Veach and Guibas 1995); paths end by roulette on their throughput, or in a cache. The
 * estimator of a pixel is the mean over its paths of throughput times light, by source group. {@link bake.core.path.PathTracer} walks,
 * {@link bake.core.path.DirectLight} looks for light, {@link bake.core.path.MetLight} weighs what is met, {@link
 * bake.core.path.CachedPoints} reads caches, {@link bake.core.path.CellTrail} fills them.
 */
package bake.core.path;
