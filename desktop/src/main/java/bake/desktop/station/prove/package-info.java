/** The Prove station: settings of proofs, solvers and caches of bounced light, progress and comparison. */
package bake.desktop.station.prove;
