/**
 * What a picture will take and how noisy it will be, from work that this machine has really done: earlier pictures of the view, or small
 * ones made for the purpose, mended by how far earlier predictions were off.
 */
package bake.studio.estimate;
