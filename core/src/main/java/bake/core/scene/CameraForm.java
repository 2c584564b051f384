package bake.core.scene;

/**
 * What kind of picture a camera makes, and the parts of it that are rarely touched.
 *
 * @param kind of projection
 * @param sensor width of the sensor, mm
 * @param roll degrees by which the camera leans to the right
 * @param clip metres along the view before which it sees nothing, 0 for all; light stays as it is
 * @param blades of the aperture, 3 to 16; 0 for a round one
 * @param catEye how much of the aperture the barrel hides in the corners, 0 to 1: blurred lights there become narrow
 * @param across width of what a parallel view shows, metres
 * @param eyes distance between the eyes of a stereo panorama, metres
 */
public record CameraForm(Kind kind, double sensor, double roll, double clip, int blades, double catEye, double across, double eyes) {
    /** How the picture is spread. */
    public enum Kind {
        PERSPECTIVE, PARALLEL, PANORAMA, STEREO;

        /** Whether it shows all around. */
        public boolean round() {
            return this == PANORAMA || this == STEREO;
        }
    }

    public static final CameraForm USUAL = new CameraForm(Kind.PERSPECTIVE, 36, 0, 0, 0, 0, 10, 0.064);

    /** @throws IllegalArgumentException when a value is out of range */
    public CameraForm {
        if (!(sensor >= 1 && sensor <= 1000)) throw new IllegalArgumentException("a sensor is 1 to 1000 mm wide, not " + sensor);
        if (!(clip >= 0)) throw new IllegalArgumentException("a camera sees from 0 metres on, or more");
        if (blades != 0 && (blades < 3 || blades > 16)) throw new IllegalArgumentException("an aperture has 3 to 16 blades, or 0 for a round one");
        if (!(across > 0 && across <= 100_000)) throw new IllegalArgumentException("a parallel view is 0 to 100,000 metres wide");
    }

    public CameraForm withKind(Kind k) {
        return new CameraForm(k, sensor, roll, clip, blades, catEye, across, eyes);
    }

    public CameraForm withSensor(double mm) {
        return new CameraForm(kind, mm, roll, clip, blades, catEye, across, eyes);
    }

    public CameraForm withRoll(double degrees) {
        return new CameraForm(kind, sensor, degrees, clip, blades, catEye, across, eyes);
    }

    public CameraForm withClip(double metres) {
        return new CameraForm(kind, sensor, roll, metres, blades, catEye, across, eyes);
    }

    public CameraForm withBlades(int n) {
        return new CameraForm(kind, sensor, roll, clip, n, catEye, across, eyes);
    }

    public CameraForm withCatEye(double hidden) {
        return new CameraForm(kind, sensor, roll, clip, blades, hidden, across, eyes);
    }

    public CameraForm withAcross(double metres) {
        return new CameraForm(kind, sensor, roll, clip, blades, catEye, metres, eyes);
    }
}
