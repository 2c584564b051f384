package bake.core.geometry;

/**
 * Where finished hierarchies are kept from one start to the next. A key stands for the content that a hierarchy was built
 * from, so what is found is what would be built.
 */
public interface BlasStore {
    /** Keeps nothing. */
    BlasStore NONE = new BlasStore() {
        @Override
        public Blas find(String key) {
            return null;
        }

        @Override
        public void keep(String key, Blas blas) {}
    };

    /** The hierarchy kept under a key, or null. */
    Blas find(String key);

    /** Keeps a hierarchy; may return before it is written. */
    void keep(String key, Blas blas);
}
