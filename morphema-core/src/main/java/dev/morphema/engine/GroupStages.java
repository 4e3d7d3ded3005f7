package dev.morphema.engine;

import dev.morphema.format.BareRecord;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Comparison;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** The clauses that hold turns back to make groups of them. */
final class GroupStages {
    private GroupStages() {}

    /** Where the keys and members of a group go, and what is wanted of the members. */
    record Names(int[] keys, GroupUse use) {
        /**
         * {@return a group whose members are kept, or kept up}
         *
         * @param first where its first member stands
         */
        Group begin(int number, Value[] values, Frame frame, @Nullable Origin first) {
            Group group = new Group(number, values, first);
            if (use.keeps()) {
                group.keepMembers();
            } else {
                group.keepUp(new GroupState(use, frame, group.origin()));
            }
            return group;
        }

        /** Adds a member to a group that is not tallied. */
        void add(Group group, Frame frame, Value member) {
            GroupState state = group.state();
            if (state == null) {
                group.add(member);
            } else {
                name(frame, member);
                state.add(frame, member);
            }
        }

        /** As {@link #add(Group, Frame, Value)}, for a member of which no value has been made, and is not kept. */
        void add(Group group, Frame frame, BareRecord member) {
            Objects.requireNonNull(group.state()).add(frame, member);
        }

        /** Tallies a bare member in cells; {@return the first function for which that could not be done, or -1}. */
        int tally(BareRecord member, long[] cells, int at) {
            for (int i = 0; i < use.running().length; i++) {
                if (!use.tally(i, member, cells, at)) {
                    return i;
                }
            }
            return -1;
        }

        /**
         * Tallies a member in cells.
         *
         * @param from the first function
         * @return the first function for which that could not be done, or -1
         */
        int tally(int from, Frame frame, Value member, long[] cells, int at) {
            name(frame, member);
            for (int i = from; i < use.running().length; i++) {
                if (!use.tally(i, frame, member, cells, at)) {
                    return i;
                }
            }
            return -1;
        }

        /** Puts a member under the name of all; a list that is a member is one thing, not its items. */
        private void name(Frame frame, Value member) {
            frame.set(use.slot(), member instanceof ListValue ? Many.of(List.of(member)) : member);
        }

        /** Passes on a group that is not tallied. */
        boolean pass(Group group, Frame frame, Flow next) {
            GroupState state = group.state();
            return pass(group, state == null ? Many.owned(group.members()) : state, frame, next);
        }

        /** @param held what stands for the members where the mapping uses them: their state, or they themselves */
        boolean pass(Group group, Object held, Frame frame, Flow next) {
            for (int i = 0; i < keys.length; i++) {
                frame.set(keys[i], group.key(i));
            }
            frame.set(use.slot(), held);
            try {
                return next.turn();
            } catch (ProblemException e) {
                throw LoopPlan.placed(e, held);
            }
        }
    }

    /** {@code group by}: groups in order of first appearance. */
    record By(Stages.Keys keys, Node member, Names names) implements Stage.Grouping {
        @Override
        public GroupUse use() {
            return names.use();
        }

        @Override
        public String describe() {
            return "group by " + keys.written() + ", " + names.use().describe();
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            return grouping(frame, next, frame.run().holdings());
        }

        @Override
        public HeldFlow startHeld(Frame frame, Flow next) {
            return grouping(frame, next, null);
        }

        @Override
        public boolean takesBare() {
            // More than one value is looked up as an object.
            return keys.nodes().size() == 1
                    && keys.areFieldsOf(member)
                    && names.use().takesBare();
        }

        private HeldFlow grouping(Frame frame, Flow next, @Nullable Holdings holdings) {
            HeldGroups groups = new HeldGroups(names, frame, holdings);
            Value[] values = new Value[keys.nodes().size()];
            return new HeldFlow() {
                private final PathNodes.@Nullable Named key =
                        takesBare() ? (PathNodes.Named) keys.nodes().get(0) : null;

                @Override
                public boolean take(BareRecord record) {
                    int slot = key == null ? -1 : key.onlyUntyped(record.layout());
                    return slot >= 0 && groups.add(record, slot);
                }

                @Override
                public void eachState(Consumer<GroupState> taker) {
                    groups.eachState(taker);
                }

                @Override
                public boolean turn() {
                    keys.fill(frame, values);
                    groups.add(values, member.eval(frame));
                    return true;
                }

                @Override
                public void end() {
                    groups.each(next);
                    next.end();
                }
            };
        }
    }

    /** {@code group runs by} and {@code group from}: a group ends where the next begins. */
    record Runs(Stages.@Nullable Keys keys, @Nullable Node begins, Node member, Names names) implements Stage.Grouping {
        @Override
        public GroupUse use() {
            return names.use();
        }

        @Override
        public String describe() {
            String what = keys == null
                    ? "group from each " + Objects.requireNonNull(begins).written()
                    : "group neighbours by " + keys.written();
            return what + ", " + names.use().describe();
        }

        @Override
        public boolean takesBare() {
            return keys != null && keys.areFieldsOf(member) && names.use().takesBare();
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            return new Neighbours(frame, next, false);
        }

        @Override
        public HeldFlow startHeld(Frame frame, Flow next) {
            return new Neighbours(frame, next, true);
        }

        /** The groups of one run of the loop. */
        private final class Neighbours implements HeldFlow {
            private final Frame frame;
            private final Flow next;
            private final boolean held;
            private final List<Group> complete = new ArrayList<>();
            /** The keys of the last turn. */
            private final Value[] values;
            /** What gives the keys; and for each the step from the member, if it is one, else null. */
            private final Node[] nodes;

            private final PathNodes.@Nullable Named[] steps;

            /** The bytes of the keys, if the last member was a bare record. */
            private final LastKey[] bytes;

            private boolean bytesAreKnown;
            /** Whether the next turn is for a record that could not be taken as it is, only since the key before is unknown. */
            private boolean turnIsBare;

            private @Nullable Group group;
            private boolean more = true;

            /** @param held whether no group is passed on before the end */
            private Neighbours(Frame frame, Flow next, boolean held) {
                this.frame = frame;
                this.next = next;
                this.held = held;
                this.nodes = keys == null ? new Node[0] : keys.nodes().toArray(new Node[0]);
                this.values = new Value[nodes.length];
                this.steps = new PathNodes.Named[nodes.length];
                this.bytes = new LastKey[nodes.length];
                Arrays.setAll(bytes, i -> new LastKey());
                for (int i = 0; i < nodes.length && member instanceof NameNodes.Local name; i++) {
                    steps[i] = PathNodes.Named.from(name.slot(), nodes[i]);
                }
            }

            @Override
            public boolean take(BareRecord record) {
                boolean same = true;
                for (int i = 0; i < bytes.length; i++) {
                    int slot = slot(i, record);
                    if (slot < 0) {
                        return false;
                    }
                    same = bytes[i].isStill(record, slot) && same;
                }
                turnIsBare = group == null || !bytesAreKnown;
                if (turnIsBare) {
                    return false;
                }
                if (!same) {
                    flush();
                    if (!more) {
                        return false;
                    }
                    for (int i = 0; i < bytes.length; i++) {
                        int slot = slot(i, record);
                        values[i] = TextValue.of(record.bytes(), record.from(slot), record.to(slot));
                    }
                    group = names.begin(0, values.clone(), frame, record.origin());
                }
                names.add(Objects.requireNonNull(group), frame, record);
                return true;
            }

            private int slot(int key, BareRecord record) {
                return Objects.requireNonNull(steps[key]).onlyUntyped(record.layout());
            }

            @Override
            public boolean turn() {
                bytesAreKnown = turnIsBare;
                turnIsBare = false;
                Value thisMember = member.eval(frame);
                if (starts(thisMember)) {
                    // The names of the loop are in the frame; the group before must not lose them for this turn.
                    flush();
                    group = names.begin(0, values.clone(), frame, LoopPlan.origin(thisMember));
                }
                names.add(Objects.requireNonNull(group), frame, thisMember);
                return more;
            }

            /** Whether the turn at hand is the first of a group; its keys are in the values then. */
            private boolean starts(Value thisMember) {
                if (begins != null) {
                    return group == null || begins.holds(frame);
                }
                boolean same = group != null;
                for (int i = 0; i < values.length; i++) {
                    Value value = key(i, thisMember);
                    same = same && (value == values[i] || Comparison.sameKey(value, values[i]));
                    values[i] = value;
                }
                return !same;
            }

            private Value key(int i, Value thisMember) {
                PathNodes.Named step = steps[i];
                Value value = step != null && thisMember instanceof RecordValue record ? step.evalIn(record) : null;
                return value != null && value.isScalar() ? value : nodes[i].scalar(frame);
            }

            @Override
            public void eachState(Consumer<GroupState> taker) {
                for (Group ended : complete) {
                    take(ended, taker);
                }
                if (group != null) {
                    take(group, taker);
                }
            }

            private void take(Group from, Consumer<GroupState> taker) {
                if (from.state() != null) {
                    taker.accept(from.state());
                }
            }

            private void flush() {
                if (group == null || !more) {
                    return;
                }
                if (held) {
                    complete.add(group);
                } else {
                    more = names.pass(group, frame, next);
                }
            }

            @Override
            public void end() {
                flush();
                group = null;
                for (Group ended : complete) {
                    if (!names.pass(ended, frame, next)) {
                        break;
                    }
                }
                next.end();
            }
        }
    }

    /** {@code sort by}: stable; absent and null come last either way. */
    record Sort(Stages.Keys keys, boolean[] descending, int[] names) implements Stage {
        @Override
        public String describe() {
            return "sort by " + keys.written() + ", holding all turns";
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            SortedTurns turns = new SortedTurns(
                    descending.length, this::compare, frame.run().holdings());
            return new Flow() {
                @Override
                public boolean turn() {
                    Value[] values = keys.values(frame);
                    @Nullable Object[] kept = new Object[names.length];
                    for (int i = 0; i < names.length; i++) {
                        kept[i] = frame.held(names[i]);
                    }
                    turns.add(new SortedTurns.Turn(kept, values));
                    return true;
                }

                @Override
                public void end() {
                    turns.each(this::turnAgain);
                    next.end();
                }

                private boolean turnAgain(SortedTurns.Turn turn) {
                    for (int i = 0; i < names.length; i++) {
                        frame.set(names[i], turn.names()[i]);
                    }
                    try {
                        return next.turn();
                    } catch (ProblemException e) {
                        throw LoopPlan.placed(e, turn.names()[0]);
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
