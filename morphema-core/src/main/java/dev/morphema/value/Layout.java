package dev.morphema.value;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * The names of a record's fields and the slot of each. Records with the same fields in the same
 * order share one layout, so code that has once looked up a name in a layout need not do so again.
 * Immutable and safe for use by many threads.
 */
public final class Layout {
    /**
     * No fields, and no conversions for any that are added; what grows from it is shared with
     * nobody.
     */
    public static final Layout EMPTY =
            new Layout(List.of(), new Converter[0], Map.of(), name -> null, new AtomicInteger(Layout.MOST_SHARED));

    /**
     * Of one start, so many layouts are shared at most: field names that are data would fill the
     * memory.
     */
    private static final int MOST_SHARED = 2_000;

    /** Larger layouts are not shared at all. */
    private static final int LARGEST_SHARED = 128;

    private final List<FieldName> names;
    private final @Nullable Converter[] converters;
    private final Map<FieldName, Integer> slots;
    private final Function<FieldName, @Nullable Converter> types;
    private final Map<FieldName, Layout> next = new ConcurrentHashMap<>();
    /** How many layouts grew from the same start. */
    private final AtomicInteger family;

    private final int fields;
    private final boolean plain;
    /** A bit for each of the first slots that has no converter. */
    private final long untyped;

    private Layout(
            List<FieldName> names,
            @Nullable Converter[] converters,
            Map<FieldName, Integer> slots,
            Function<FieldName, @Nullable Converter> types,
            AtomicInteger family) {
        this.names = names;
        this.converters = converters;
        this.slots = slots;
        this.types = types;
        this.family = family;
        this.plain = arePlain(names);
        int first = 0;
        while (first < names.size() && !names.get(first).isOfLoop()) {
            first++;
        }
        this.fields = first;
        long bits = 0;
        for (int i = 0; i < converters.length; i++) {
            bits |= converters[i] == null ? RecordValue.bit(i) : 0;
        }
        this.untyped = bits;
    }

    private static boolean arePlain(List<FieldName> names) {
        for (FieldName name : names) {
            if (!name.equals(FieldName.of(name.local())) || name.equals(FieldName.OWN_TEXT)) {
                return false;
            }
        }
        return true;
    }

    /**
     * {@return a layout without fields, that asks for the declared type of each field that is
     * added}
     */
    public static Layout start(Function<FieldName, @Nullable Converter> types) {
        return new Layout(List.of(), new Converter[0], Map.of(), types, new AtomicInteger());
    }

    /** {@return a layout with just these fields} */
    public static Layout of(List<FieldName> names) {
        Layout layout = EMPTY;
        return layout.withAll(names);
    }

    /** {@return this layout with more fields} */
    public Layout withAll(List<FieldName> more) {
        List<FieldName> allNames = new ArrayList<>(names);
        List<@Nullable Converter> allConverters = new ArrayList<>(Arrays.asList(converters));
        Map<FieldName, Integer> allSlots = new HashMap<>(slots);
        for (FieldName name : more) {
            if (allSlots.putIfAbsent(name, allNames.size()) == null) {
                allNames.add(name);
                allConverters.add(types.apply(name));
            }
        }
        return new Layout(allNames, allConverters.toArray(Converter[]::new), allSlots, types, family);
    }

    /**
     * {@return this layout with one more field at its end, shared by all who ask for it; null if
     * too many are shared}
     */
    @Nullable
    Layout shared(FieldName name) {
        Layout known = next.get(name);
        if (known != null) {
            return known;
        }
        if (names.size() >= LARGEST_SHARED || family.get() >= MOST_SHARED) {
            return null;
        }
        Layout made = withAll(List.of(name));
        Layout before = next.putIfAbsent(name, made);
        if (before == null) {
            family.incrementAndGet();
        }
        return before == null ? made : before;
    }

    /** {@return the slots of all names, as a map of its own} */
    Map<FieldName, Integer> copyOfSlots() {
        return new HashMap<>(slots);
    }

    /** {@return how many fields there are} */
    public int size() {
        return names.size();
    }

    /**
     * {@return how many of the first slots are fields; behind them are names of a loop, which are
     * not copied or written}
     */
    public int fields() {
        return fields;
    }

    /** {@return whether all fields have plain names: no attribute, no namespace, no own text} */
    public boolean isPlain() {
        return plain;
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

    /** {@return what converts the values of a slot, or null if they stay as they are} */
    public @Nullable Converter converter(int slot) {
        return converters[slot];
    }

    /**
     * {@return the {@linkplain RecordValue#bit bits} of the slots whose values stay as they are}
     */
    long untyped() {
        return untyped;
    }

    @Override
    public String toString() {
        return names.toString();
    }
}
