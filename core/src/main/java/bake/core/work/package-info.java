/**
 * Threads, and pictures that they make pass by pass.
 */
package bake.core.work;
