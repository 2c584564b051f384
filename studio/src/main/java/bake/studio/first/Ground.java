package bake.studio.first;

import bake.core.math.Vec3;
import bake.formats.project.Project;
import java.util.List;
import java.util.Map;

/** The ground under a model: its own, or one that only catches its shadow. */
final class Ground {
    static final String NAME = "Ground";
    private static final int ALONG = 24;
    /**
     * Share of a model's rim that its own ground covers, and how thick that is at most, as a share of the model's diagonal: a thicker
     * plot is a slab that stands on something and casts a shadow there.
     */
    private static final double COVERED = 0.75, THICK = 0.002;
    /** So much wider than the model, that the end of the ground is never seen. */
    private static final double WIDER = 400;

    private Ground() {}

    /** Whether a model brings its ground along: whether along its rim, seen from above, something low lies. */
    static boolean own(Survey survey, Extent model) {
        double[] s = model.box().size();
        if (Math.min(s[0], s[1]) <= 0) return false;
        Vec3 m = model.middle();
        double above = model.low() + model.height() + 1;
        int covered = 0, all = 0;
        for (int k = 0; k < ALONG; k++)
            for (int side = 0; side < 4; side++) {
                double t = ((k + 0.5) / ALONG - 0.5) * 0.96, rim = (side & 1) == 0 ? 0.48 : -0.48;
                Vec3 p = side < 2 ? new Vec3(m.x() + t * s[0], m.y() + rim * s[1], above)
                        : new Vec3(m.x() + rim * s[0], m.y() + t * s[1], above);
                double down = survey.free(p, Vec3.UP.times(-1));
                all++;
                if (!survey.leaves(down) && above - down <= model.low() + THICK * model.diagonal()) covered++;
            }
        return covered >= COVERED * all;
    }

    /** The project with a ground that catches shadows at a height, metres. */
    static Project laid(Project p, Extent model, double height) {
        Vec3 m = model.middle();
        Project.Surface catcher = Project.Surface.of(NAME, null).withBase(new double[] {0.2, 0.2, 0.2}).withRoughness(1.0)
                .withCatcher(true);
        // A hair under the model: floors that lie on it are not to flicker.
        double z = height - Math.max(1e-4, 1e-4 * model.diagonal());
        Project.Shape disc = new Project.Shape(NAME, "disc", new double[] {m.x(), m.y(), z}, new double[] {WIDER * model.diagonal()}, null,
                NAME, NAME, Map.of());
        return p.withMaterials(List.of(catcher)).withShapes(List.of(disc));
    }
}
