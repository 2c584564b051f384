package bake.core.scene;

/**
 * What is seen of the surroundings where that is not the light they give.
 *
 * @param backdrop what the camera sees behind the model, also through clear glass; null for the light itself
 * @param mirrored what mirrors and gloss that the camera sees show; null for the light itself
 * @param apart whether what lies behind the model is a source group of its own, so that it can be left out of the picture
 */
public record Outlook(Sight backdrop, Sight mirrored, boolean apart) {
    /** The light itself everywhere. */
    public static final Outlook PLAIN = new Outlook(null, null, false);

    /** Something to look at. It gives no light to what is matt. */
    public sealed interface Sight {}

    /** Surroundings infinitely far away, without their sun's disc. */
    public record Far(Surroundings of) implements Sight {}

    /** A panorama that stands on the ground. */
    public record Grounded(Surroundings.Hdri of, Ground ground) implements Sight {}

    /**
     * A flat picture that fills the frame.
     *
     * @param picture luminance by colour; its rows run from the top of the frame
     * @param factor on every luminance
     * @param size 1 for as small as fills the frame, above for a part of the picture
     * @param across moves it to the right, shares of the frame's width
     * @param up moves it up, shares of the frame's height
     */
    public record Plate(Panorama picture, double factor, double size, double across, double up) implements Sight {}

    /**
     * The room a grounded panorama is laid out on: a level floor, an upright wall around it and half a ball on top.
     *
     * @param x middle of the floor, metres, where the tripod stood; likewise {@code y} and {@code z}
     * @param radius of the floor, metres, above 0
     * @param tripod height of the lens over the floor when the panorama was taken, metres, above 0
     * @param softness of the rim between floor and wall, 0 for a crease to 1
     * @param stretch height of the upright wall in radii; 0 for half a ball that begins at the floor. Upright lines of the panorama stay
     *     straight on the wall
     */
    public record Ground(double x, double y, double z, double radius, double tripod, double softness, double stretch) {
        public Ground {
            if (!(radius > 0) || !(tripod > 0) || !(stretch >= 0) || !(softness >= 0))
                throw new IllegalArgumentException("a grounded panorama needs a radius and a tripod height above zero");
        }
    }
}
