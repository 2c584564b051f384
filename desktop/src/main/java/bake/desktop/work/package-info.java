/**
 * What is open and running in the window, without a control: the project and its edits, proofs, finals, tools. Properties change on the
 * interface's thread; work is done on others.
 */
package bake.desktop.work;
