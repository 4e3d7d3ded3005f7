package dev.morphema.plan;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;

/** The members of a group are held together only if something uses them as values. */
final class HoldMembers implements Rule {
    /** So many functions over the members are kept up at most; with more the members are held. */
    private static final int MOST_FUNCTIONS = 64;

    @Override
    public Plan apply(Plan plan) {
        return plan.rebuilt(unit -> {
            Uses uses = new Uses();
            unit.rebuilt(uses);
            return new PlanPass() {
                @Override
                public Operator operator(Operator operator) {
                    Operator rebuilt = super.operator(operator);
                    return rebuilt instanceof Operator.Group group
                            ? group.keeping(uses.areValues(group.members()))
                            : rebuilt;
                }
            };
        });
    }

    private static final class Uses extends PlanPass {
        /** The slots of names that are used as values. */
        private final Set<Integer> values = new HashSet<>();

        private final Map<Integer, Integer> functions = new HashMap<>();
        /** Members of groups that are just taken one at a time. */
        private final Set<Integer> taken = new HashSet<>();

        boolean areValues(int members) {
            return values.contains(members) || functions.getOrDefault(members, 0) > MOST_FUNCTIONS;
        }

        @Override
        public Term term(Term term) {
            if (term instanceof Term.Name name && !taken.contains(name.slot())) {
                values.add(name.slot());
            }
            if (term instanceof PlannedTerm.Running running) {
                functions.merge(running.members(), 1, Integer::sum);
                boolean outer = taken.add(running.members());
                super.term(term);
                if (outer) {
                    taken.remove(running.members());
                }
                return term;
            }
            return super.term(term);
        }

        @Override
        public Pipeline pipeline(Pipeline pipeline) {
            if (pipeline.supply() != Pipeline.Supply.FOLDED) {
                return super.pipeline(pipeline);
            }
            pipeline.operators().forEach(this::operator);
            return pipeline;
        }
    }
}
