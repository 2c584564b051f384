/** A project made into a scene: models and materials gathered, lamps, skies, texture memory, the sun's place. */
package bake.studio.scene;
