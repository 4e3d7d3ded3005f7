package dev.morphema.plan;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** What a loop does with its turns. */
public sealed interface Operator {
    /** {@return this operator with its parts as a pass gives them} */
    Operator rebuilt(PlanPass pass);

    /** Calls the method of the visitor for this kind of operator. */
    void accept(Visitor visitor);

    /** {@return whether it may hold more the more turns there are} */
    default boolean holds() {
        return false;
    }

    /** Goes over a sequence in each turn. */
    record Unnest(Term sequence, int slot, boolean optional) implements Operator {
        @Override
        public Operator rebuilt(PlanPass pass) {
            return new Unnest(pass.term(sequence), pass.slot(slot), optional);
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.unnest(this);
        }
    }

    /** Keeps the turns for which something is so. */
    record Filter(Term condition) implements Operator {
        @Override
        public Operator rebuilt(PlanPass pass) {
            return new Filter(pass.term(condition));
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.filter(this);
        }
    }

    /** Drops the turns that would give nothing. */
    record Present(Term item) implements Operator {
        @Override
        public Operator rebuilt(PlanPass pass) {
            return new Present(pass.term(item));
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.present(this);
        }
    }

    /** Names a value, which is calculated when it is used. */
    record Let(int slot, Term value) implements Operator {
        @Override
        public Operator rebuilt(PlanPass pass) {
            return new Let(pass.slot(slot), pass.term(value));
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.let(this);
        }
    }

    /** Which turns belong together. */
    enum Grouping {
        /** Those with the same keys, in order of the first of each. */
        BY_KEY,
        /** Neighbours with the same keys. */
        RUNS,
        /** A turn for which something is so, with those up to the next such. */
        FROM
    }

    /**
     * Makes groups.
     *
     * @param keys none where groups begin by a condition
     * @param begins the condition by which a group begins, or null
     * @param member what of a turn belongs to its group
     * @param keySlots of the names of the keys
     * @param members the slot of the name of the members
     * @param kept whether the members are held together, as values
     */
    record Group(
            Grouping grouping,
            List<Term> keys,
            @Nullable Term begins,
            Term member,
            List<Integer> keySlots,
            int members,
            boolean kept)
            implements Operator {
        /** {@return whether a group has ended when the next begins} */
        boolean ends() {
            return grouping != Grouping.BY_KEY;
        }

        Group keeping(boolean members) {
            return new Group(grouping, keys, begins, member, keySlots, this.members, members);
        }

        @Override
        public Operator rebuilt(PlanPass pass) {
            return new Group(
                    grouping,
                    pass.terms(keys),
                    begins == null ? null : pass.term(begins),
                    pass.term(member),
                    pass.slots(keySlots),
                    pass.slot(members),
                    kept);
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.group(this);
        }
    }

    /**
     * Gives turns back in order.
     *
     * @param descending for each key
     * @param names the slots of the names that a turn has here
     * @param limit how many turns are wanted of it; 0 if all are
     */
    record Sort(List<Term> keys, List<Boolean> descending, List<Integer> names, int limit) implements Operator {
        Sort limitedTo(int most) {
            return new Sort(keys, descending, names, most);
        }

        @Override
        public boolean holds() {
            return true;
        }

        @Override
        public Operator rebuilt(PlanPass pass) {
            return new Sort(pass.terms(keys), descending, pass.slots(names), limit);
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.sort(this);
        }
    }

    /** Keeps the first turn of each key. */
    record Distinct(List<Term> keys) implements Operator {
        @Override
        public boolean holds() {
            return true;
        }

        @Override
        public Operator rebuilt(PlanPass pass) {
            return new Distinct(pass.terms(keys));
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.distinct(this);
        }
    }

    /** Counts the turns, perhaps each key for itself. */
    record Number(int slot, List<Term> keys) implements Operator {
        @Override
        public Operator rebuilt(PlanPass pass) {
            return new Number(pass.slot(slot), pass.terms(keys));
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.number(this);
        }
    }

    /** Ends the loop after some turns. */
    record Take(Term count) implements Operator {
        @Override
        public Operator rebuilt(PlanPass pass) {
            return new Take(pass.term(count));
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.take(this);
        }
    }

    /** Does one thing for each kind of operator. */
    interface Visitor {
        void unnest(Unnest unnest);

        void filter(Filter filter);

        void present(Present present);

        void let(Let let);

        void group(Group group);

        void sort(Sort sort);

        void distinct(Distinct distinct);

        void number(Number number);

        void take(Take take);
    }
}
