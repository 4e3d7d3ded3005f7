package dev.morphema.engine;

/** A clause of a loop, compiled. Immutable; what it remembers is in the flow that it starts. */
interface Stage {
    /** {@return a flow that does what the clause says and passes its turns on} */
    Flow start(Frame frame, Flow next);

    /** {@return the stage in one line, as the printed plan shows it} */
    String describe();
}
