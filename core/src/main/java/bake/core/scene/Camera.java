package bake.core.scene;

import bake.core.math.Vec3;

/**
 * A thin-lens camera, or a parallel view or a panorama from its place.
 *
 * @param focal focal length, mm
 * @param fNumber aperture; with {@code depthOfField} it also sets the lens' diameter
 * @param shutter exposure time, s
 * @param iso sensitivity
 * @param focus distance of sharpness along the optical axis, metres
 * @param straightVerticals keep the sensor upright and look up or down by shifting the lens
 * @param shift extra vertical lens shift, mm, positive raises the view
 * @param shiftAcross horizontal lens shift, mm, positive moves the view to the right
 * @param form kind of projection and what is rarely touched
 */
public record Camera(
        Vec3 position, Vec3 target, double focal, double fNumber, double shutter, double iso, double focus,
        boolean depthOfField, boolean straightVerticals, double shift, double shiftAcross, CameraForm form) {

    public static final double SENSOR_WIDTH = 36;

    /** One of the usual kind. */
    public Camera(Vec3 position, Vec3 target, double focal, double fNumber, double shutter, double iso, double focus, boolean depthOfField,
            boolean straightVerticals, double shift, double shiftAcross) {
        this(position, target, focal, fNumber, shutter, iso, focus, depthOfField, straightVerticals, shift, shiftAcross, CameraForm.USUAL);
    }

    public Camera withForm(CameraForm f) {
        return new Camera(position, target, focal, fNumber, shutter, iso, focus, depthOfField, straightVerticals, shift, shiftAcross, f);
    }

    /** A camera for daylight at {@code focal} mm, everything sharp. */
    public static Camera of(Vec3 position, Vec3 target, double focal) {
        return new Camera(position, target, focal, 8, 1 / 125.0, 100, 5, false, true, 0, 0);
    }

    /** Exposure value at ISO 100: log2(N2 / t * 100 / S) (ISO 2720). */
    public double ev100() {
        return Math.log(fNumber * fNumber / shutter * 100 / iso) / Math.log(2);
    }

    /** Luminance that just saturates the picture, cd/m2: 1.2 * 2^EV100 (ISO 12232, saturation based). */
    public double saturation() {
        return 1.2 * Math.pow(2, ev100());
    }

    /** The same camera with the shutter chosen so that {@link #ev100()} is {@code ev}. */
    public Camera withEv(double ev) {
        return new Camera(position, target, focal, fNumber, fNumber * fNumber * 100 / iso / Math.pow(2, ev), iso, focus,
                depthOfField, straightVerticals, shift, shiftAcross, form);
    }

    public Camera at(Vec3 newPosition, Vec3 newTarget) {
        return new Camera(newPosition, newTarget, focal, fNumber, shutter, iso, focus, depthOfField, straightVerticals, shift,
                shiftAcross, form);
    }

    /** Everything sharp or not, at a distance along the optical axis, metres. */
    public Camera withFocus(boolean blurs, double metres) {
        return new Camera(position, target, focal, fNumber, shutter, iso, metres, blurs, straightVerticals, shift, shiftAcross, form);
    }

    /** Another aperture, shutter and sensitivity. */
    public Camera withExposure(double aperture, double seconds, double sensitivity) {
        return new Camera(position, target, focal, aperture, seconds, sensitivity, focus, depthOfField, straightVerticals, shift,
                shiftAcross, form);
    }

    /** How the lens is shifted, mm, and whether it shifts by itself to keep verticals straight. */
    public Camera withShift(boolean straight, double upwards, double across) {
        return new Camera(position, target, focal, fNumber, shutter, iso, focus, depthOfField, straight, upwards, across, form);
    }

    public Camera withFocal(double mm) {
        return new Camera(position, target, mm, fNumber, shutter, iso, focus, depthOfField, straightVerticals, shift, shiftAcross, form);
    }
}
