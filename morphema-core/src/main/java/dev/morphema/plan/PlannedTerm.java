package dev.morphema.plan;

import dev.morphema.syntax.Span;
import java.util.List;

/** A term that only rules of the planner put in: none is written so in a mapping. */
public sealed interface PlannedTerm extends Term {
    /**
     * What gives the same all through a run, so that it is calculated only once. On the right of
     * {@code in} it is not kept, but indexed.
     */
    record Once(Term term) implements PlannedTerm {
        @Override
        public Span span() {
            return term.span();
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.once(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Once(pass.term(term));
        }
    }

    /** A function over the members of a group that is kept up to date while they come. */
    record Running(Aggregate aggregate, int members) implements PlannedTerm {
        @Override
        public Span span() {
            return aggregate.span();
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.running(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Running((Aggregate) aggregate.rebuilt(pass), pass.slot(members));
        }
    }

    /**
     * A function over the records of a source that is calculated while these are read for it.
     *
     * @param steps how many steps lead from a record down to what the function takes
     */
    record Total(Aggregate aggregate, Scan scan, int steps) implements PlannedTerm {
        @Override
        public Span span() {
            return aggregate.span();
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.total(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Total((Aggregate) aggregate.rebuilt(pass), scan, steps);
        }
    }

    /** A sequence of records that are read while a loop goes over them, which it does once. */
    record Scanned(Term sequence, Scan scan) implements PlannedTerm {
        @Override
        public Span span() {
            return sequence.span();
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.scanned(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new Scanned(pass.term(sequence), scan);
        }
    }

    /**
     * Of a sequence that is the same all through a run, the values with certain keys.
     *
     * @param slot of the name under which a loop has the value at hand
     * @param keys of that value
     * @param asked what each key must be, which is the same for all values
     */
    record FoundByKey(Term sequence, int slot, List<Term> keys, List<Term> asked) implements PlannedTerm {
        @Override
        public Span span() {
            return sequence.span();
        }

        @Override
        public <R> R accept(TermVisitor<R> visitor) {
            return visitor.foundByKey(this);
        }

        @Override
        public Term rebuilt(PlanPass pass) {
            return new FoundByKey(pass.term(sequence), pass.slot(slot), pass.terms(keys), pass.terms(asked));
        }
    }
}
