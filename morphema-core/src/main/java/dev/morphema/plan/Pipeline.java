package dev.morphema.plan;

import java.util.List;

/**
 * A loop: a sequence, and operators through which each of its items goes in turn.
 *
 * @param sequence what it goes over
 * @param slot of the name that an item has
 * @param optional whether there is one turn, without item, where the sequence has none
 * @param operators in order
 * @param names the slots of the names that a turn has in the end
 * @param supply how it comes to its items
 */
public record Pipeline(
        Term sequence, int slot, boolean optional, List<Operator> operators, List<Integer> names, Supply supply) {
    /** How a loop comes to its items. */
    public enum Supply {
        /** It goes over the sequence each time that it begins. */
        PULLED,
        /** They are given to it one at a time: records as they are read, or members of a group. */
        PUSHED,
        /**
         * It goes over the members of a group, and its operators, up to the first that holds turns
         * back, take them while they come.
         */
        FOLDED
    }

    public Pipeline {
        operators = List.copyOf(operators);
        names = List.copyOf(names);
    }

    Pipeline with(Supply other) {
        return new Pipeline(sequence, slot, optional, operators, names, other);
    }

    Pipeline with(Term otherSequence, List<Operator> otherOperators) {
        return new Pipeline(otherSequence, slot, optional, otherOperators, names, supply);
    }

    Pipeline rebuilt(PlanPass pass) {
        Term over = pass.term(sequence);
        return new Pipeline(
                over,
                pass.slot(slot),
                optional,
                operators.stream().map(pass::operator).toList(),
                pass.slots(names),
                supply);
    }

    /** {@return whether it goes over just the members of a group, each of which is a turn} */
    boolean isOver(int members) {
        return !optional && sequence instanceof Term.Name name && name.slot() == members;
    }
}
