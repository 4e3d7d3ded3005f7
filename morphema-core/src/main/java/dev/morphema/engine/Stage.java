package dev.morphema.engine;

/** A clause of a loop, compiled. Immutable; what it remembers is in the flow that it starts. */
interface Stage {
    /** {@return a flow that does what the clause says and passes its turns on} */
    Flow start(Frame frame, Flow next);

    /** {@return a flow like that of {@link #start}, which passes nothing on before its end; for stages that make groups} */
    default Flow startHeld(Frame frame, Flow next) {
        return start(frame, next);
    }

    /** {@return the stage in one line, as the printed plan shows it} */
    String describe();
}
