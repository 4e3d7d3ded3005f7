package dev.morphema.plan;

import dev.morphema.function.Trait;
import dev.morphema.value.NumberValue;
import java.util.ArrayList;
import java.util.List;

/**
 * A sort after which only some turns are taken holds no more than these. So does a sort of which a
 * function wants nothing but the first item.
 */
final class LimitSorts implements Rule {
    /** With more turns to take all are sorted, which may spill them. */
    private static final int MOST = 1000;

    @Override
    public Plan apply(Plan plan) {
        return plan.rebuilt(unit -> new Pass());
    }

    private static final class Pass extends PlanPass {
        @Override
        public Pipeline pipeline(Pipeline pipeline) {
            Pipeline loop = super.pipeline(pipeline);
            List<Operator> operators = new ArrayList<>(loop.operators());
            for (int i = 0; i + 1 < operators.size(); i++) {
                int most = operators.get(i + 1) instanceof Operator.Take take ? most(take) : 0;
                if (most > 0 && operators.get(i) instanceof Operator.Sort sort) {
                    operators.set(i, sort.limitedTo(most));
                    operators.remove(i + 1);
                }
            }
            return loop.with(loop.sequence(), operators);
        }

        /** {@return how many turns are taken, if that is said and not too many, else 0} */
        private static int most(Operator.Take take) {
            if (take.count() instanceof Term.Constant constant && constant.value() instanceof NumberValue number) {
                int count = number.decimal().intValue();
                return count > 0 && count <= MOST && number.equals(NumberValue.of(count)) ? count : 0;
            }
            return 0;
        }

        @Override
        public Term term(Term term) {
            Term rebuilt = super.term(term);
            return rebuilt instanceof Term.Aggregate aggregate
                            && aggregate.function().traits().has(Trait.ONLY_FIRST)
                            && aggregate.items() instanceof Term.Each each
                    ? new Term.Aggregate(aggregate.span(), aggregate.function(), List.of(onlyFirst(each)))
                    : rebuilt;
        }

        private static Term onlyFirst(Term.Each each) {
            List<Operator> operators = new ArrayList<>(each.loop().operators());
            int last = operators.size() - 1;
            // Only if nothing is calculated for an item, which could fail for one that is not
            // wanted.
            boolean plain = each.item() instanceof Term.Name || each.item() instanceof Term.Member;
            if (!plain || last < 0 || !(operators.get(last) instanceof Operator.Sort sort) || sort.limit() > 0) {
                return each;
            }
            operators.set(last, new Operator.Present(each.item()));
            operators.add(sort.limitedTo(1));
            return new Term.Each(each.span(), each.loop().with(each.loop().sequence(), operators), each.item());
        }
    }
}
