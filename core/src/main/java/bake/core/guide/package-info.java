/** Learnt choices: a space cut into leaves, in each the weights with which parts of the light are sampled. */
package bake.core.guide;
