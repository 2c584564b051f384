/** Where the noise of a picture comes from, and what would help: found with small pictures. */
package bake.studio.noise;
