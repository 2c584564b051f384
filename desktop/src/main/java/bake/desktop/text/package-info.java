/** Words and numbers on the screen, and what is read from fields: one place for units. */
package bake.desktop.text;
