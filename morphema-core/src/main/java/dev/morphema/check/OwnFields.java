package dev.morphema.check;

import dev.morphema.syntax.Block;
import dev.morphema.syntax.Stmt;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The fields that one block has given so far, which rules further down can ask for by {@code .name}. */
final class OwnFields {
    /** A field with a rule of its own. */
    record Entry(Stmt.Field field, Type type) {}

    private final Block block;
    private final Map<String, Entry> entries = new LinkedHashMap<>();

    OwnFields(Block block) {
        this.block = block;
    }

    void add(Stmt.Field field, Type type) {
        entries.put(field.name().text(), new Entry(field, type));
    }

    @Nullable
    Entry find(String name) {
        return entries.get(name);
    }

    Set<String> names() {
        return entries.keySet();
    }

    /** The field's value is to be kept for another rule. */
    void capture(Entry entry, Scope scope, Resolution resolution) {
        if (resolution.slotIfAny(entry.field()).isEmpty()) {
            int slot = scope.slots().next();
            resolution.putSlot(entry.field(), slot);
            resolution.addBlockSlot(block, slot);
        }
    }
}
