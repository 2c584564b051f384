package bake.formats.foreign;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.Locale;

/** One and the same house of boxes, written in five formats by hand: metres, z up where the format has a say, matt colours. */
public final class OneHouse {
    /** A box of one material. */
    record Part(String name, int material, double[] low, double[] high) {}

    static final String[] MATERIALS = {"plaster", "tile", "timber"};
    static final double[][] COLOURS = {{0.8, 0.78, 0.7}, {0.45, 0.16, 0.1}, {0.3, 0.2, 0.12}};
    static final List<Part> PARTS = List.of(new Part("Floor", 2, new double[] {0, 0, -0.2}, new double[] {8, 6, 0}),
            new Part("West", 0, new double[] {0, 0, 0}, new double[] {0.3, 6, 3}), new Part("East", 0, new double[] {7.7, 0, 0}, new double[] {8, 6, 3}),
            new Part("North", 0, new double[] {0.3, 5.7, 0}, new double[] {7.7, 6, 3}), new Part("Left", 0, new double[] {0.3, 0, 0}, new double[] {3, 0.3, 3}),
            new Part("Right", 0, new double[] {5, 0, 0}, new double[] {7.7, 0.3, 3}), new Part("Roof", 1, new double[] {-0.5, -0.5, 3}, new double[] {8.5, 6.5, 3.3}),
            new Part("Table", 2, new double[] {3, 2, 0.7}, new double[] {5, 3, 0.76}));
    private static final int[][] FACES = {{0, 3, 2, 1}, {4, 5, 6, 7}, {0, 1, 5, 4}, {1, 2, 6, 5}, {2, 3, 7, 6}, {3, 0, 4, 7}};

    private OneHouse() {}

    private static double[] corner(Part p, int k) {
        boolean right = k == 1 || k == 2 || k == 5 || k == 6, back = k == 2 || k == 3 || k == 6 || k == 7;
        return new double[] {right ? p.high[0] : p.low[0], back ? p.high[1] : p.low[1], k > 3 ? p.high[2] : p.low[2]};
    }

    private static String f(String format, Object... values) {
        return String.format(Locale.ROOT, format, values);
    }

    /** Writes all five into a folder. */
    public static List<Path> write(Path folder) throws IOException {
        Files.writeString(folder.resolve("house.mtl"), mtl());
        return List.of(Files.writeString(folder.resolve("house.obj"), obj()), Files.writeString(folder.resolve("house.gltf"), gltf()),
                Files.writeString(folder.resolve("house.dae"), dae()), Files.writeString(folder.resolve("house.fbx"), fbx()),
                Files.writeString(folder.resolve("house.ifc"), ifc()));
    }

    private static String mtl() {
        StringBuilder b = new StringBuilder();
        for (int i = 0; i < 3; i++) b.append(f("newmtl %s\nKd %g %g %g\n", MATERIALS[i], COLOURS[i][0], COLOURS[i][1], COLOURS[i][2]));
        return b.toString();
    }

    private static String obj() {
        StringBuilder b = new StringBuilder("mtllib house.mtl\n");
        int n = 1;
        for (Part p : PARTS) {
            b.append("o ").append(p.name).append("\nusemtl ").append(MATERIALS[p.material]).append('\n');
            for (int k = 0; k < 8; k++) b.append(f("v %g %g %g\n", corner(p, k)[0], corner(p, k)[2], -corner(p, k)[1]));
            for (int[] q : FACES) b.append(f("f %d %d %d %d\n", n + q[0], n + q[1], n + q[2], n + q[3]));
            n += 8;
        }
        return b.toString();
    }

    private static String gltf() {
        StringBuilder nodes = new StringBuilder(), meshes = new StringBuilder(), accessors = new StringBuilder(),
                views = new StringBuilder(),
                roots = new StringBuilder(), materials = new StringBuilder();
        ByteBuffer data = ByteBuffer.allocate(PARTS.size() * 36 * 12).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < PARTS.size(); i++) {
            Part p = PARTS.get(i);
            String comma = i == 0 ? "" : ",";
            for (int[] q : FACES) for (int k : new int[] {0, 1, 2, 0, 2, 3}) {
                double[] c = corner(p, q[k]);
                data.putFloat((float) c[0]).putFloat((float) c[2]).putFloat((float) -c[1]);
            }
            nodes.append(f("%s{\"name\":\"%s\",\"mesh\":%d}", comma, p.name, i));
            meshes.append(f("%s{\"primitives\":[{\"attributes\":{\"POSITION\":%d},\"material\":%d}]}", comma, i, p.material));
            accessors.append(f("%s{\"bufferView\":%d,\"componentType\":5126,\"count\":36,\"type\":\"VEC3\"}", comma, i));
            views.append(f("%s{\"buffer\":0,\"byteOffset\":%d,\"byteLength\":432}", comma, 432 * i));
            roots.append(comma).append(i);
        }
        for (int i = 0; i < 3; i++) materials.append(f("%s{\"name\":\"%s\",\"pbrMetallicRoughness\":{\"baseColorFactor\":[%g,%g,%g,1],"
                + "\"metallicFactor\":0,\"roughnessFactor\":0.7}}", i == 0 ? "" : ",", MATERIALS[i], COLOURS[i][0], COLOURS[i][1], COLOURS[i][2]));
        return "{\"asset\":{\"version\":\"2.0\"},\"scene\":0,\"scenes\":[{\"nodes\":[" + roots + "]}],\"nodes\":[" + nodes + "],\"meshes\":["
                + meshes + "],\"accessors\":[" + accessors + "],\"bufferViews\":[" + views + "],\"buffers\":[{\"byteLength\":" + data.capacity()
                + ",\"uri\":\"data:application/octet-stream;base64," + Base64.getEncoder().encodeToString(data.array()) + "\"}],\"materials\":["
                + materials + "]}";
    }

    private static String dae() {
        StringBuilder effects = new StringBuilder(), materials = new StringBuilder(), geometries = new StringBuilder(),
                nodes = new StringBuilder();
        for (int i = 0; i < 3; i++) {
            effects.append(f("<effect id='e%d'><profile_COMMON><technique sid='t'><lambert><diffuse><color>%g %g %g 1</color></diffuse></lambert>"
                    + "</technique></profile_COMMON></effect>", i, COLOURS[i][0], COLOURS[i][1], COLOURS[i][2]));
            materials.append(f("<material id='%s' name='%s'><instance_effect url='#e%d'/></material>", MATERIALS[i], MATERIALS[i], i));
        }
        for (Part p : PARTS) {
            StringBuilder at = new StringBuilder(), order = new StringBuilder();
            for (int k = 0; k < 8; k++) at.append(f("%g %g %g ", corner(p, k)[0], corner(p, k)[1], corner(p, k)[2]));
            for (int[] q : FACES) for (int k : q) order.append(k).append(' ');
            geometries.append(f("<geometry id='g%1$s' name='%1$s'><mesh><source id='s%1$s'><float_array id='a%1$s' count='24'>%2$s</float_array>"
                    + "<technique_common><accessor source='#a%1$s' count='8' stride='3'><param name='X' type='float'/><param name='Y' type='float'/>"
                    + "<param name='Z' type='float'/></accessor></technique_common></source><vertices id='v%1$s'><input semantic='POSITION' "
                    + "source='#s%1$s'/></vertices><polylist material='m' count='6'><input semantic='VERTEX' source='#v%1$s' offset='0'/>"
                    + "<vcount>4 4 4 4 4 4</vcount><p>%3$s</p></polylist></mesh></geometry>", p.name, at, order));
            nodes.append(f("<node id='n%1$s' name='%1$s'><instance_geometry url='#g%1$s'><bind_material><technique_common><instance_material "
                    + "symbol='m' target='#%2$s'/></technique_common></bind_material></instance_geometry></node>", p.name, MATERIALS[p.material]));
        }
        return "<?xml version='1.0'?><COLLADA xmlns='http://www.collada.org/2005/11/COLLADASchema' version='1.4.1'><asset><unit meter='1'/>"
                + "<up_axis>Z_UP</up_axis></asset><library_effects>" + effects + "</library_effects><library_materials>" + materials
                + "</library_materials><library_geometries>" + geometries + "</library_geometries><library_visual_scenes><visual_scene id='s'>"
                + nodes + "</visual_scene></library_visual_scenes><scene><instance_visual_scene url='#s'/></scene></COLLADA>";
    }

    private static String fbx() {
        StringBuilder objects = new StringBuilder(), links = new StringBuilder();
        for (int i = 0; i < 3; i++) objects.append(f("Material: %d, \"Material::%s\", \"\" {\n Version: 102\n ShadingModel: \"lambert\"\n Properties70: {\n"
                + "  P: \"DiffuseColor\", \"Color\", \"\", \"A\",%g,%g,%g\n }\n}\n", 900 + i, MATERIALS[i], COLOURS[i][0], COLOURS[i][1], COLOURS[i][2]));
        for (int i = 0; i < PARTS.size(); i++) {
            Part p = PARTS.get(i);
            StringBuilder at = new StringBuilder(), order = new StringBuilder();
            for (int k = 0; k < 8; k++) at.append(f("%s%g,%g,%g", k == 0 ? "" : ",", corner(p, k)[0], corner(p, k)[1], corner(p, k)[2]));
            for (int[] q : FACES) order.append(f("%s%d,%d,%d,%d", order.isEmpty() ? "" : ",", q[0], q[1], q[2], -q[3] - 1));
            objects.append(f("Geometry: %d, \"Geometry::%s\", \"Mesh\" {\n Vertices: *24 {\n  a: %s\n }\n PolygonVertexIndex: *24 {\n  a: %s\n }\n"
                    + " GeometryVersion: 124\n LayerElementMaterial: 0 {\n  Version: 101\n  Name: \"\"\n  MappingInformationType: \"AllSame\"\n"
                    + "  ReferenceInformationType: \"IndexToDirect\"\n  Materials: *1 {\n   a: 0\n  }\n }\n Layer: 0 {\n  Version: 100\n  LayerElement:  {\n"
                    + "   Type: \"LayerElementMaterial\"\n   TypedIndex: 0\n  }\n }\n}\n", 100 + i, p.name, at, order));
            objects.append(f("Model: %d, \"Model::%s\", \"Mesh\" {\n Version: 232\n Shading: T\n Culling: \"CullingOff\"\n}\n", 200 + i, p.name));
            links.append(f(" C: \"OO\",%d,%d\n C: \"OO\",%d,0\n C: \"OO\",%d,%d\n", 100 + i, 200 + i, 200 + i, 900 + p.material, 200 + i));
        }
        return "; FBX 7.4.0 project file\nFBXHeaderExtension:  {\n FBXHeaderVersion: 1003\n FBXVersion: 7400\n}\nGlobalSettings:  {\n Version: 1000\n"
                + " Properties70:  {\n  P: \"UpAxis\", \"int\", \"Integer\", \"\",2\n  P: \"UpAxisSign\", \"int\", \"Integer\", \"\",1\n"
                + "  P: \"FrontAxis\", \"int\", \"Integer\", \"\",1\n  P: \"FrontAxisSign\", \"int\", \"Integer\", \"\",-1\n"
                + "  P: \"CoordAxis\", \"int\", \"Integer\", \"\",0\n  P: \"CoordAxisSign\", \"int\", \"Integer\", \"\",1\n"
                + "  P: \"UnitScaleFactor\", \"double\", \"Number\", \"\",100\n }\n}\nObjects:  {\n" + objects + "}\nConnections:  {\n" + links + "}\n";
    }

    private static String ifc() {
        StringBuilder b = new StringBuilder("ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\nFILE_NAME('','',(''),(''),'','','');\n"
                + "FILE_SCHEMA(('IFC2X3'));\nENDSEC;\nDATA;\n#1=IFCCARTESIANPOINT((0.,0.,0.));\n#2=IFCAXIS2PLACEMENT3D(#1,$,$);\n"
                + "#10=IFCPERSON($,'','',$,$,$,$,$);\n#11=IFCORGANIZATION($,'-',$,$,$);\n#12=IFCPERSONANDORGANIZATION(#10,#11,$);\n"
                + "#13=IFCAPPLICATION(#11,'1','-','-');\n#14=IFCOWNERHISTORY(#12,#13,$,.ADDED.,$,$,$,0);\n#3=IFCGEOMETRICREPRESENTATIONCONTEXT($,'Model',3,1.E-5,#2,$);\n#4=IFCSIUNIT(*,.LENGTHUNIT.,$,.METRE.);\n#5=IFCUNITASSIGNMENT((#4));\n"
                + "#6=IFCPROJECT('0000000000000000000001',#14,'House',$,$,$,$,(#3),#5);\n#7=IFCLOCALPLACEMENT($,#2);\n"
                + "#8=IFCBUILDING('0000000000000000000002',#14,'House',$,$,#7,$,$,.ELEMENT.,$,$,$);\n"
                + "#9=IFCRELAGGREGATES('0000000000000000000003',#14,$,$,#6,(#8));\n");
        for (int i = 0; i < 3; i++) b.append(f("#%d=IFCCOLOURRGB($,%g,%g,%g);\n#%d=IFCSURFACESTYLERENDERING(#%d,0.,$,$,$,$,$,$,.MATT.);\n"
                + "#%d=IFCSURFACESTYLE('%s',.BOTH.,(#%d));\n#%d=IFCPRESENTATIONSTYLEASSIGNMENT((#%d));\n", 20 + 4 * i, COLOURS[i][0], COLOURS[i][1],
                COLOURS[i][2], 21 + 4 * i, 20 + 4 * i, 22 + 4 * i, MATERIALS[i], 21 + 4 * i, 23 + 4 * i, 22 + 4 * i));
        int n = 100;
        StringBuilder all = new StringBuilder();
        for (Part p : PARTS) {
            int first = n;
            for (int k = 0; k < 8; k++) b.append(f("#%d=IFCCARTESIANPOINT((%g,%g,%g));\n", n++, corner(p, k)[0], corner(p, k)[1], corner(p, k)[2]));
            StringBuilder faces = new StringBuilder();
            for (int[] q : FACES) {
                b.append(f("#%d=IFCPOLYLOOP((#%d,#%d,#%d,#%d));\n#%d=IFCFACEOUTERBOUND(#%d,.T.);\n#%d=IFCFACE((#%d));\n", n, first + q[0], first + q[1],
                        first + q[2], first + q[3], n + 1, n, n + 2, n + 1));
                faces.append(faces.isEmpty() ? "#" : ",#").append(n + 2);
                n += 3;
            }
            b.append(f("#%d=IFCCLOSEDSHELL((%s));\n#%d=IFCFACETEDBREP(#%d);\n#%d=IFCSTYLEDITEM(#%d,(#%d),$);\n#%d=IFCSHAPEREPRESENTATION(#3,'Body','Brep',"
                    + "(#%d));\n#%d=IFCPRODUCTDEFINITIONSHAPE($,$,(#%d));\n#%d=IFCBUILDINGELEMENTPROXY('%022d',#14,'%s',$,$,#7,#%d,$,$);\n", n, faces, n + 1, n,
                    n + 2, n + 1, 23 + 4 * p.material, n + 3, n + 1, n + 4, n + 3, n + 5, n, p.name, n + 4));
            all.append(all.isEmpty() ? "#" : ",#").append(n + 5);
            n += 6;
        }
        b.append(f("#%d=IFCRELCONTAINEDINSPATIALSTRUCTURE('0000000000000000000004',#14,$,$,(%s),#8);\nENDSEC;\nEND-ISO-10303-21;\n", n, all));
        return b.toString().replaceAll("e\\+?(-?)0*(\\d+)", "E$1$2");
    }
}
