/** Where this user's files lie that belong to no project. */
package bake.studio.user;
