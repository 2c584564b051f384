/** Model files: glTF and OBJ read here, others by a child process; all become one imported model with findings. */
package bake.formats.model;
