package dev.morphema.engine;

/**
 * One run of a loop from some stage on: told of each turn, with the names in the frame, and of the
 * end.
 */
@FunctionalInterface
interface Flow {
    /**
     * One more turn.
     *
     * @return whether more are wanted
     */
    boolean turn();

    /** There are no more turns; of no matter to a flow that holds nothing back. */
    default void end() {
        // nothing is held back
    }

    /**
     * Begins a turn for a group whose members come one at a time; its keys are in the frame. Only
     * of a flow after the groups whose members are {@linkplain GroupUse#passes passed on}.
     *
     * @return what takes the members
     */
    default RecordSink open() {
        throw new IllegalStateException("takes no members one at a time");
    }

    /**
     * Ends that turn; what functions over the members came to is in the frame.
     *
     * @return whether more turns are wanted
     */
    default boolean close() {
        throw new IllegalStateException("takes no members one at a time");
    }
}
