/** Proofs of a project, each kept with how it was made. */
package bake.studio.proof;
