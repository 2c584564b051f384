package bake.core.path;

import bake.core.light.Aim;
import bake.core.surface.SurfacePoint;

/** Where and how a path was scattered last: what light sampling there would have made of what the path meets now. */
public final class Departure {
    /** Density of the scattering; negative when light sampling could not have found what comes now. */
    public float pdf;
    public float x, y, z;
    /** Which way the surface faced, and whether light comes to it from both sides. */
    public float nx, ny, nz;
    public boolean around;
    /** How the surroundings were looked for there, null for the unlearnt way; how often they and emitters were. */
    public Aim aim;
    public float skySamples = 1, lampSamples = 1;
    /** What the lamp guide knows of the place; -1 for nothing. */
    public int lampAt = -1;

    /** Nothing but the camera lies behind. */
    public void none() {
        pdf = -1;
    }

    public void at(SurfacePoint p) {
        x = p.px;
        y = p.py;
        z = p.pz;
        nx = p.nx;
        ny = p.ny;
        nz = p.nz;
    }
}
