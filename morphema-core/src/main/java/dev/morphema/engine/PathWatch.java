package dev.morphema.engine;

import dev.morphema.format.Projection;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Watches which of the fields that a mapping uses are ever there in one reading of a source. A
 * field that was seen is not looked at again, so that this costs nothing as soon as all are. Not
 * thread-safe.
 */
final class PathWatch {
    private final Place start;
    private final List<FieldName> path;
    /**
     * For each of many inputs whether it had anything that is wanted; empty where there is one
     * input.
     */
    private final Map<String, Boolean> inputs = new HashMap<>();

    private final boolean manyInputs;
    /** How many steps of the path were found; -1 if there was not even a record to begin with. */
    private int reached = -1;

    /**
     * @param root what is read of the whole source
     * @param path to the values that are watched
     * @param manyInputs whether the values come from any number of inputs
     */
    PathWatch(Projection root, List<FieldName> path, boolean manyInputs) {
        this.manyInputs = manyInputs;
        Projection at = root;
        for (FieldName step : path) {
            at = at.child(step);
        }
        this.path = path;
        this.start = new Place(at);
    }

    /** Looks at one more value at the path. */
    void see(Value value) {
        reached = path.size();
        start.see(value);
        if (manyInputs && value instanceof RecordValue record && record.origin() != null) {
            String input = record.origin().input();
            if (inputs.get(input) != Boolean.TRUE) {
                inputs.put(input, start.hasAny(record));
            }
        }
    }

    /** The reading has ended, and this many steps of the path were found. */
    void end(int steps) {
        reached = Math.max(reached, steps);
    }

    /** Adds what was found to that of other readings of the same source. */
    void addTo(Found found) {
        for (int steps = 0; steps <= reached && steps <= path.size(); steps++) {
            found.records(path.subList(0, steps), steps < path.size() ? 1 : start.records);
        }
        if (reached >= 0 && reached < path.size()) {
            found.broken.add(List.copyOf(path.subList(0, reached + 1)));
        }
        start.addTo(found, path);
        inputs.forEach((input, any) -> found.inputs.merge(input, any, Boolean::logicalOr));
    }

    /** How many records were found at each path of a source. */
    static final class Found {
        private static final int MANY = 1_000;

        private final Map<List<FieldName>, Integer> records = new HashMap<>();
        private final Map<String, Boolean> inputs = new TreeMap<>();
        private final Set<List<FieldName>> broken = new HashSet<>();

        private void records(List<FieldName> path, int count) {
            records.merge(List.copyOf(path), count, (a, b) -> Math.min(MANY, a + b));
        }

        /**
         * {@return whether the records of a loop were looked for at a path, or below it, and it was
         * not there}
         */
        boolean isBroken(List<FieldName> at) {
            return broken.contains(at);
        }

        /** {@return the inputs, of many, that have nothing that is wanted} */
        List<String> foreignInputs() {
            return inputs.entrySet().stream()
                    .filter(input -> !input.getValue())
                    .map(Map.Entry::getKey)
                    .toList();
        }

        /** {@return whether there was a value at a path} */
        boolean has(List<FieldName> at) {
            return records.containsKey(at);
        }

        /** {@return how many records were at a path, or {@link #MANY}} */
        int count(List<FieldName> at) {
            return records.getOrDefault(at, 0);
        }
    }

    /** A place in the source, with what was found there. */
    private static final class Place {
        private final Projection wanted;
        /**
         * The slots of the fields that were not found so far, bit by bit; beyond these nobody
         * looks.
         */
        private long missing;

        private final @Nullable Place[] below;
        private boolean complete;
        private int records;

        Place(Projection wanted) {
            this.wanted = wanted;
            int size =
                    wanted.keepsAll() ? 0 : Math.min(Long.SIZE, wanted.layout().size());
            this.missing = size == Long.SIZE ? -1L : (1L << size) - 1;
            this.below = new Place[size];
            for (int i = 0; i < size; i++) {
                Projection child = wanted.child(i);
                below[i] = child.keepsAll() || child.layout().size() == 0 ? null : new Place(child);
            }
        }

        void see(Value value) {
            if (complete) {
                return;
            }
            if (value instanceof RecordValue record) {
                see(record);
            } else if (value instanceof Many many) {
                many.items().forEach(this::see);
            } else if (value instanceof ListValue list) {
                list.items().forEach(this::see);
            } else if (!value.isMissing()) {
                count();
            }
        }

        private void count() {
            records = Math.min(Found.MANY, records + 1);
        }

        boolean hasAny(RecordValue record) {
            boolean any = below.length == 0 || record.layout() != wanted.layout();
            for (int slot = 0; slot < below.length && !any; slot++) {
                any = record.has(slot);
            }
            return any;
        }

        private void see(RecordValue record) {
            count();
            if (record.layout() != wanted.layout()) {
                return;
            }
            boolean all = true;
            for (int slot = 0; slot < below.length; slot++) {
                long bit = 1L << slot;
                if ((missing & bit) != 0 && record.has(slot)) {
                    missing &= ~bit;
                }
                Place place = below[slot];
                if (place != null && !place.complete) {
                    Value value = record.unconverted(slot);
                    if (value != null) {
                        place.see(value);
                    }
                }
                all &= (missing & bit) == 0 && (place == null || place.complete);
            }
            complete = all;
        }

        void addTo(Found found, List<FieldName> path) {
            for (int slot = 0; slot < below.length; slot++) {
                if ((missing & 1L << slot) == 0) {
                    List<FieldName> child = new ArrayList<>(path);
                    child.add(wanted.layout().name(slot));
                    Place place = below[slot];
                    found.records(child, place == null ? 1 : place.records);
                    if (place != null) {
                        place.addTo(found, child);
                    }
                }
            }
        }
    }
}
