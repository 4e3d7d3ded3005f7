package dev.morphema.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What is done with the members of the groups of one unit while they come. */
final class GroupWork extends PlanPass {
    /** What is done with the members of one kind of group. */
    static final class OfGroup {
        private final List<Term.Aggregate> functions = new ArrayList<>();
        private final List<Pipeline> folded = new ArrayList<>();
        private @Nullable Pipeline pushed;

        /** {@return the functions that are kept up} */
        List<Term.Aggregate> functions() {
            return functions;
        }

        /** {@return the loops that take the members while they come} */
        List<Pipeline> folded() {
            return folded;
        }

        /** {@return the loop to which the members are passed on, or null} */
        @Nullable
        Pipeline pushed() {
            return pushed;
        }
    }

    private final Map<Integer, OfGroup> byMembers = new HashMap<>();

    /** {@return what is done in a target} */
    static GroupWork in(Plan.Target target) {
        GroupWork work = new GroupWork();
        work.target(target);
        return work;
    }

    /** {@return what is done with the members that a group clause makes} */
    OfGroup of(Operator.Group group) {
        return of(group.members());
    }

    private OfGroup of(int members) {
        return byMembers.computeIfAbsent(members, slot -> new OfGroup());
    }

    @Override
    public Term term(Term term) {
        if (term instanceof PlannedTerm.Running running) {
            of(running.members()).functions().add(running.aggregate());
        }
        return super.term(term);
    }

    @Override
    public Pipeline pipeline(Pipeline pipeline) {
        if (pipeline.sequence() instanceof Term.Name name) {
            OfGroup group = of(name.slot());
            if (pipeline.supply() == Pipeline.Supply.FOLDED) {
                group.folded.add(pipeline);
            } else if (pipeline.supply() == Pipeline.Supply.PUSHED) {
                group.pushed = pipeline;
            }
        }
        return super.pipeline(pipeline);
    }
}
