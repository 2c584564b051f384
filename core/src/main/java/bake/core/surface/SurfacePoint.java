package bake.core.surface;

import bake.core.geometry.Blas;
import bake.core.geometry.Geometry;
import bake.core.geometry.Ray;
import bake.core.geometry.Rounding;

/**
 * The place where a ray met a triangle: position, frame, and the material's values there. One instance per thread,
 * filled by {@link #load}; the scattering itself is in {@link Scatter}.
 */
public final class SurfacePoint {
    /** Position, metres. */
    public float px, py, pz;
    /** Geometric normal, turned to the side the ray came from. */
    public float gx, gy, gz;
    /** Shading frame: tangent, bitangent, normal; the normal is on the ray's side too. */
    public float tx, ty, tz, bx, by, bz, nx, ny, nz;
    /** Where on its texture. */
    public float textureS, textureT;
    /** Linear base colour. */
    public float baseR, baseG, baseB;
    /** Luminance given off, cd/m2 by colour. */
    public float emitR, emitG, emitB;
    public float metallic, alpha, ior, transmission, translucency;
    /** Widths of the gloss along tangent and bitangent; {@code alpha} is their geometric mean. */
    public float alphaX, alphaY;

    /** Makes gloss rougher where it is narrower than some width; mirrors stay what they are. */
    public void roughen(float least) {
        if (alpha > Scatter.SMOOTH && alpha < least) alpha = alphaX = alphaY = least;
        if (layered && coatAlpha > Scatter.SMOOTH && coatAlpha < least) coatAlpha = least;
    }
    /** Whether the values that follow count. */
    public boolean layered;
    public float specular, specR, specG, specB, coat, coatAlpha, sheenR, sheenG, sheenB, sheenRoughness, turn;
    /** Cosine between the face's and the bent normal. */
    public float bent;
    public int material;
    /** Item and triangle of the geometry. */
    public int item, prim;
    /** True when the ray came from the side the triangle's winding faces. */
    public boolean front;
    /** Whether a bent normal was left out because it looked away from the ray: seen from elsewhere the point may be another. */
    public boolean askew;
    /** Rounding-safe distance to step off the surface. */
    public float offset;

    final float[] texel = new float[4];

    /** Reads the triangle, its attributes and its material at the ray's hit. */
    public void load(Geometry geometry, SurfaceTable table, Ray ray) {
        Blas b = geometry.blas(ray.item);
        int prim = ray.prim, o = Blas.first(prim);
        item = ray.item;
        this.prim = prim;
        float[] c = b.packets();
        float u = ray.u, v = ray.v, w = 1 - u - v;
        float ax = c[o + 12] - c[o], ay = c[o + 16] - c[o + 4], az = c[o + 20] - c[o + 8], ex = c[o + 24] - c[o], ey = c[o + 28] - c[o + 4],
                ez = c[o + 32] - c[o + 8];
        px = c[o] + u * ax + v * ex;
        py = c[o + 4] + u * ay + v * ey;
        pz = c[o + 8] + u * az + v * ez;
        gx = ay * ez - az * ey;
        gy = az * ex - ax * ez;
        gz = ax * ey - ay * ex;
        int[] vx = b.vertices();
        int i = vx[3 * prim], j = vx[3 * prim + 1], k = vx[3 * prim + 2];
        float[] n = b.normals();
        nx = w * n[3 * i] + u * n[3 * j] + v * n[3 * k];
        ny = w * n[3 * i + 1] + u * n[3 * j + 1] + v * n[3 * k + 1];
        nz = w * n[3 * i + 2] + u * n[3 * j + 2] + v * n[3 * k + 2];
        float[] uv = b.uvs();
        float s = w * uv[2 * i] + u * uv[2 * j] + v * uv[2 * k];
        float t = w * uv[2 * i + 1] + u * uv[2 * j + 1] + v * uv[2 * k + 1];
        textureS = s;
        textureT = t;
        tangent(ax, ay, az, ex, ey, ez, uv[2 * j] - uv[2 * i], uv[2 * j + 1] - uv[2 * i + 1], uv[2 * k] - uv[2 * i],
                uv[2 * k + 1] - uv[2 * i + 1]);
        float edge = Math.max(largest(ax, ay, az), largest(ex, ey, ez)), far = 0;
        if (!geometry.isWorld(ray.item)) {
            toWorld(geometry, ray.item);
            edge *= geometry.scale(ray.item);
            far = geometry.farthest(ray.item);
        }
        offset = Rounding.offset(largest(px, py, pz) + far, edge);
        float l = 1 / (float) Math.sqrt(gx * gx + gy * gy + gz * gz);
        gx *= l;
        gy *= l;
        gz *= l;
        material = b.materials()[prim];
        float spread = table.pictured[material] ? footprint(ray) : -100;
        SurfaceValues.read(this, table, s, t, spread);
        float[] tint = b.colours();
        if (tint.length > 0) tint(tint, 3 * i, 3 * j, 3 * k, w, u, v);
        orient(ray);
        int im = SurfaceTable.IMAGES * material, o2 = SurfaceTable.STRIDE * material;
        TextureLookup map = table.images[im + SurfaceTable.NORMAL_IMAGE], height = table.images[im + SurfaceTable.HEIGHT_IMAGE];
        if (height != null) raise(height, s, t, spread, table.values[o2 + SurfaceTable.HEIGHT], ray);
        frame();
        if (map != null) bend(map, s, t, spread, table.values[o2 + SurfaceTable.NORMAL_SCALE], ray);
        if (layered && turn != 0) rotate();
        bent = nx * gx + ny * gy + nz * gz;
    }

    private static float largest(float x, float y, float z) {
        return Math.max(Math.abs(x), Math.max(Math.abs(y), Math.abs(z)));
    }

    private void tint(float[] c, int i, int j, int k, float w, float u, float v) {
        baseR *= w * c[i] + u * c[j] + v * c[k];
        baseG *= w * c[i + 1] + u * c[j + 1] + v * c[k + 1];
        baseB *= w * c[i + 2] + u * c[j + 2] + v * c[k + 2];
    }

    /** Reads only the true face's normal at the ray's hit, turned to the side the ray came from; nothing else is set. */
    public void face(Geometry geometry, Ray ray) {
        Blas b = geometry.blas(ray.item);
        int p = ray.prim;
        float ax = b.edge(p, 1, 0), ay = b.edge(p, 1, 1), az = b.edge(p, 1, 2), ex = b.edge(p, 2, 0), ey = b.edge(p, 2, 1),
                ez = b.edge(p, 2, 2);
        gx = ay * ez - az * ey;
        gy = az * ex - ax * ez;
        gz = ax * ey - ay * ex;
        if (!geometry.isWorld(ray.item)) toWorld(geometry, ray.item);
        float l = 1 / (float) Math.sqrt(gx * gx + gy * gy + gz * gz);
        if (gx * ray.dx + gy * ray.dy + gz * ray.dz > 0) l = -l;
        gx *= l;
        gy *= l;
        gz *= l;
    }

    /**
     * Binary logarithm of the side of the ray's footprint in texture coordinates, by ray cones (Akenine-Moeller et al. 2021);
     * milder at grazing angles, since one number must serve both directions.
     */
    private float footprint(Ray ray) {
        float wide = ray.width + ray.spread * ray.t;
        float x = ty * bz - tz * by, y = tz * bx - tx * bz, z = tx * by - ty * bx, area = (float) Math.sqrt(x * x + y * y + z * z);
        if (!(wide > 0) || !(area > 1e-20f)) return -100;
        float cos = Math.max(0.02f, Math.abs(gx * ray.dx + gy * ray.dy + gz * ray.dz));
        return 0.5f * log2(wide * wide / (area * cos));
    }

    /** Derivatives of the position along the texture coordinates. */
    private void tangent(float ax, float ay, float az, float ex, float ey, float ez, float du1, float dv1, float du2, float dv2) {
        float det = du1 * dv2 - du2 * dv1;
        float r = Math.abs(det) > 1e-20f ? 1 / det : 0;
        tx = r * (dv2 * ax - dv1 * ex);
        ty = r * (dv2 * ay - dv1 * ey);
        tz = r * (dv2 * az - dv1 * ez);
        bx = r * (du1 * ex - du2 * ax);
        by = r * (du1 * ey - du2 * ay);
        bz = r * (du1 * ez - du2 * az);
    }

    private void toWorld(Geometry g, int item) {
        float x = px, y = py, z = pz;
        px = g.toWorld(item, 0) * x + g.toWorld(item, 1) * y + g.toWorld(item, 2) * z + g.toWorld(item, 3);
        py = g.toWorld(item, 4) * x + g.toWorld(item, 5) * y + g.toWorld(item, 6) * z + g.toWorld(item, 7);
        pz = g.toWorld(item, 8) * x + g.toWorld(item, 9) * y + g.toWorld(item, 10) * z + g.toWorld(item, 11);
        x = tx;
        y = ty;
        z = tz;
        tx = g.toWorld(item, 0) * x + g.toWorld(item, 1) * y + g.toWorld(item, 2) * z;
        ty = g.toWorld(item, 4) * x + g.toWorld(item, 5) * y + g.toWorld(item, 6) * z;
        tz = g.toWorld(item, 8) * x + g.toWorld(item, 9) * y + g.toWorld(item, 10) * z;
        x = bx;
        y = by;
        z = bz;
        bx = g.toWorld(item, 0) * x + g.toWorld(item, 1) * y + g.toWorld(item, 2) * z;
        by = g.toWorld(item, 4) * x + g.toWorld(item, 5) * y + g.toWorld(item, 6) * z;
        bz = g.toWorld(item, 8) * x + g.toWorld(item, 9) * y + g.toWorld(item, 10) * z;
        // Normals follow the inverse transpose.
        x = gx;
        y = gy;
        z = gz;
        gx = g.toLocal(item, 0) * x + g.toLocal(item, 4) * y + g.toLocal(item, 8) * z;
        gy = g.toLocal(item, 1) * x + g.toLocal(item, 5) * y + g.toLocal(item, 9) * z;
        gz = g.toLocal(item, 2) * x + g.toLocal(item, 6) * y + g.toLocal(item, 10) * z;
        x = nx;
        y = ny;
        z = nz;
        nx = g.toLocal(item, 0) * x + g.toLocal(item, 4) * y + g.toLocal(item, 8) * z;
        ny = g.toLocal(item, 1) * x + g.toLocal(item, 5) * y + g.toLocal(item, 9) * z;
        nz = g.toLocal(item, 2) * x + g.toLocal(item, 6) * y + g.toLocal(item, 10) * z;
    }

    /** Turns both normals to the ray's side; a vertex normal that looks away there is replaced by the face's. */
    private void orient(Ray ray) {
        float toward = -(gx * ray.dx + gy * ray.dy + gz * ray.dz);
        front = toward >= 0;
        askew = false;
        float sn = nx * gx + ny * gy + nz * gz; // before turning: which side the vertex normal belongs to
        if (!front) {
            gx = -gx;
            gy = -gy;
            gz = -gz;
            sn = -sn;
        }
        if (sn < 0) {
            nx = -nx;
            ny = -ny;
            nz = -nz;
        }
        float l = nx * nx + ny * ny + nz * nz;
        if (l > 1e-12f) {
            l = 1 / (float) Math.sqrt(l);
            nx *= l;
            ny *= l;
            nz *= l;
        } else setNormal(gx, gy, gz);
        if (-(nx * ray.dx + ny * ray.dy + nz * ray.dz) < 1e-3f) {
            setNormal(gx, gy, gz);
            askew = true;
        }
    }

    private void setNormal(float x, float y, float z) {
        nx = x;
        ny = y;
        nz = z;
    }

    /** Makes tangent and bitangent fit the normal, keeping the handedness of the texture coordinates. */
    private void frame() {
        float d = tx * nx + ty * ny + tz * nz;
        float x = tx - d * nx, y = ty - d * ny, z = tz - d * nz, l = x * x + y * y + z * z;
        if (l < 1e-16f) { // no usable texture coordinates: any frame (Duff et al. 2017, JCGT 6(1))
            float sign = Math.copySign(1, nz), a = -1 / (sign + nz), b = nx * ny * a;
            tx = 1 + sign * nx * nx * a;
            ty = sign * b;
            tz = -sign * nx;
            bx = b;
            by = sign + ny * ny * a;
            bz = -ny;
            return;
        }
        l = 1 / (float) Math.sqrt(l);
        tx = x * l;
        ty = y * l;
        tz = z * l;
        float cx = ny * tz - nz * ty, cy = nz * tx - nx * tz, cz = nx * ty - ny * tx;
        float side = cx * bx + cy * by + cz * bz < 0 ? -1 : 1;
        bx = cx * side;
        by = cy * side;
        bz = cz * side;
    }

    /** Applies a tangent-space normal map; glTF's green points to smaller v, which is against the bitangent here. */
    private void bend(TextureLookup map, float s, float t, float spread, float scale, Ray ray) {
        map.colour(s, t, spread, texel);
        float x = (2 * texel[0] - 1) * scale, y = (1 - 2 * texel[1]) * scale, z = Math.max(2 * texel[2] - 1, 1e-3f);
        float ax = x * tx + y * bx + z * nx, ay = x * ty + y * by + z * ny, az = x * tz + y * bz + z * nz;
        float l = 1 / (float) Math.sqrt(ax * ax + ay * ay + az * az);
        ax *= l;
        ay *= l;
        az *= l;
        if (-(ax * ray.dx + ay * ray.dy + az * ray.dz) < 1e-2f) {
            askew = true;
            return;
        }
        setNormal(ax, ay, az);
        frame();
    }

    /**
     * Tilts the normal by the slope of a height picture (Blinn 1978, in the form of Mikkelsen 2010, "Bump Mapping Unparametrized
     * Surfaces").
     */
    private void raise(TextureLookup map, float s, float t, float spread, float metres, Ray ray) {
        map.slope(s, t, spread, texel);
        float du = texel[0] * metres, dv = texel[1] * metres;
        float rx = by * nz - bz * ny, ry = bz * nx - bx * nz, rz = bx * ny - by * nx; // bitangent x normal
        float qx = ny * tz - nz * ty, qy = nz * tx - nx * tz, qz = nx * ty - ny * tx; // normal x tangent
        float det = tx * rx + ty * ry + tz * rz;
        if (!(Math.abs(det) > 1e-12f)) return;
        float k = 1 / det, ax = nx - k * (du * rx + dv * qx), ay = ny - k * (du * ry + dv * qy), az = nz - k * (du * rz + dv * qz);
        tilt(ax, ay, az, ray);
    }

    /** Takes a bent normal, unless the ray comes from behind it. */
    void tilt(float ax, float ay, float az, Ray ray) {
        float l = 1 / (float) Math.sqrt(ax * ax + ay * ay + az * az);
        if (-(ax * ray.dx + ay * ray.dy + az * ray.dz) * l < 1e-2f) {
            askew = true;
            return;
        }
        setNormal(ax * l, ay * l, az * l);
    }

    /** Takes a bent normal, and fits the frame to it. */
    public void round(float ax, float ay, float az, Ray ray) {
        tilt(ax, ay, az, ray);
        frame();
        bent = nx * gx + ny * gy + nz * gz;
    }

    private void rotate() {
        float c = (float) Math.cos(turn), s = (float) Math.sin(turn), x = tx, y = ty, z = tz;
        tx = c * x + s * bx;
        ty = c * y + s * by;
        tz = c * z + s * bz;
        bx = c * bx - s * x;
        by = c * by - s * y;
        bz = c * bz - s * z;
    }

    /** Binary logarithm, within 0.09: the mantissa stands for its own. */
    private static float log2(float x) {
        int bits = Float.floatToRawIntBits(x);
        return ((bits >> 23) - 127) + (bits & 0x7fffff) * 0x1p-23f;
    }

    /** Makes the surface matt and opaque, of a reflectance that may be above one. */
    public void matt(float r, float g, float b) {
        baseR = r;
        baseG = g;
        baseB = b;
        emitR = emitG = emitB = metallic = transmission = translucency = 0;
        alpha = alphaX = alphaY = 1;
        layered = false;
        ior = 1;
    }

    /** An ideal matt white plane at a point, facing a normal: what a light meter's cell is. */
    public void setMeter(float x, float y, float z, float ux, float uy, float uz) {
        px = x;
        py = y;
        pz = z;
        gx = ux;
        gy = uy;
        gz = uz;
        setNormal(ux, uy, uz);
        tx = ty = tz = 0;
        frame();
        matt(1, 1, 1);
        bent = 1;
        material = -1;
        front = true;
        // Meters are laid onto surfaces by hand, to a tenth of a millimetre or so.
        offset = 4e-5f * Math.max(1, largest(px, py, pz));
    }
}
