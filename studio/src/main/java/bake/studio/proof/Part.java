package bake.studio.proof;

import bake.formats.project.Project;
import bake.formats.project.View;
import java.util.ArrayList;
import java.util.List;

/** A part of how a proof was made, which can be taken back from it alone. */
public enum Part {
    PRESET("Preset"), LIGHT("Light"), VIEW("View"), MATERIALS("Materials"), LAYERS("Layers"), MODEL("Model");

    private final String word;

    Part(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    /**
     * A project with some parts as they were when a proof was made. Presets belong to no project's light and are left to the caller. A view
     * that is no longer there comes back beside the others.
     *
     * @param then the proof's project, or null for an older proof, of which only the view is known
     */
    public static Project back(Project now, Proof proof, Project then, List<Part> parts) {
        Project p = now;
        if (then != null) {
            if (parts.contains(LIGHT)) p = p.withLamps(then.lamps()).withPlace(then.place());
            if (parts.contains(MATERIALS)) p = p.withMaterials(then.materials()).withEfforts(then.efforts());
            if (parts.contains(LAYERS)) p = p.withLayers(then.layers());
            if (parts.contains(MODEL)) p = p.withModels(then.models()).withShapes(then.shapes()).withPortals(then.portals());
        }
        if (!parts.contains(LIGHT) && !parts.contains(VIEW)) return p;
        View was = proof.view(), is = p.view(was.name());
        View made = is == null || parts.contains(LIGHT) && parts.contains(VIEW) ? was : parts.contains(LIGHT) ? is.withLightOf(was)
                : was.withLightOf(is);
        List<View> views = new ArrayList<>(p.views());
        if (is != null) views.set(views.indexOf(is), made);
        else views.add(made);
        return p.withViews(List.copyOf(views)).withCurrent(made.name());
    }
}
