/**
 * What a picture is gathered in: sums of light by pixel and source group, what is seen first for the denoiser, noise from passes, pixel
 * filters.
 */
package bake.core.film;
