package dev.morphema.engine;

import dev.morphema.problem.ProblemException;
import dev.morphema.store.MemoryBudget;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.List;
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

        /**
         * Puts a member under the name of all; a list that is a member is one thing, not its items.
         */
        private void name(Frame frame, Value member) {
            frame.set(use.slot(), member instanceof ListValue ? Many.of(List.of(member)) : member);
        }

        /** Passes on a group that is not tallied. */
        boolean pass(Group group, Frame frame, Flow next) {
            GroupState state = group.state();
            return pass(group, state == null ? Many.owned(group.members()) : state, frame, next);
        }

        /**
         * @param held what stands for the members where the mapping uses them: their state, or they
         * themselves
         */
        boolean pass(Group group, Object held, Frame frame, Flow next) {
            set(group, held, frame);
            return frame.run().units().run(null, () -> {
                try {
                    return next.turn();
                } catch (ProblemException e) {
                    throw LoopPlan.placed(e, held);
                }
            });
        }

        /** Passes on a group, and its members one at a time. */
        boolean pass(Group group, GroupState state, Frame frame, Flow next, Consumer<RecordSink> members) {
            set(group, state, frame);
            try {
                RecordSink sink = next.open();
                members.accept(sink);
                sink.end();
                return next.close();
            } catch (ProblemException e) {
                throw LoopPlan.placed(e, state);
            }
        }

        /** Puts the keys of a group, and what stands for its members, under their names. */
        void set(Group group, Object held, Frame frame) {
            for (int i = 0; i < keys.length; i++) {
                frame.set(keys[i], group.key(i));
            }
            frame.set(use.slot(), held);
        }
    }

    /** {@code group by}: groups in order of first appearance. */
    record By(Stages.Keys keys, Node member, Names names) implements Stage.Grouping {
        @Override
        public GroupUse use() {
            return names.use();
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            return grouping(frame, next, frame.run().budget());
        }

        @Override
        public HeldFlow startHeld(Frame frame, Flow next) {
            return grouping(frame, next, null);
        }

        @Override
        public boolean takesBytes() {
            return keys.areFieldsOf(member) && names.use().takesBytes();
        }

        private HeldFlow grouping(Frame frame, Flow next, @Nullable MemoryBudget budget) {
            HashGroups groups = new HashGroups(names, member instanceof NameNodes.Local, frame, budget);
            Value[] values = new Value[keys.nodes().size()];
            boolean byField = keys.areFieldsOf(member);
            boolean waits = frame.run().units().areWithin();
            return new HeldFlow() {
                @Override
                public void eachState(Consumer<GroupState> taker) {
                    groups.eachState(taker);
                }

                @Override
                public boolean turn() {
                    Value one = member.eval(frame);
                    if (waits) {
                        Value[] itsKeys = keys.values(frame);
                        frame.run().units().takeUp(() -> groups.add(itsKeys, one));
                        return true;
                    }
                    if (!(byField && one instanceof RecordValue record && isAddedByBytes(record))) {
                        keys.fill(frame, values);
                        groups.add(values, one);
                    }
                    return true;
                }

                private boolean isAddedByBytes(RecordValue record) {
                    int[] slots = keys.plainSlots(frame, record);
                    if (slots.length == 0) {
                        return false;
                    }
                    groups.add(record, slots);
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
        public boolean takesBytes() {
            return keys != null && keys.areFieldsOf(member) && names.use().takesBytes();
        }

        @Override
        public Flow start(Frame frame, Flow next) {
            return new AdjacentGroups(this, frame, next, false);
        }

        @Override
        public HeldFlow startHeld(Frame frame, Flow next) {
            return new AdjacentGroups(this, frame, next, true);
        }
    }
}
