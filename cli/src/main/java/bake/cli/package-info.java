/**
 * The command line: one class for each command, which reads its arguments, asks the studio and prints. Results go to standard output,
 * everything else to standard error.
 */
package bake.cli;
