package bake.core.outlook;

import bake.core.scene.Outlook;
import bake.core.scene.Panorama;

/** A flat picture that fills the frame; beyond its edges they go on. */
final class Plate implements Sight {
    private final Panorama picture;
    private final int width, height;
    private final float factor, scaleX, scaleY, across, up;

    /** @param aspect width of the frame over its height */
    Plate(Outlook.Plate p, double aspect) {
        picture = p.picture();
        width = picture.width();
        height = picture.height();
        factor = (float) p.factor();
        double own = width / (double) height, size = Math.max(0.05, p.size());
        scaleX = (float) ((own > aspect ? aspect / own : 1) / size);
        scaleY = (float) ((own > aspect ? 1 : own / aspect) / size);
        across = (float) p.across();
        up = (float) p.up();
    }

    @Override
    public void radiance(float ox, float oy, float oz, float dx, float dy, float dz, float px, float py, float[] out) {
        float u = (0.5f + (px - 0.5f - across) * scaleX) * width - 0.5f, v = (0.5f + (py - 0.5f + up) * scaleY) * height - 0.5f;
        u = Math.clamp(u, 0f, width - 1f);
        v = Math.clamp(v, 0f, height - 1f);
        int i = (int) u, j = (int) v, right = Math.min(i + 1, width - 1), down = Math.min(j + 1, height - 1);
        float fx = u - i, fy = v - j;
        int a = 3 * (j * width + i), b = 3 * (j * width + right), c = 3 * (down * width + i), d = 3 * (down * width + right);
        for (int k = 0; k < 3; k++)
            out[k] = factor * ((picture.at(a + k) * (1 - fx) + picture.at(b + k) * fx) * (1 - fy)
                    + (picture.at(c + k) * (1 - fx) + picture.at(d + k) * fx) * fy);
    }

    @Override
    public float white() {
        return factor;
    }
}
