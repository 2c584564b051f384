/**
 * Noise taken out of pictures: {@link bake.core.denoise.Denoiser} for proofs and finals, {@link bake.core.denoise.QuickDenoiser} for the
 * easel. Scene-referred files are never denoised.
 */
package bake.core.denoise;
