package dev.morphema.plan;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** A let that nothing asks for needs nothing. */
final class DropUnusedLets implements Rule {
    @Override
    public Plan apply(Plan plan) {
        return plan.rebuilt(unit -> {
            Uses uses = new Uses();
            unit.rebuilt(uses);
            return new Pass(uses.asked);
        });
    }

    private static final class Uses extends PlanPass {
        private final Set<Integer> asked = new HashSet<>();

        @Override
        public Term term(Term term) {
            if (term instanceof Term.Lazy lazy) {
                asked.add(lazy.slot());
            }
            return super.term(term);
        }
    }

    private static final class Pass extends PlanPass {
        private final Set<Integer> asked;

        Pass(Set<Integer> asked) {
            this.asked = asked;
        }

        @Override
        public Emits emits(Emits emits) {
            List<Emit> kept = new ArrayList<>(emits.statements());
            kept.removeIf(emit -> emit instanceof Emit.Let let && !asked.contains(let.slot()));
            return super.emits(new Emits(kept, emits.emptied(), emits.guardedIn()));
        }

        @Override
        public Pipeline pipeline(Pipeline pipeline) {
            List<Operator> kept = new ArrayList<>(pipeline.operators());
            kept.removeIf(operator -> operator instanceof Operator.Let let && !asked.contains(let.slot()));
            return super.pipeline(pipeline.with(pipeline.sequence(), kept));
        }
    }
}
