package dev.morphema.engine;

import dev.morphema.format.BareRecord;
import java.util.function.Consumer;

/**
 * A flow that holds what it makes of its turns, such as groups, and passes nothing on before its
 * end.
 */
interface HeldFlow extends Flow {
    /**
     * Takes a member of a group from the bytes of its record, if its group is there; only of a
     * grouping that {@link Stage.Grouping#takesBare takes bare records}.
     *
     * @return whether it did; if not, nothing has changed, and {@link #turn} is to be called for it
     */
    default boolean take(BareRecord record) {
        return false;
    }

    /**
     * Gives what is kept up of each group that there is so far, in order; of groups whose members
     * are kept, nothing.
     */
    default void eachState(Consumer<GroupState> taker) {
        // nothing where there are no groups
    }

    @Override
    void end();
}
