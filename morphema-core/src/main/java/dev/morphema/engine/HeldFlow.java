package dev.morphema.engine;

import java.util.function.Consumer;

/** A flow that makes groups and passes none on before its end. */
interface HeldFlow extends Flow {
    /** Gives what is kept up of each group that there is so far, in order; of groups whose members are kept, nothing. */
    void eachState(Consumer<GroupState> taker);
}
