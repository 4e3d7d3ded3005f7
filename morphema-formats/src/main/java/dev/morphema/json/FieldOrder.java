package dev.morphema.json;

import dev.morphema.format.Projection;
import dev.morphema.value.FieldName;
import java.util.Arrays;

/**
 * The slots of the fields of objects at one place. Such objects mostly have the same fields in the same order, and the
 * parser gives a name that comes again as the same object, so nothing is looked up. Not thread-safe.
 */
final class FieldOrder {
    private static final int MOST = 64;

    private final Projection wanted;
    private String[] names = new String[8];
    private int[] slots = new int[8];
    private int count;
    private int next;

    FieldOrder(Projection wanted) {
        this.wanted = wanted;
    }

    /** An object begins. */
    void begin() {
        next = 0;
    }

    /** {@return the slot of the next field, or -1 if it is not wanted} */
    int slot(String name) {
        if (next < count && names[next] == name) {
            return slots[next++];
        }
        for (int i = 0; i < count; i++) {
            if (names[i] == name) {
                next = i + 1;
                return slots[i];
            }
        }
        int slot = wanted.slot(FieldName.of(name));
        if (count < MOST) {
            if (count == names.length) {
                names = Arrays.copyOf(names, count * 2);
                slots = Arrays.copyOf(slots, count * 2);
            }
            names[count] = name;
            slots[count++] = slot;
            next = count;
        }
        return slot;
    }
}
