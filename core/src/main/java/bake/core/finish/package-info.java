/** From light to a picture: exposure, white balance and tone curve, and the denoiser before them. Pure functions of a film. */
package bake.core.finish;
