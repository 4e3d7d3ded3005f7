package dev.morphema.engine;

import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A for clause, compiled: a sequence, and stages through which each of its values is pushed.
 *
 * @param sequence what the first name goes through
 * @param slot of the first name
 * @param optional whether there is one turn, without value, where the sequence has none
 * @param stages the further clauses, in order
 * @param names the slots of the names that a turn has in the end
 * @param overMembers if the loop groups or sorts the members of a group, which can be done while
 *     they come; or null
 */
record LoopPlan(
        Node sequence,
        int slot,
        boolean optional,
        List<Stage> stages,
        List<Integer> names,
        @Nullable OverMembers overMembers) {
    /**
     * A loop over the members of a group.
     *
     * @param use of the members around it
     * @param index of the loop in that use
     * @param holding the stage that holds what is made of them
     */
    record OverMembers(GroupUse use, int index, int holding) {}

    LoopPlan {
        stages = List.copyOf(stages);
        names = List.copyOf(names);
    }

    /**
     * Goes through the loop.
     *
     * @param body takes each turn, and is not told of the end
     * @return whether the body wanted more to the end
     */
    boolean run(Frame frame, Flow body) {
        Last last = new Last(body);
        if (overMembers != null && !overMembers.use().keeps()) {
            GroupState state = (GroupState) frame.held(overMembers.use().slot());
            state.emit(overMembers.index(), start(frame, last, overMembers.holding() + 1));
        } else {
            Flow flow = start(frame, last, 0);
            feed(sequence, slot, optional, frame, flow);
            flow.end();
        }
        return last.more;
    }

    /** Remembers whether the body of a loop wanted more. */
    private static final class Last implements Flow {
        private final Flow body;
        private boolean more = true;

        Last(Flow body) {
            this.body = body;
        }

        @Override
        public boolean turn() {
            more = body.turn();
            return more;
        }

        @Override
        public RecordSink open() {
            return body.open();
        }

        @Override
        public boolean close() {
            more = body.close();
            return more;
        }
    }

    /**
     * What takes the members of a group around a loop.
     *
     * @param first takes the members, each under the loop's name
     * @param held what holds what is made of them
     */
    record Started(Flow first, HeldFlow held) {}

    /**
     * {@return what takes the members of a group around this loop, and passes on what was made of
     * them when it is ended}
     */
    Started startHolding(Frame frame, Flow next) {
        HeldFlow held = holding().startHeld(frame, next);
        Flow flow = held;
        for (int i = Objects.requireNonNull(overMembers).holding() - 1; i >= 0; i--) {
            flow = stages.get(i).start(frame, flow);
        }
        return new Started(flow, held);
    }

    /** {@return the stage that holds what is made of the members of the group around} */
    Stage.Holding holding() {
        return (Stage.Holding) stages.get(Objects.requireNonNull(overMembers).holding());
    }

    /**
     * {@return how many members at most it holds of those around it, beside what it makes of them}
     */
    int mostHeld() {
        return holding() instanceof SortStages.First first ? first.most() : 0;
    }

    /**
     * {@return how the members of the groups are used that this loop makes of just those around it;
     * null if it is not like that}
     */
    @Nullable
    GroupUse useOfSameMembers() {
        boolean first = overMembers != null && overMembers.holding() == 0 && !optional;
        return first && holding() instanceof Stage.Grouping grouping && PathNodes.isLocal(slot, grouping.member())
                ? grouping.use()
                : null;
    }

    /**
     * {@return what takes the records of the streamed source that this loop goes over}
     *
     * @param keeps whether the body may keep what it is given for later turns
     */
    RecordSink stream(Frame frame, Flow body, boolean keeps) {
        Flow flow = start(frame, body, 0);
        boolean kept = keeps || stages.stream().anyMatch(Stage::keeps);
        return sequence.stream(frame, new RecordSink() {
            @Override
            public boolean keeps() {
                return kept;
            }

            @Override
            public boolean takesBytes() {
                return groupsBytes();
            }

            @Override
            public boolean accept(Value item) {
                return turnWith(item, slot, frame, flow);
            }

            @Override
            public void end() {
                flow.end();
            }
        });
    }

    /** {@return whether it does nothing but group what it goes through, by bytes of its fields} */
    boolean groupsBytes() {
        return !optional
                && !stages.isEmpty()
                && stages.get(0) instanceof Stage.Grouping grouping
                && PathNodes.isLocal(slot, grouping.member())
                && grouping.takesBytes();
    }

    private Flow start(Frame frame, Flow body, int from) {
        Flow flow = body;
        for (int i = stages.size() - 1; i >= from; i--) {
            flow = stages.get(i).start(frame, flow);
        }
        return flow;
    }

    /**
     * Pushes the values of a sequence into a flow, each under a name; says whether more are wanted.
     */
    static boolean feed(Node sequence, int slot, boolean optional, Frame frame, Flow flow) {
        boolean[] any = {false};
        boolean more = sequence.each(frame, item -> {
            any[0] = true;
            return turnWith(item, slot, frame, flow);
        });
        if (optional && !any[0]) {
            frame.set(slot, Missing.ABSENT);
            more = flow.turn();
        }
        return more;
    }

    private static boolean turnWith(Value item, int slot, Frame frame, Flow flow) {
        frame.set(slot, item);
        RunState run = frame.run();
        int before = run.warnings().size();
        try {
            run.limits().step();
            boolean more = flow.turn();
            if (run.warnings().size() > before) {
                placeWarnings(run.warnings(), before, item);
            }
            return more;
        } catch (ProblemException e) {
            throw placed(e, item);
        }
    }

    /**
     * {@return the problem with the place in the input of the record or group it happened with,
     * unless it has one}
     */
    static ProblemException placed(ProblemException e, @Nullable Object held) {
        Origin origin = origin(held);
        Problem problem = e.problem();
        return problem.input() != null || origin == null
                ? e
                : new ProblemException(problem.in(origin.location(null)), e);
    }

    private static void placeWarnings(List<Problem> warnings, int from, Value item) {
        Origin origin = origin(item);
        for (int i = from; i < warnings.size(); i++) {
            if (warnings.get(i).input() == null && origin != null) {
                warnings.set(i, warnings.get(i).in(origin.location(null)));
            }
        }
    }

    /** {@return where in its input the turn at hand stands, or null if it stands in none} */
    @Nullable
    InputLocation place(Frame frame) {
        for (int name : names) {
            Origin origin = origin(frame.held(name));
            if (origin != null) {
                return origin.location(null);
            }
        }
        return null;
    }

    /**
     * {@return where what a slot of a frame holds stood in its input, or null if it stood in none}
     */
    static @Nullable Origin origin(@Nullable Object held) {
        if (held instanceof GroupState group) {
            return group.origin();
        }
        if (held instanceof RecordValue record) {
            if (record.origin() != null) {
                return record.origin();
            }
            for (int i = 0; i < record.layout().size(); i++) {
                // A record of several loop names stands where the first of them does.
                if (record.get(i) instanceof RecordValue inner && inner.origin() != null) {
                    return inner.origin();
                }
            }
            return null;
        }
        return held instanceof Many many && !many.items().isEmpty()
                ? origin(many.items().get(0))
                : null;
    }
}
