/** An open project: session, undo, autosave, recovery, lock, changes from outside, its models by content, import. */
package bake.studio.project;
