package dev.morphema.engine;

import dev.morphema.format.BareRecord;
import java.util.function.Consumer;

/** A flow that makes groups and passes none on before its end. */
interface HeldFlow extends Flow {
    /**
     * Takes a member from the bytes of its record, if its group is there; only of a grouping that {@link
     * Stage.Grouping#takesBare takes bare records}.
     *
     * @return whether it did; if not, nothing has changed, and {@link #turn} is to be called for it
     */
    boolean take(BareRecord record);

    /** Gives what is kept up of each group that there is so far, in order; of groups whose members are kept, nothing. */
    void eachState(Consumer<GroupState> taker);
}
