package bake.formats.model;

import bake.core.math.Srgb;
import bake.formats.FormatException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The faces of an OBJ file as triangles, parted by group or object and by material. A group or object statement does not change the
 * material, nor the other way round (Wavefront's "Object Files", appendix B1 of the Advanced Visualizer manual; from memory).
 */
final class ObjParts {
    /** Triangles of one group and one material; of each corner the numbers of its place, uv and normal, -1 for none. */
    static final class Part {
        final String group, material;
        final Numbers.Ints corners = new Numbers.Ints();

        Part(String group, String material) {
            this.group = group;
            this.material = material;
        }
    }

    final Numbers.Doubles places = new Numbers.Doubles(), uvs = new Numbers.Doubles(), normals = new Numbers.Doubles(),
            colours = new Numbers.Doubles();
    final Map<String, Part> parts = new LinkedHashMap<>();
    final List<String> libraries = new ArrayList<>();
    private final String file;
    private final List<Finding> findings;
    private final Numbers.Ints face = new Numbers.Ints();
    private final int[] three = new int[3];
    private String group, material = "";
    private Part part;
    private int leftOut, firstLeftOut, oddNumbers, firstOdd, freeForm;
    private String firstOddText;

    ObjParts(String file, List<Finding> findings) {
        this.file = file;
        this.findings = findings;
        group = file;
    }

    void read(byte[] bytes) throws FormatException {
        ObjText t = new ObjText(bytes);
        while (t.line()) if (t.word()) statement(t);
        if (parts.isEmpty() && oddNumbers > 0) throw new FormatException(file, "line " + firstOdd, "'" + firstOddText
                + "' is no number, and no face is left without such; export the file again");
        if (parts.isEmpty()) throw new FormatException(file, leftOut > 0 ? "line " + firstLeftOut : null,
                leftOut > 0 ? "its faces do not fit its vertices; export the file again" : "holds no faces; export it again");
        if (leftOut > 0) findings.add(new Finding(Finding.Kind.NOT_READ, file, leftOut
                + (leftOut == 1 ? " face names" : " faces name") + " vertices that are not there, first in line " + firstLeftOut));
        if (oddNumbers > 0) findings.add(new Finding(Finding.Kind.BROKEN_VALUES, file, oddNumbers + (oddNumbers == 1 ? " number" : " numbers")
                + " cannot be read, first '" + firstOddText + "' in line " + firstOdd + "; faces there are left out"));
        if (freeForm > 0) findings.add(new Finding(Finding.Kind.NOT_READ, file, "free-form curves and surfaces; export them as polygons"));
    }

    private void statement(ObjText t) {
        if (t.is("v")) vertex(t);
        else if (t.is("vt")) numbers(t, uvs, 2);
        else if (t.is("vn")) numbers(t, normals, 3);
        else if (t.is("f") || t.is("fo")) face(t);
        else if (t.is("g") || t.is("o")) {
            String name = t.rest();
            group = name.isEmpty() ? file : name;
            part = null;
        } else if (t.is("usemtl")) {
            material = t.rest();
            part = null;
        } else if (t.is("mtllib")) libraries.add(t.rest());
        else if (t.is("curv") || t.is("surf")) freeForm++;
    }

    /** A place, perhaps with a colour after it in display values, as many programs write it (common practice, no source). */
    private void vertex(ObjText t) {
        int before = places.n;
        numbers(t, places, 3);
        double[] c = new double[4];
        int n = 0;
        while (n < 4 && t.word()) c[n++] = t.value();
        // One or four more numbers are a weight, which only free-form surfaces use.
        if (n != 3 || !(c[0] >= 0 && c[1] >= 0 && c[2] >= 0)) return;
        while (colours.n < before) colours.add(1);
        for (int k = 0; k < 3; k++) colours.add(Srgb.decode(Math.min(1, c[k])));
    }

    private void numbers(ObjText t, Numbers.Doubles into, int count) {
        for (int k = 0; k < count; k++) {
            double v = Double.NaN;
            if (t.word()) {
                v = t.value();
                if (!Double.isFinite(v) && oddNumbers++ == 0) {
                    firstOdd = t.number();
                    firstOddText = t.text();
                }
            } else if (into == uvs && k == 1) v = 0;
            into.add(Double.isFinite(v) && Math.abs(v) < 1e30 ? v : Double.NaN);
        }
    }

    private void face(ObjText t) {
        face.n = 0;
        boolean fits = true;
        while (t.word()) {
            fits &= t.slashed(three);
            int v = index(three[0], places.n / 3), vt = index(three[1], uvs.n / 2), vn = index(three[2], normals.n / 3);
            fits &= v >= 0;
            if (v >= 0 && Double.isNaN(places.a[3 * v] + places.a[3 * v + 1] + places.a[3 * v + 2])) return; // said where it was read
            face.add(v);
            face.add(vt);
            face.add(vn);
        }
        if (!fits || face.n < 9) {
            if (leftOut++ == 0) firstLeftOut = t.number();
            return;
        }
        if (part == null) part = parts.computeIfAbsent(group + "\0" + material, k -> new Part(group, material));
        if (face.n == 9) for (int k = 0; k < 9; k++) part.corners.add(face.a[k]);
        else {
            double[] xyz = new double[face.n];
            for (int k = 0; k < face.n; k += 3) for (int c = 0; c < 3; c++) xyz[k + c] = places.a[3 * face.a[k] + c];
            for (int corner : Polygons.triangles(xyz)) for (int c = 0; c < 3; c++) part.corners.add(face.a[3 * corner + c]);
        }
    }

    /** From counting from 1, or backwards from the last one; -1 for none and for one that is not there. */
    private static int index(int written, int there) {
        int i = written > 0 ? written - 1 : written < 0 ? there + written : -1;
        return i < there ? Math.max(-1, i) : -1;
    }
}
