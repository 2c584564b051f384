package bake.desktop.work;

import bake.core.scene.Camera;

/** Which value of an exposure follows when another one is changed. */
public enum GivesWay {
    SHUTTER, APERTURE, ISO;

    /** The camera brought to an exposure, EV at ISO 100, by this value alone. */
    public Camera to(Camera c, double ev) {
        double light = Math.pow(2, ev);
        return switch (this) {
            case SHUTTER -> c.withEv(ev);
            case APERTURE -> c.withExposure(Math.clamp(Math.sqrt(light * c.shutter() * c.iso() / 100), 0.5, 128), c.shutter(), c.iso());
            case ISO -> c.withExposure(c.fNumber(), c.shutter(), Math.clamp(c.fNumber() * c.fNumber() / c.shutter() * 100 / light, 1, 1e6));
        };
    }
}
