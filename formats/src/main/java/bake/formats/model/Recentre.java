package bake.formats.model;

import bake.core.math.Affine;
import bake.core.math.Vec3;
import bake.core.scene.Camera;
import bake.core.scene.Instance;
import bake.core.scene.Lamp;
import bake.core.scene.Mesh;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Moves a model that lies far from the origin, as surveyed sites do, to it: single precision has no millimetres left there.
 * Meshes whose own coordinates are large are moved within themselves as well.
 */
public final class Recentre {
    /** Distance from which on a model is moved, and the raster of the move, metres. */
    private static final double FAR = 5000, STEP = 100;

    private Recentre() {}

    /** The model, moved where it is far away; a finding says by how much. */
    public static ImportedModel apply(ImportedModel m) {
        Vec3 middle = middle(m);
        if (middle == null || middle.length() < FAR) return m;
        Vec3 by = new Vec3(Math.rint(middle.x() / STEP) * STEP, Math.rint(middle.y() / STEP) * STEP, Math.rint(middle.z() / STEP) * STEP);
        List<Mesh> meshes = new ArrayList<>();
        List<Vec3> own = new ArrayList<>();
        for (Mesh x : m.meshes()) {
            Vec3 c = x.positions().length == 0 ? Vec3.ZERO : new Vec3(x.positions()[0], x.positions()[1], x.positions()[2]);
            if (c.length() < FAR) c = Vec3.ZERO;
            own.add(c);
            meshes.add(c == Vec3.ZERO ? x : moved(x, c));
        }
        List<Instance> instances = new ArrayList<>();
        for (Instance i : m.instances()) {
            Vec3 c = own.get(i.mesh());
            Affine a = Affine.translation(-by.x(), -by.y(), -by.z()).times(i.toWorld()).times(Affine.translation(c.x(), c.y(), c.z()));
            instances.add(new Instance(i.name(), i.mesh(), a, i.layer()));
        }
        List<ImportedModel.NamedCamera> cameras = m.cameras().stream()
                .map(c -> new ImportedModel.NamedCamera(c.name(), moved(c.camera(), by), c.aspect())).toList();
        Affine back = Affine.translation(-by.x(), -by.y(), -by.z());
        List<Lamp> lamps = m.lamps().stream().map(l -> l.withFrame(back.times(l.frame()))).toList();
        List<Finding> findings = new ArrayList<>(m.findings());
        findings.add(new Finding(Finding.Kind.UNITS, m.name(), String.format(Locale.ROOT,
                "lay %.0f, %.0f, %.0f m from the origin and was moved to it", by.x(), by.y(), by.z())));
        return new ImportedModel(m.name(), meshes, instances, m.materials(), m.textures(), m.layers(), cameras, lamps, findings);
    }

    private static Camera moved(Camera c, Vec3 by) {
        return c.at(c.position().minus(by), c.target().minus(by));
    }

    private static Mesh moved(Mesh x, Vec3 c) {
        float[] p = x.positions().clone();
        for (int k = 0; k < p.length; k += 3) {
            p[k] = (float) (p[k] - c.x());
            p[k + 1] = (float) (p[k + 1] - c.y());
            p[k + 2] = (float) (p[k + 2] - c.z());
        }
        return new Mesh(x.name(), p, x.normals(), x.uvs(), x.colours(), x.indices(), x.material());
    }

    /** Middle of the box around one corner of each instance. */
    private static Vec3 middle(ImportedModel m) {
        Vec3 lo = null, hi = null;
        for (Instance i : m.instances()) {
            float[] p = m.meshes().get(i.mesh()).positions();
            if (p.length == 0) continue;
            Vec3 q = i.toWorld().point(new Vec3(p[0], p[1], p[2]));
            lo = lo == null ? q : new Vec3(Math.min(lo.x(), q.x()), Math.min(lo.y(), q.y()), Math.min(lo.z(), q.z()));
            hi = hi == null ? q : new Vec3(Math.max(hi.x(), q.x()), Math.max(hi.y(), q.y()), Math.max(hi.z(), q.z()));
        }
        return lo == null ? null : lo.plus(hi).times(0.5);
    }
}
