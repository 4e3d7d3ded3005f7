package dev.morphema.plan;

/**
 * A function over many values that gives the same all through a run is calculated once, and what
 * {@code in} looks through is indexed if it is the same all through a run.
 */
final class HoistInvariants implements Rule {
    @Override
    public Plan apply(Plan plan) {
        return plan.rebuilt(unit -> new PlanPass() {
            @Override
            public Term term(Term term) {
                Term rebuilt = super.term(term);
                if (rebuilt instanceof Term.Binary binary && binary.isMembership()) {
                    Term among = binary.right();
                    return Dependence.isInvariant(among) && !(among instanceof Term.Once)
                            ? new Term.Binary(binary.span(), binary.operator(), binary.left(), new Term.Once(among))
                            : rebuilt;
                }
                boolean overMany = rebuilt instanceof Term.Aggregate || rebuilt instanceof Term.Total;
                return overMany && Dependence.isInvariant(rebuilt) ? new Term.Once(rebuilt) : rebuilt;
            }
        });
    }
}
