package bake.studio.first;

import bake.core.compiled.Lens;
import bake.core.math.Vec3;
import bake.core.scene.Camera;

/** Cameras that have a whole model in the picture, with air around it. */
final class Framing {
    /** Share of the picture's width and height that a model may fill (common practice, no source). */
    private static final double WIDE = 0.76, TALL = 0.74;
    private static final double FOCAL = 35, EYE = 1.6;
    private static final int STEPS = 40;

    private final Extent model;
    private final double ground;

    /** @param ground height of the ground, metres; the eye stays above it */
    Framing(Extent model, double ground) {
        this.model = model;
        this.ground = ground;
    }

    /**
     * The camera on one side of the model.
     *
     * @param azimuth of the side, radians from +x counter-clockwise
     * @param elevation above the model's middle, radians
     * @param aspect width of the picture by its height
     */
    Camera from(double azimuth, double elevation, double aspect) {
        Vec3 back = new Vec3(Math.cos(elevation) * Math.cos(azimuth), Math.cos(elevation) * Math.sin(azimuth), Math.sin(elevation));
        // Looking gently down, uprights stay upright; from high above that would be a caricature.
        boolean straight = elevation < Math.toRadians(18);
        Vec3 target = model.middle();
        double distance = model.diagonal() * 1.5;
        Camera c = camera(target, back, distance, straight);
        for (int k = 0; k < STEPS; k++) {
            double[] seen = seen(c, aspect);
            if (seen == null) {
                distance *= 1.5;
            } else {
                double fill = Math.max((seen[1] - seen[0]) / WIDE, (seen[3] - seen[2]) / TALL);
                double width = distance * Camera.SENSOR_WIDTH / FOCAL;
                Vec3 right = back.cross(Vec3.UP).times(-1).normalized(), up = back.cross(right);
                target = target.plus(right.times(((seen[0] + seen[1]) / 2 - 0.5) * width))
                        .plus(up.times((0.5 - (seen[2] + seen[3]) / 2) * width / aspect));
                distance *= Math.clamp(fill, 0.5, 2);
            }
            c = camera(target, back, distance, straight);
        }
        return c;
    }

    private Camera camera(Vec3 target, Vec3 back, double distance, boolean straight) {
        Vec3 eye = target.plus(back.times(distance));
        // Nobody stands in the earth; beside small things one bends down.
        double least = ground + Math.min(EYE, 0.15 * distance);
        if (eye.z() < least) eye = new Vec3(eye.x(), eye.y(), least);
        return Camera.of(eye, target, FOCAL).withShift(straight, 0, 0).withFocus(false, distance);
    }

    /** Where the model lies on the picture: left, right, top, bottom; null when part of it is behind the camera. */
    private double[] seen(Camera c, double aspect) {
        Lens lens = new Lens(c, 1000, (int) Math.round(1000 / aspect));
        double[] out = {1e9, -1e9, 1e9, -1e9};
        for (Vec3 p : model.outermost()) {
            double[] at = lens.project(p.x(), p.y(), p.z());
            if (at == null) return null;
            out[0] = Math.min(out[0], at[0]);
            out[1] = Math.max(out[1], at[0]);
            out[2] = Math.min(out[2], at[1]);
            out[3] = Math.max(out[3], at[1]);
        }
        return out;
    }

    /** The shape of picture that suits the model: lying, square or standing. */
    int[] size() {
        double slim = model.height() / Math.max(1e-9, model.across());
        return slim > 1.8 ? new int[] {1200, 1600} : slim > 1.1 ? new int[] {1500, 1500} : new int[] {1920, 1080};
    }
}
