package dev.morphema.value;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * The names of a record's fields and the slot of each. Records with the same fields in the same order share one layout,
 * so code that has once looked up a name in a layout need not do so again. Immutable and safe for use by many threads.
 */
public final class Layout {
    /** No fields, and no conversions for any that are added. */
    public static final Layout EMPTY = start(name -> null);

    /** Beyond this many fields, the layouts of growing records are not shared: keys that are data would fill memory. */
    private static final int MOST_SHARED = 64;

    private final List<FieldName> names;
    private final List<@Nullable Converter> converters;
    private final Map<FieldName, Integer> slots;
    private final Function<FieldName, @Nullable Converter> types;
    private final Map<FieldName, Layout> next = new ConcurrentHashMap<>();

    private Layout(
            List<FieldName> names,
            List<@Nullable Converter> converters,
            Map<FieldName, Integer> slots,
            Function<FieldName, @Nullable Converter> types) {
        this.names = names;
        this.converters = converters;
        this.slots = slots;
        this.types = types;
    }

    /** {@return a layout without fields, that asks for the declared type of each field that is added} */
    public static Layout start(Function<FieldName, @Nullable Converter> types) {
        return new Layout(List.of(), List.of(), Map.of(), types);
    }

    /** {@return a layout with just these fields} */
    public static Layout of(List<FieldName> names) {
        Layout layout = EMPTY;
        return layout.withAll(names);
    }

    /** {@return this layout with more fields} */
    public Layout withAll(List<FieldName> more) {
        List<FieldName> allNames = new ArrayList<>(names);
        List<@Nullable Converter> allConverters = new ArrayList<>(converters);
        Map<FieldName, Integer> allSlots = new HashMap<>(slots);
        for (FieldName name : more) {
            if (allSlots.putIfAbsent(name, allNames.size()) == null) {
                allNames.add(name);
                allConverters.add(types.apply(name));
            }
        }
        return new Layout(allNames, allConverters, allSlots, types);
    }

    /** {@return this layout with one more field at its end, shared by all who ask for it while it is small} */
    Layout with(FieldName name) {
        if (names.size() >= MOST_SHARED) {
            return withAll(List.of(name));
        }
        Layout known = next.get(name);
        if (known != null) {
            return known;
        }
        Layout made = withAll(List.of(name));
        Layout before = next.putIfAbsent(name, made);
        return before == null ? made : before;
    }

    /** {@return how many fields there are} */
    public int size() {
        return names.size();
    }

    /** {@return the name of a slot, counted from 0} */
    public FieldName name(int slot) {
        return names.get(slot);
    }

    /** {@return the slot of exactly that name, or -1} */
    public int slot(FieldName name) {
        Integer slot = slots.get(name);
        return slot == null ? -1 : slot;
    }

    @Nullable
    Converter converter(int slot) {
        return converters.get(slot);
    }

    @Override
    public String toString() {
        return names.toString();
    }
}
