package dev.morphema.plan;

import java.util.List;

/**
 * Goes through a plan in written order, and gives each part back as it is, or another in its place.
 * A subclass overrides what it looks at or changes; the overridden method goes on below.
 */
public abstract class PlanPass {
    /** Goes through a term. */
    public Term term(Term term) {
        return term.rebuilt(this);
    }

    /** Goes through terms. */
    public final List<Term> terms(List<Term> all) {
        return all.stream().map(this::term).toList();
    }

    /** Goes through a loop. */
    public Pipeline pipeline(Pipeline pipeline) {
        return pipeline.rebuilt(this);
    }

    /** Goes through an operator of a loop. */
    public Operator operator(Operator operator) {
        return operator.rebuilt(this);
    }

    /** Goes through what a field, an item or a document is given. */
    public Output output(Output output) {
        return output.rebuilt(this);
    }

    /** Goes through a statement. */
    public Emit emit(Emit emit) {
        return emit.rebuilt(this);
    }

    /** Goes through a block. */
    public Emits emits(Emits emits) {
        return emits.rebuilt(this);
    }

    /** {@return the slot that stands for another} */
    public int slot(int slot) {
        return slot;
    }

    /** {@return the slots that stand for others} */
    public final List<Integer> slots(List<Integer> all) {
        return all.stream().map(this::slot).toList();
    }

    /** {@return how many slots a unit has, through all of which this pass went} */
    public int slots(int before) {
        return before;
    }

    /** Goes through all of a target. */
    public Plan.Target target(Plan.Target target) {
        return target.rebuilt(this);
    }
}
