package dev.morphema.engine;

import dev.morphema.convert.TypeConverters;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Comparison;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** The clauses that pass on or drop turns as they come. */
final class Stages {
    private Stages() {}

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
    record Bind(Node sequence, int slot, boolean optional) implements Stage {
        @Override
        public String describe() {
            return "for each of " + sequence.written() + (optional ? ", or once without" : "");
        }

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
    record Where(Node condition) implements Stage {
        @Override
        public String describe() {
            return "keep where " + condition.written();
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            return new Passing(next) {
                @Override
                public boolean turn() {
                    return !condition.holds(frame) || pass();
                }
            };
        }
    }

    /** {@code let}: forgets what it was in the turn before; it is calculated when it is used. */
    record Let(int slot) implements Stage {
        @Override
        public String describe() {
            return "name a value, calculated when used";
        }

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
    record Numbered(int slot, Keys keys) implements Stage {
        @Override
        public String describe() {
            return "number" + (keys.nodes().isEmpty() ? "" : " within " + keys.written());
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            Map<Object, Long> counts = new HashMap<>();
            return new Passing(next) {
                @Override
                public boolean turn() {
                    long count = counts.merge(keys.key(frame), 1L, Long::sum);
                    frame.set(slot, NumberValue.of(count));
                    return pass();
                }
            };
        }
    }

    /** {@code distinct by}. */
    record Distinct(Keys keys) implements Stage {
        @Override
        public String describe() {
            return "keep the first for each " + keys.written() + ", holding the keys";
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            Set<Object> seen = new HashSet<>();
            return new Passing(next) {
                @Override
                public boolean turn() {
                    return !seen.add(keys.key(frame)) || pass();
                }
            };
        }
    }

    /** {@code take}. */
    record Take(Node count) implements Stage {
        @Override
        public String describe() {
            return "stop after " + count.written();
        }

        @Override
        public Flow start(Frame frame, Flow next) {
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
                    return pass() && left > 0;
                }
            };
        }

        private long wanted(Frame frame) {
            Value value = count.scalar(frame);
            if (value.isNothing()) {
                return Long.MAX_VALUE;
            }
            try {
                return Math.max(0, TypeConverters.integer(value).decimal().longValue());
            } catch (ProblemException e) {
                throw count.located(e);
            }
        }
    }

    /** Some expressions that make one key. */
    record Keys(List<Node> nodes) {
        Keys {
            nodes = List.copyOf(nodes);
        }

        /** {@return whether each is a single field of a value that is just in a slot} */
        boolean areFieldsOf(Node base) {
            return base instanceof NameNodes.Local name
                    && nodes.stream().allMatch(node -> PathNodes.Named.from(name.slot(), node) != null);
        }

        String written() {
            return nodes.stream().map(Node::written).collect(Collectors.joining(", "));
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
            return key(values(frame));
        }

        static Object key(Value[] values) {
            if (values.length == 1) {
                return Comparison.key(values[0]);
            }
            List<Object> key = new ArrayList<>(values.length);
            for (Value value : values) {
                key.add(Comparison.key(value));
            }
            return key;
        }
    }
}
