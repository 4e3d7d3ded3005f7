package dev.morphema.engine;

import java.util.function.Consumer;

/**
 * A flow that holds what it makes of its turns, such as groups, and passes nothing on before its
 * end.
 */
interface HeldFlow extends Flow {
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
