/** The project's file: values that say what it holds, its schema, reading and writing. */
package bake.formats.project;
