package bake.core.scene;

import bake.core.math.Vec3;
import java.util.List;

/**
 * A flat polygon on an opening through which the surroundings are looked for. It faces the side from which its corners run
 * counter-clockwise; only from there it is used. It never changes the mean of a picture.
 *
 * @param corners at least three, metres, in one plane, without crossings
 */
public record Portal(String name, List<Vec3> corners) {
    public Portal {
        corners = List.copyOf(corners);
        if (corners.size() < 3) throw new IllegalArgumentException("portal " + name + " has " + corners.size()
                + " corners; it needs three");
    }

    /** Unit vector to the side that the portal faces, by the areas of its projections (Newell's method). */
    public Vec3 normal() {
        Vec3 n = area();
        return n.length() > 0 ? n.normalized() : Vec3.UP;
    }

    private Vec3 area() {
        Vec3 n = Vec3.ZERO;
        for (int i = 1; i + 1 < corners.size(); i++)
            n = n.plus(corners.get(i).minus(corners.getFirst()).cross(corners.get(i + 1).minus(corners.getFirst())));
        return n.times(0.5);
    }

    /** Square metres. */
    public double size() {
        return area().length();
    }

    public Vec3 middle() {
        Vec3 m = Vec3.ZERO;
        for (Vec3 c : corners) m = m.plus(c);
        return m.times(1.0 / corners.size());
    }

    /** The same, facing the other way. */
    public Portal flipped() {
        return new Portal(name, corners.reversed());
    }
}
