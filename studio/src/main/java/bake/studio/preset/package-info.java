/** Presets that ship and that a project holds, their keys for scripts, and what they cost on this machine. */
package bake.studio.preset;
