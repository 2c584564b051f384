/**
 * Pictures and readings that are not photographs: illuminance at points and all over, edges, materials, guides.
 */
package bake.core.meters;
