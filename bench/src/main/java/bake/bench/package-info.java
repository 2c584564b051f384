/**
 * Benchmarks that print their figures: quality against references and equal time, costs, caches, guides, and the ray kernels beside
 * their peers. Nothing here is part of the product.
 */
package bake.bench;
