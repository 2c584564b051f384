/** The easel's picture, which begins again at every edit, and what is read from it. */
package bake.studio.live;
