/**
 * Prepasses that fill caches of bounced light in rounds. Irradiance of a cell is the mean over paths that came by of what light sampling
 * and one further bounce brought there; that of a record is gathered over its hemisphere in strata of equal irradiance, with gradients
 * (Ward and Heckbert 1992).
 */
package bake.core.solve;
