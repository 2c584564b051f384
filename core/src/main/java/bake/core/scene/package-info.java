/**
 * What is rendered, as plain immutable values in metres and candela: meshes and their instances, materials and textures, lamps,
 * surroundings, portals, camera.
 */
package bake.core.scene;
