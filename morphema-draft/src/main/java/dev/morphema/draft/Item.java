package dev.morphema.draft;

import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** One place of a document: a single value, a record, or an element that is both. */
final class Item {
    private final @Nullable Cell cell;
    private final Map<String, List<Item>> fields = new LinkedHashMap<>();
    private final Map<String, String> namespaces = new LinkedHashMap<>();
    private final Set<String> lists = new HashSet<>();
    private final Set<String> nulls = new HashSet<>();

    private Item(@Nullable Cell cell) {
        this.cell = cell;
    }

    /** {@return what a value holds}; a list gives several. */
    static List<Item> of(Value value) {
        List<Item> items = new ArrayList<>();
        if (value instanceof Many many) {
            many.items().forEach(item -> items.addAll(of(item)));
        } else if (value instanceof ListValue list) {
            list.items().forEach(item -> items.addAll(of(item)));
        } else if (value instanceof RecordValue record) {
            items.add(record(record));
        } else if (value == Missing.NULL) {
            // Remembered by the field that has it.
            return items;
        } else if (!value.isMissing()) {
            items.add(new Item(Cell.of(value)));
        }
        return items;
    }

    private static Item record(RecordValue record) {
        Value own = record.get(FieldName.OWN_TEXT);
        boolean empty = record.isElement() && !record.hasChildren() && own.isMissing();
        Item item = new Item(own.isMissing() ? empty ? Cell.text("") : null : Cell.of(own));
        for (int slot = 0; slot < record.layout().size(); slot++) {
            FieldName name = record.layout().name(slot);
            Value value = record.get(slot);
            if (name.equals(FieldName.OWN_TEXT) || !record.has(slot)) {
                continue;
            }
            item.fields.computeIfAbsent(name.toString(), n -> new ArrayList<>()).addAll(of(value));
            if (name.namespace() != null) {
                item.namespaces.put(name.toString(), name.namespace());
            }
            if (value == Missing.NULL) {
                item.nulls.add(name.toString());
            }
            if (value instanceof ListValue) {
                item.lists.add(name.toString());
            }
        }
        return item;
    }

    /** {@return a record of several places, each by a name of its own} */
    static Item joined(Map<String, Item> parts) {
        Item item = new Item(null);
        parts.forEach((name, part) -> item.fields.put(name, List.of(part)));
        return item;
    }

    /** {@return what makes an item} */
    static Builder builder(@Nullable Cell cell) {
        return new Builder(new Item(cell));
    }

    /** Makes an item that no document has. */
    static final class Builder {
        private final Item item;

        private Builder(Item item) {
            this.item = item;
        }

        /** Adds what a field holds, or one of several that it holds. */
        void add(FieldName name, Item held, boolean list) {
            item.fields.computeIfAbsent(name.toString(), n -> new ArrayList<>()).add(held);
            if (list) {
                item.lists.add(name.toString());
            }
        }

        Item build() {
            return item;
        }
    }

    /** {@return the single value here, or null} */
    @Nullable
    Cell cell() {
        return cell;
    }

    /** {@return the fields, in order; attributes begin with an at sign} */
    Map<String, List<Item>> fields() {
        return fields;
    }

    /** {@return what a field holds: none, one or several} */
    List<Item> field(String name) {
        return fields.getOrDefault(name, List.of());
    }

    /** {@return the only thing that a field holds, or null} */
    @Nullable
    Item only(String name) {
        List<Item> held = field(name);
        return held.size() == 1 ? held.get(0) : null;
    }

    /** {@return whether a field is a list, however many it holds} */
    boolean isList(String name) {
        return lists.contains(name);
    }

    /** {@return the namespace of a field, or null} */
    @Nullable
    String namespace(String name) {
        return namespaces.get(name);
    }

    /** {@return whether there are fields here that are no attributes} */
    boolean hasChildren() {
        return fields.keySet().stream().anyMatch(name -> !name.startsWith("@"));
    }

    /** {@return whether some field here, or below, is null} */
    boolean hasNulls() {
        return !nulls.isEmpty()
                || fields.values().stream().flatMap(List::stream).anyMatch(Item::hasNulls);
    }

    /** {@return whether there are fields here} */
    boolean isRecord() {
        return !fields.isEmpty();
    }
}
