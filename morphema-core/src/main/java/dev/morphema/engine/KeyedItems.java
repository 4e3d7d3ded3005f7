package dev.morphema.engine;

import dev.morphema.problem.ProblemException;
import dev.morphema.store.KeyCode;
import dev.morphema.store.ManyRows;
import dev.morphema.value.Kind;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.util.EnumSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A sequence that is the same all through a run, of which a loop keeps only values with certain
 * keys, as in {@code for y in ys where y.k == x.k and y.l == x.l}. Gone through again, it gives
 * only those; the condition that follows is still asked for each, so that all that is left out here
 * are values for which it is surely false.
 */
final class KeyedItems extends Node {
    /** Values of these kinds are equal exactly if they are the same key. */
    private static final Set<Kind> KINDS = EnumSet.of(Kind.TEXT, Kind.NUMBER, Kind.BOOLEAN, Kind.DATE, Kind.TIME);

    private final Node sequence;
    private final int slot;
    private final Stages.Keys keys;
    private final Stages.Keys asked;

    /**
     * @param slot of the name under which the loop has the value at hand
     * @param keys of that value
     * @param asked what each key must be, which is the same for all values
     */
    KeyedItems(Node sequence, int slot, Stages.Keys keys, Stages.Keys asked) {
        super(sequence.span());
        this.sequence = sequence;
        this.slot = slot;
        this.keys = keys;
        this.asked = asked;
    }

    /** The values by their keys, for one run. */
    static final class Index {
        private final ManyRows rows = new ManyRows(false);
        private final KeyCode code = new KeyCode();
        /** For each key the kind of all that are not nothing; null while there is none. */
        private final @Nullable Kind[] kinds;

        private Index(int keys) {
            this.kinds = new Kind[keys];
        }

        /** Adds a value; says whether it can be found by its keys. */
        private boolean add(Value item, Value @Nullable [] keys) {
            if (keys == null) {
                return false;
            }
            for (int i = 0; i < keys.length; i++) {
                if (!keys[i].isMissing()) {
                    kinds[i] = kinds[i] == null ? keys[i].kind() : kinds[i];
                    if (keys[i].kind() != kinds[i] || !KINDS.contains(keys[i].kind())) {
                        return false;
                    }
                }
            }
            code.set(keys);
            rows.add(code, item);
            return true;
        }

        /** {@return the values with some keys; null if others could be meant as well} */
        private @Nullable Many find(Value @Nullable [] wanted) {
            if (wanted == null) {
                return null;
            }
            for (int i = 0; i < wanted.length; i++) {
                if (wanted[i].kind() != kinds[i]) {
                    return null;
                }
            }
            code.set(wanted);
            return (Many) rows.find(code, Missing.ABSENT);
        }
    }

    /** {@return the values by their keys, or null if they cannot be found so} */
    private @Nullable Index index(Frame frame) {
        Index index = new Index(keys.nodes().size());
        boolean all = sequence.each(frame, item -> {
            frame.set(slot, item);
            return index.add(item, values(keys, frame));
        });
        return all ? index : null;
    }

    /** {@return the values of keys, or null if one fails; then it fails again where it is asked} */
    private static Value @Nullable [] values(Stages.Keys keys, Frame frame) {
        try {
            return keys.values(frame);
        } catch (ProblemException e) {
            return null;
        }
    }

    @Override
    Value compute(Frame frame) {
        return sequence.eval(frame);
    }

    @Override
    boolean each(Frame frame, ItemSink sink) {
        Index index = frame.run().memory().index(this, () -> index(frame));
        Many found = index == null ? null : index.find(values(asked, frame));
        if (found == null) {
            return sequence.each(frame, sink);
        }
        return sink.acceptAll(found.items());
    }

    @Override
    RecordSink stream(Frame frame, RecordSink sink) {
        return sequence.stream(frame, sink);
    }
}
