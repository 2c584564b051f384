/**
 * Pixels that use each other's bounces: each second point of a group of paths is seen by all their first points, under the balance
 * heuristic over all ways in which it could have been found (Bekaert, Sbert and Halton 2002).
 */
package bake.core.reuse;
