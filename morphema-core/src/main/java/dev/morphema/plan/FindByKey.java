package dev.morphema.plan;

import dev.morphema.syntax.Expr;
import java.util.ArrayList;
import java.util.List;

/**
 * Where a loop goes over what is the same all through a run, and the first thing it asks is whether
 * keys of each item are equal to something else, it goes only over the items with these keys.
 */
final class FindByKey implements Rule {
    @Override
    public Plan apply(Plan plan) {
        return plan.rebuilt(unit -> new PlanPass() {
            @Override
            public Pipeline pipeline(Pipeline pipeline) {
                Pipeline loop = super.pipeline(pipeline);
                boolean pulled = loop.supply() == Pipeline.Supply.PULLED && !loop.optional();
                Term sequence = pulled && isFilter(loop, 0)
                        ? found(loop.sequence(), loop.slot(), loop.operators().get(0))
                        : loop.sequence();
                List<Operator> operators = new ArrayList<>(loop.operators());
                for (int i = 0; i < operators.size(); i++) {
                    if (operators.get(i) instanceof Operator.Unnest unnest
                            && !unnest.optional()
                            && isFilter(loop, i + 1)) {
                        Term over = found(unnest.sequence(), unnest.slot(), operators.get(i + 1));
                        operators.set(i, new Operator.Unnest(over, unnest.slot(), false));
                    }
                }
                return loop.with(sequence, operators);
            }
        });
    }

    private static boolean isFilter(Pipeline loop, int operator) {
        return operator < loop.operators().size() && loop.operators().get(operator) instanceof Operator.Filter;
    }

    /**
     * {@return those of a sequence that can fulfil a condition, if that asks for keys; else all}
     */
    private static Term found(Term sequence, int slot, Operator filter) {
        List<Term> keys = new ArrayList<>();
        List<Term> asked = new ArrayList<>();
        if (Dependence.isInvariant(sequence)) {
            collect(slot, ((Operator.Filter) filter).condition(), keys, asked);
        }
        return keys.isEmpty() ? sequence : new PlannedTerm.FoundByKey(sequence, slot, keys, asked);
    }

    /**
     * Adds the keys that a condition asks for before anything else; says whether it asks for
     * nothing else.
     */
    private static boolean collect(int slot, Term condition, List<Term> keys, List<Term> asked) {
        if (!(condition.meant() instanceof Term.Binary binary)) {
            return false;
        }
        if (binary.operator() == Expr.Operator.AND) {
            return collect(slot, binary.left(), keys, asked) && collect(slot, binary.right(), keys, asked);
        }
        if (binary.operator() != Expr.Operator.EQUAL) {
            return false;
        }
        if (isOfItem(binary.left(), slot) && isOfOthers(binary.right(), slot)) {
            keys.add(binary.left());
            asked.add(binary.right());
            return true;
        }
        if (isOfItem(binary.right(), slot) && isOfOthers(binary.left(), slot)) {
            keys.add(binary.right());
            asked.add(binary.left());
            return true;
        }
        return false;
    }

    private static boolean isOfItem(Term term, int slot) {
        return Dependence.of(term).isOn(used -> used == slot);
    }

    private static boolean isOfOthers(Term term, int slot) {
        return Dependence.of(term).isOn(used -> used != slot);
    }
}
