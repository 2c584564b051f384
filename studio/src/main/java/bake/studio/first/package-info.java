/**
 * The first pictures of a project: from where a model is looked at, whether it is a building or a room, on what ground it stands and how
 * it is exposed. All of it is chosen by casting rays at the model and measuring small pictures, and written into the project, where the
 * artist changes it like anything else.
 */
package bake.studio.first;
