package dev.morphema.check;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * The names that are known at one place, and the slots of the frame they live in. Immutable, but
 * for the count of slots: each name makes another scope.
 */
final class Scope {
    /** A name with what it stands for. */
    record Entry(Binding binding, Type type) {}

    /** Counts the slots of one frame. */
    static final class Slots {
        private int count;

        int next() {
            return count++;
        }

        int count() {
            return count;
        }
    }

    private final @Nullable Scope before;
    private final @Nullable String name;
    private final @Nullable Entry entry;
    private final Slots slots;

    private Scope(@Nullable Scope before, @Nullable String name, @Nullable Entry entry, Slots slots) {
        this.before = before;
        this.name = name;
        this.entry = entry;
        this.slots = slots;
    }

    /** {@return a scope without names} */
    static Scope empty(Slots slots) {
        return new Scope(null, null, null, slots);
    }

    /** {@return this scope with one more name, which hides another of the same name} */
    Scope with(String newName, Entry stands) {
        return new Scope(this, newName, stands, slots);
    }

    Slots slots() {
        return slots;
    }

    @Nullable
    Entry find(String wanted) {
        Scope at = this;
        while (at != null && !wanted.equals(at.name)) {
            at = at.before;
        }
        return at == null ? null : at.entry;
    }

    /** {@return all names with what is known of them, the innermost first} */
    Map<String, Type> types() {
        Map<String, Type> types = new LinkedHashMap<>();
        for (Scope at = this; at.entry != null; at = Objects.requireNonNull(at.before)) {
            types.putIfAbsent(Objects.requireNonNull(at.name), at.entry.type());
        }
        return types;
    }
}
