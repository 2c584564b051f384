package bake.core.cache;

/** Whether nothing stands between two places, the first of a surface with a normal. One a thread. */
public interface Sight {
    boolean clear(float x, float y, float z, float nx, float ny, float nz, float tx, float ty, float tz);
}
