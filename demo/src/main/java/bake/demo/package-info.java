/** The demo: Fernlow Library, an invented small library with a reading room and a court, made by code. */
package bake.demo;
