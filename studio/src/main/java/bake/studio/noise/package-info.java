/** Where the noise of a picture comes from, and what would help: found with quick pictures. */
package bake.studio.noise;
