package dev.morphema.formats;

import dev.morphema.format.Projection;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The slots of the fields of records at one place. Such records mostly have the same fields in the same order, and parsers
 * give a name that comes again as the same object, so nothing is looked up. Not thread-safe.
 */
public final class FieldOrder {
    private static final int MOST = 64;

    private final Projection wanted;
    private final List<Field> fields = new ArrayList<>();
    private int next;

    /**
     * A field that records at this place can have.
     *
     * @param local its name, as the parser gave it
     * @param namespace of the name, as the parser gave it, or null
     * @param slot where its value goes, or -1 if it is not wanted
     */
    public record Field(String local, @Nullable String namespace, FieldName name, int slot) {
        // The very objects are compared: to be another is no fault, it only takes longer.
        @SuppressWarnings("StringEquality")
        private boolean is(String otherLocal, @Nullable String otherNamespace) {
            return local == otherLocal && namespace == otherNamespace;
        }
    }

    /** @param wanted what is wanted of the records; not everything */
    public FieldOrder(Projection wanted) {
        this.wanted = wanted;
    }

    /** A record begins. */
    public void begin() {
        next = 0;
    }

    /** {@return the next field} */
    public Field field(String local, @Nullable String namespace) {
        if (next < fields.size()) {
            Field expected = fields.get(next);
            if (expected.is(local, namespace)) {
                next++;
                return expected;
            }
        }
        for (int i = 0; i < fields.size(); i++) {
            if (fields.get(i).is(local, namespace)) {
                next = i + 1;
                return fields.get(i);
            }
        }
        return added(local, namespace);
    }

    private Field added(String local, @Nullable String namespace) {
        FieldName name = new FieldName(namespace == null || namespace.isEmpty() ? null : namespace, local, false);
        Field field = new Field(local, namespace, name, wanted.slot(name));
        if (fields.size() < MOST) {
            fields.add(field);
            next = fields.size();
        }
        return field;
    }
}
