package dev.morphema.check;

import dev.morphema.syntax.Block;
import dev.morphema.syntax.Stmt;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The fields that one block has given so far, which rules further down can ask for by {@code
 * .name}.
 */
final class OwnFields {
    /** A field with a rule of its own, in a block. */
    record Entry(Block block, Stmt.Field field, Type type) {}

    private final Block block;
    /** The fields of the block around an if, which writes into the same record. */
    private final @Nullable OwnFields around;

    private final Map<String, Entry> entries = new LinkedHashMap<>();

    OwnFields(Block block, @Nullable OwnFields around) {
        this.block = block;
        this.around = around;
    }

    void add(Stmt.Field field, Type type) {
        entries.put(field.name().text(), new Entry(block, field, type));
    }

    @Nullable
    Entry find(String name) {
        Entry entry = entries.get(name);
        return entry != null || around == null ? entry : around.find(name);
    }

    /** {@return a field of the block, wherever in it and of whatever kind, or null} */
    Stmt.@Nullable Field inBlock(String name) {
        for (Stmt statement : block.statements()) {
            if (statement instanceof Stmt.Field field && field.name().text().equals(name)) {
                return field;
            }
        }
        return around == null ? null : around.inBlock(name);
    }

    Set<String> names() {
        Set<String> names = new LinkedHashSet<>(entries.keySet());
        if (around != null) {
            names.addAll(around.names());
        }
        return names;
    }

    /** The field's value is to be kept for another rule. */
    void capture(Entry entry, Scope scope, Resolution resolution) {
        resolution.slotFor(entry.field(), scope.slots(), entry.block());
    }
}
