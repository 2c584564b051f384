/** Windows found in a building: glass, holes in walls, where one stands indoors, and portals that fit them. */
package bake.core.opening;
