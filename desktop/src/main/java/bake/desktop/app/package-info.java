/**
 * The window itself: start, frame, menu and keys, the dimension line, title block, rail, foot, and what is said and asked. It alone
 * knows all stations.
 */
package bake.desktop.app;
