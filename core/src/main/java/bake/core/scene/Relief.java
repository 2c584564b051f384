package bake.core.scene;

/**
 * Form finer than the triangles, shown by bent normals, and how pictures are laid on.
 *
 * @param height picture whose red channel is a height, or null
 * @param heightMetres height of white over black, metres; may be negative
 * @param round radius that hard edges look rounded with, metres; 0 for sharp
 * @param scatter whether repeats of all pictures are broken up by moving patches about
 */
public record Relief(Material.Image height, double heightMetres, double round, boolean scatter) {
    public static final Relief NONE = new Relief(null, 0, 0, false);

    public Relief withHeight(Material.Image image, double metres) {
        return new Relief(image, metres, round, scatter);
    }

    public Relief withRound(double metres) {
        return new Relief(height, heightMetres, metres, scatter);
    }

    public Relief withScatter(boolean on) {
        return new Relief(height, heightMetres, round, on);
    }

    Relief shift(int by) {
        return height == null ? this : withHeight(Material.shift(height, by), heightMetres);
    }
}
