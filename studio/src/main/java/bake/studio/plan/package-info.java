/**
 * The plan of a delivery: which pictures are promised, when each will be ready, the chance of being in time, and what would make it
 * fit.
 */
package bake.studio.plan;
