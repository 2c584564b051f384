/** Model files that a native library reads, in a child process that may crash or hang without harm. */
package bake.formats.foreign;
