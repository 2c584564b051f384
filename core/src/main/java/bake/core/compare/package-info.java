/** How far two pictures of one view are apart, for a person who looks from the one to the other. */
package bake.core.compare;
