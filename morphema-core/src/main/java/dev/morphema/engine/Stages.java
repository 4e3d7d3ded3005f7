package dev.morphema.engine;

import dev.morphema.convert.TypeConverters;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Comparison;
import dev.morphema.value.Layout;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The clauses that pass on or drop turns as they come. */
final class Stages {
    private Stages() {}

    /** A clause that is done with a turn when that is passed on or dropped. */
    private interface InTurn extends Stage {
        @Override
        default boolean keeps() {
            return false;
        }
    }

    /** A flow that holds nothing back, so that its end is the end of the next. */
    abstract static class Passing implements Flow {
        private final Flow next;

        Passing(Flow next) {
            this.next = next;
        }

        final boolean pass() {
            return next.turn();
        }

        @Override
        public final void end() {
            next.end();
        }
    }

    /** {@code for y in x.lines}. */
    record Bind(Node sequence, int slot, boolean optional) implements InTurn {
        @Override
        public Flow start(Frame frame, Flow next) {
            return new Passing(next) {
                @Override
                public boolean turn() {
                    return LoopPlan.feed(sequence, slot, optional, frame, new Passing(next) {
                        @Override
                        public boolean turn() {
                            return pass();
                        }
                    });
                }
            };
        }
    }

    /** {@code where}. */
    record Where(Node condition) implements InTurn {
        @Override
        public Flow start(Frame frame, Flow next) {
            return new Passing(next) {
                /** Looked for when it is first needed: loops within loops begin very often. */
                private Counts.@Nullable LeftOut leftOut;

                @Override
                public boolean turn() {
                    if (condition.holds(frame)) {
                        return pass();
                    }
                    leftOut = leftOut == null ? frame.run().counts().leftOutBy(condition) : leftOut;
                    leftOut.add();
                    return true;
                }
            };
        }
    }

    /** Drops the turns that give nothing. */
    record Given(Node item) implements InTurn {
        @Override
        public Flow start(Frame frame, Flow next) {
            return new Passing(next) {
                @Override
                public boolean turn() {
                    return item.each(frame, Value::isMissing) || pass();
                }
            };
        }
    }

    /** {@code let}: forgets what it was in the turn before; it is calculated when it is used. */
    record Let(int slot) implements InTurn {
        @Override
        public Flow start(Frame frame, Flow next) {
            return new Passing(next) {
                @Override
                public boolean turn() {
                    frame.set(slot, null);
                    return pass();
                }
            };
        }
    }

    /** {@code numbered n}, {@code numbered n by key}. */
    record Numbered(int slot, Keys keys) implements InTurn {
        @Override
        public Flow start(Frame frame, Flow next) {
            Map<Object, Long> counts = new HashMap<>();
            boolean undoes = frame.run().units().areWithin();
            return new Passing(next) {
                @Override
                public boolean turn() {
                    Object key = keys.key(frame);
                    long count = counts.merge(key, 1L, Long::sum);
                    if (undoes) {
                        frame.run().units().onFailure(() -> counts.merge(key, -1L, Long::sum));
                    }
                    frame.set(slot, NumberValue.of(count));
                    return pass();
                }
            };
        }
    }

    /** {@code distinct by}. */
    record Distinct(Keys keys) implements InTurn {
        @Override
        public Flow start(Frame frame, Flow next) {
            Set<Object> seen = new HashSet<>();
            boolean undoes = frame.run().units().areWithin();
            return new Passing(next) {
                @Override
                public boolean turn() {
                    Object key = keys.key(frame);
                    if (!seen.add(key)) {
                        return true;
                    }
                    if (undoes) {
                        frame.run().units().onFailure(() -> seen.remove(key));
                    }
                    return pass();
                }
            };
        }
    }

    /** {@code take}. */
    record Take(Node count) implements InTurn {
        @Override
        public Flow start(Frame frame, Flow next) {
            boolean undoes = frame.run().units().areWithin();
            return new Passing(next) {
                private long left = -1;

                @Override
                public boolean turn() {
                    if (left < 0) {
                        left = wanted(frame);
                    }
                    if (left == 0) {
                        return false;
                    }
                    left--;
                    if (undoes) {
                        frame.run().units().onFailure(() -> left++);
                    }
                    return pass() && left > 0;
                }
            };
        }

        private long wanted(Frame frame) {
            Value value = count.scalar(frame);
            if (value.isMissing()) {
                return Long.MAX_VALUE;
            }
            try {
                return Math.max(0, TypeConverters.integer(value).nearestLong());
            } catch (ProblemException e) {
                throw count.located(e);
            }
        }
    }

    /** Some expressions that make one key. */
    static final class Keys {
        private static final int[] NONE = {};

        private final List<Node> nodes;
        private final SlotSite site;

        Keys(List<Node> nodes, SlotSite.Numbering sites) {
            this.nodes = List.copyOf(nodes);
            this.site = sites.site(this::slots);
        }

        List<Node> nodes() {
            return nodes;
        }

        /** {@return whether each is a single field of a value that is just in a slot} */
        boolean areFieldsOf(Node base) {
            if (!(base instanceof NameNodes.Local name)) {
                return false;
            }
            for (Node node : nodes) {
                if (PathNodes.Named.from(name.slot(), node) == null) {
                    return false;
                }
            }
            return true;
        }

        /**
         * {@return the slots of the keys in a record, not to be changed}; none if some key is not a
         * single field without a declared type that is there as plain bytes. For keys that are
         * single fields.
         */
        int[] plainSlots(Frame frame, RecordValue record) {
            int[] slots = site.in(frame, record.layout()).slots();
            return record.arePlain(slots) ? slots : NONE;
        }

        private int[] slots(Layout layout) {
            int[] slots = new int[nodes.size()];
            for (int i = 0; i < slots.length; i++) {
                slots[i] = ((PathNodes.Named) nodes.get(i)).onlyIn(layout);
                if (slots[i] < 0 || layout.converter(slots[i]) != null) {
                    return NONE;
                }
            }
            return slots;
        }

        /** {@return the values of the fields in some slots} */
        static Value[] texts(RecordValue record, int[] slots) {
            Value[] texts = new Value[slots.length];
            for (int i = 0; i < texts.length; i++) {
                texts[i] = record.get(slots[i]);
            }
            return texts;
        }

        Value[] values(Frame frame) {
            Value[] values = new Value[nodes.size()];
            fill(frame, values);
            return values;
        }

        /** Puts the values into an array that has room for them. */
        void fill(Frame frame, Value[] into) {
            for (int i = 0; i < into.length; i++) {
                into[i] = nodes.get(i).scalar(frame);
            }
        }

        Object key(Frame frame) {
            return Comparison.key(values(frame));
        }
    }
}
