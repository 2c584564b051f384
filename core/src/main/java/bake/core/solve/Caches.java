package bake.core.solve;

import bake.core.cache.IrradianceCache;
import bake.core.cache.RadianceCache;

/**
 * What a picture has cached of its scene's light, or may begin with.
 *
 * @param cells for later bounces, or null
 * @param records for the first bounce, or null
 */
public record Caches(RadianceCache cells, IrradianceCache records) {
    public static final Caches NONE = new Caches(null, null);

    public boolean empty() {
        return cells == null && records == null;
    }
}
