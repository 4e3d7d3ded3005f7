package dev.morphema.check;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The names that are known at one place, and the slots of the frame they live in. */
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

    private final @Nullable Scope outer;
    private final Slots slots;
    private final Map<String, Entry> names = new LinkedHashMap<>();

    Scope(@Nullable Scope outer, Slots slots) {
        this.outer = outer;
        this.slots = slots;
    }

    /** {@return a scope within this one, in the same frame} */
    Scope inner() {
        return new Scope(this, slots);
    }

    Slots slots() {
        return slots;
    }

    @Nullable
    Entry find(String name) {
        Entry entry = names.get(name);
        return entry != null || outer == null ? entry : outer.find(name);
    }

    void add(String name, Entry entry) {
        names.put(name, entry);
    }

    /** The names of this scope, without those around it, are gone. */
    void clear() {
        names.clear();
    }

    Map<String, Entry> own() {
        return names;
    }

    Set<String> all() {
        Set<String> all = new LinkedHashSet<>(names.keySet());
        if (outer != null) {
            all.addAll(outer.all());
        }
        return all;
    }
}
