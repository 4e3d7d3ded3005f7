package dev.morphema.engine;

/** One run of a loop from some stage on: told of each turn, with the names in the frame, and of the end. */
interface Flow {
    /**
     * One more turn.
     *
     * @return whether more are wanted
     */
    boolean turn();

    /** There are no more turns. */
    void end();
}
