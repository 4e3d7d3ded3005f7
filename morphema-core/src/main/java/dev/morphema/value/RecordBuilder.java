package dev.morphema.value;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Collects the fields of one record. Not thread-safe; of use once. */
public final class RecordBuilder {
    private Layout layout;
    private @Nullable Value[] values;
    private final @Nullable Origin origin;
    private @Nullable FieldName element;
    private @Nullable List<RecordValue.Part> parts;
    private FieldBytes.@Nullable Row bytes;
    /** All values of the slots that have more than one. */
    private @Nullable Map<Integer, List<Value>> repeated;
    /**
     * Where layouts are not shared any more: the slots of all names, and the names that the
     * layout lacks so far.
     */
    private @Nullable Map<FieldName, Integer> own;

    private List<FieldName> more = List.of();

    RecordBuilder(Layout layout, @Nullable Origin origin) {
        this.layout = layout;
        this.values = new Value[Math.max(layout.size(), 4)];
        this.origin = origin;
    }

    /** Marks the record as an XML element of that name. */
    public RecordBuilder element(FieldName name) {
        element = name;
        return this;
    }

    /** Gives the order of children and texts, where the fields do not tell it. */
    public void parts(List<RecordValue.Part> inOrder) {
        parts = inOrder;
    }

    /**
     * Adds a piece of the record's own text, which stands after the children that were added
     * before.
     */
    public void text(Value piece) {
        if (parts == null) {
            parts = partsSoFar();
        }
        parts.add(new RecordValue.Part(null, piece));
        Value before = first(FieldName.OWN_TEXT);
        int slot = slotFor(FieldName.OWN_TEXT);
        values[slot] = before == null ? piece : TextValue.of(before.toString() + piece);
    }

    private List<RecordValue.Part> partsSoFar() {
        List<RecordValue.Part> all = new ArrayList<>();
        for (int i = 0; i < layout.size() + more.size(); i++) {
            FieldName name = i < layout.size() ? layout.name(i) : more.get(i - layout.size());
            if (!name.attribute()) {
                List<Value> items = repeated == null ? null : repeated.get(i);
                RecordValue.addParts(name, items == null ? values[i] : Many.owned(items), all);
            }
        }
        return all;
    }

    /**
     * Gives the record fields that stay bytes: those that are in a row when the record is
     * built; it is emptied now.
     */
    public void bytes(FieldBytes.Row row) {
        row.begin();
        bytes = row;
    }

    /** {@return the row that was given, or null} */
    public FieldBytes.@Nullable Row bytes() {
        return bytes;
    }

    /** {@return whether a field of the layout that the builder was made with is there} */
    public boolean has(int slot) {
        return values[slot] != null || bytes != null && bytes.has(slot);
    }

    /** Puts a value into a slot of the layout that the builder was made with. */
    public void set(int slot, Value value) {
        values[slot] = value;
    }

    /**
     * Adds one more value to a slot of the layout; a slot that gets a second one has many
     * values.
     */
    public void add(int slot, Value value) {
        if (bytes != null && bytes.has(slot)) {
            values[slot] = bytes.remove(slot);
        }
        Value before = values[slot];
        if (before == null) {
            values[slot] = value;
            return;
        }
        if (repeated == null) {
            repeated = new HashMap<>();
        }
        repeated.computeIfAbsent(slot, s -> new ArrayList<>(List.of(before))).add(value);
    }

    /** Adds one more value under a name; a name that comes again gets many values. */
    public void add(FieldName name, Value value) {
        add(slotFor(name), value);
        if (parts != null && !name.attribute()) {
            parts.add(new RecordValue.Part(name, value));
        }
    }

    /** Gives a name its value, in place of the one it had. */
    public void put(FieldName name, Value value) {
        int slot = slotFor(name);
        values[slot] = value;
        if (repeated != null) {
            repeated.remove(slot);
        }
    }

    /** {@return whether a field of that name has a value} */
    public boolean has(FieldName name) {
        return first(name) != null;
    }

    /** {@return the first value that a field of that name was given, or null} */
    public @Nullable Value first(FieldName name) {
        int slot = slot(name);
        return slot < 0 ? null : values[slot];
    }

    /** {@return the record} */
    public RecordValue build() {
        if (repeated != null) {
            repeated.forEach((slot, items) -> values[slot] = Many.owned(items));
        }
        boolean mixed = parts != null && parts.stream().anyMatch(part -> part.name() != null);
        return RecordValue.restored(
                more.isEmpty() ? layout : layout.withAll(more),
                values,
                bytes == null ? null : bytes.take(),
                origin,
                element,
                mixed ? parts : null);
    }

    private int slotFor(FieldName name) {
        int slot = slot(name);
        return slot < 0 ? added(name) : slot;
    }

    private int slot(FieldName name) {
        return own == null ? layout.slot(name) : own.getOrDefault(name, -1);
    }

    private int added(FieldName name) {
        Layout next = own == null ? layout.shared(name) : null;
        int slot = layout.size() + more.size();
        if (next != null) {
            layout = next;
        } else {
            if (own == null) {
                own = layout.copyOfSlots();
            }
            own.put(name, slot);
            more = more.isEmpty() ? new ArrayList<>() : more;
            more.add(name);
        }
        if (slot == values.length) {
            values = Arrays.copyOf(values, slot * 2);
        }
        return slot;
    }
}
