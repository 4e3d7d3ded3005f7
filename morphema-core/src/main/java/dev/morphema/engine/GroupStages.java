package dev.morphema.engine;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Comparison;
import dev.morphema.value.Many;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** The clauses that hold turns back to make groups of them. */
final class GroupStages {
    private GroupStages() {}

    /** The keys and members of one group. */
    private record Group(Value[] keys, List<Value> members) {}

    /** Where the keys and members of a group go. */
    record Names(int[] keys, int members) {
        private boolean pass(Group group, Frame frame, Flow next) {
            for (int i = 0; i < keys.length; i++) {
                frame.set(keys[i], group.keys()[i]);
            }
            Many all = new Many(group.members());
            frame.set(members, all);
            try {
                return next.turn();
            } catch (ProblemException e) {
                throw LoopPlan.placed(e, all);
            }
        }
    }

    /** {@code group by}: groups in order of first appearance. */
    record By(Stages.Keys keys, Node member, Names names) implements Stage {
        @Override
        public String describe() {
            return "group by " + keys.written() + ", holding the members";
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            return new Flow() {
                private final Map<Object, Group> groups = new LinkedHashMap<>();

                @Override
                public boolean turn() {
                    Value[] values = keys.values(frame);
                    groups.computeIfAbsent(Stages.Keys.key(values), key -> new Group(values, new ArrayList<>()))
                            .members()
                            .add(member.eval(frame));
                    return true;
                }

                @Override
                public void end() {
                    for (Group group : groups.values()) {
                        if (!names.pass(group, frame, next)) {
                            break;
                        }
                    }
                    next.end();
                }
            };
        }
    }

    /** {@code group runs by} and {@code group from}: a group ends where the next begins. */
    record Runs(Stages.@Nullable Keys keys, @Nullable Node begins, Node member, Names names) implements Stage {
        @Override
        public String describe() {
            return keys == null
                    ? "group from each " + Objects.requireNonNull(begins).written()
                    : "group neighbours by " + keys.written();
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            return new Flow() {
                private @Nullable Group group;
                private @Nullable Object key;
                private boolean more = true;

                @Override
                public boolean turn() {
                    Value[] values = keys == null ? new Value[0] : keys.values(frame);
                    Object thisKey = Stages.Keys.key(values);
                    Value thisMember = member.eval(frame);
                    boolean starts = group == null
                            || keys != null && !thisKey.equals(key)
                            || begins != null && begins.holds(frame);
                    if (starts) {
                        // The names of the loop are in the frame; the group before must not lose them for this turn.
                        flush();
                        group = new Group(values, new ArrayList<>());
                        key = thisKey;
                    }
                    Objects.requireNonNull(group).members().add(thisMember);
                    return more;
                }

                private void flush() {
                    if (group != null && more) {
                        more = names.pass(group, frame, next);
                    }
                }

                @Override
                public void end() {
                    flush();
                    next.end();
                }
            };
        }
    }

    /** {@code sort by}: stable; absent and null come last either way. */
    record Sort(Stages.Keys keys, boolean[] descending, int[] names) implements Stage {
        @Override
        public String describe() {
            return "sort by " + keys.written() + ", holding all turns";
        }

        /** A turn that is held back: the values of the loop's names, and what to sort by. */
        private record Held(@Nullable Value[] names, Value[] keys) {}

        @Override
        public Flow start(Frame frame, Flow next) {
            return new Flow() {
                private final List<Held> held = new ArrayList<>();

                @Override
                public boolean turn() {
                    Value[] values = keys.values(frame);
                    @Nullable Value[] kept = new Value[names.length];
                    for (int i = 0; i < names.length; i++) {
                        kept[i] = frame.get(names[i]);
                    }
                    held.add(new Held(kept, values));
                    return true;
                }

                @Override
                public void end() {
                    held.sort((a, b) -> compare(a.keys(), b.keys()));
                    for (Held turn : held) {
                        for (int i = 0; i < names.length; i++) {
                            frame.set(names[i], turn.names()[i]);
                        }
                        if (!turnAgain(turn)) {
                            break;
                        }
                    }
                    next.end();
                }

                private boolean turnAgain(Held turn) {
                    try {
                        return next.turn();
                    } catch (ProblemException e) {
                        Value first = turn.names()[0];
                        throw first == null ? e : LoopPlan.placed(e, first);
                    }
                }
            };
        }

        private int compare(Value[] a, Value[] b) {
            for (int i = 0; i < a.length; i++) {
                int order = compare(a[i], b[i], i);
                if (order != 0) {
                    return order;
                }
            }
            return 0;
        }

        private int compare(Value a, Value b, int key) {
            if (a.isNothing() || b.isNothing()) {
                return Boolean.compare(a.isNothing(), b.isNothing());
            }
            try {
                if (a.kind() != b.kind()) {
                    throw new ProblemException(Problem.error(
                            Code.KIND,
                            "Values of unlike kinds cannot be sorted: "
                                    + a.kind().words() + " and " + b.kind().words() + "."));
                }
                int order = Comparison.compare(a, b);
                return descending[key] ? -order : order;
            } catch (ProblemException e) {
                throw keys.nodes().get(key).located(e);
            }
        }
    }
}
