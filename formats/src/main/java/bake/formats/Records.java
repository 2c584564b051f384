package bake.formats;

import java.lang.reflect.Constructor;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Records with other values for some of their components: what would otherwise be a long constructor call for each. */
public final class Records {
    private static final Map<Class<?>, Shape> SHAPES = new ConcurrentHashMap<>();

    private Records() {}

    /** Components of a record and its constructor. */
    private record Shape(RecordComponent[] components, Constructor<?> constructor) {
        static Shape of(Class<?> c) {
            RecordComponent[] all = c.getRecordComponents();
            Class<?>[] types = new Class<?>[all.length];
            for (int i = 0; i < all.length; i++) {
                types[i] = all[i].getType();
                all[i].getAccessor().setAccessible(true);
            }
            try {
                Constructor<?> k = c.getDeclaredConstructor(types);
                k.setAccessible(true);
                return new Shape(all, k);
            } catch (NoSuchMethodException e) {
                throw new IllegalStateException(e); // every record has it
            }
        }

        int place(String name) {
            for (int i = 0; i < components.length; i++) if (components[i].getName().equals(name)) return i;
            throw new IllegalArgumentException("there is no component " + name);
        }
    }

    /**
     * A copy with other values.
     *
     * @param namesAndValues components by name, each followed by its new value
     * @throws IllegalArgumentException for a name that is none, and what the record's own constructor throws
     */
    @SuppressWarnings("unchecked")
    public static <R extends Record> R with(R record, Object... namesAndValues) {
        Shape s = SHAPES.computeIfAbsent(record.getClass(), Shape::of);
        Object[] values = new Object[s.components.length];
        try {
            for (int i = 0; i < values.length; i++) values[i] = s.components[i].getAccessor().invoke(record);
            for (int i = 0; i < namesAndValues.length; i += 2) values[s.place((String) namesAndValues[i])] = namesAndValues[i + 1];
            return (R) s.constructor.newInstance(values);
        } catch (InvocationTargetException e) {
            if (e.getCause() instanceof RuntimeException r) throw r;
            throw new IllegalStateException(e.getCause());
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }
}
