package bake.core.solve;

import bake.core.cache.IrradianceCache;
import bake.core.cache.PhotonMap;
import bake.core.cache.RadianceCache;

/**
 * What a picture has cached of its scene's light, or may begin with.
 *
 * @param cells for later bounces, or null
 * @param records for the first bounce, or null
 * @param photons for later bounces, or null
 * @param caustics photons that came by smooth surfaces, or null
 */
public record Caches(RadianceCache cells, IrradianceCache records, PhotonMap photons, PhotonMap caustics) {
    public static final Caches NONE = new Caches(null, null, null, null);

    public Caches(RadianceCache cells, IrradianceCache records) {
        this(cells, records, null, null);
    }

    public boolean empty() {
        return cells == null && records == null && photons == null && caustics == null;
    }
}
