package dev.morphema.engine;

/** A clause of a loop, compiled. Immutable; what it remembers is in the flow that it starts. */
interface Stage {
    /** {@return a flow that does what the clause says and passes its turns on} */
    Flow start(Frame frame, Flow next);

    /** {@return whether what is in the frame in one turn may be needed after it} */
    default boolean keeps() {
        return true;
    }

    /** A stage that holds less than all its turns, so that it may have them while they come. */
    interface Holding extends Stage {
        /**
         * {@return a flow like that of {@link #start}, which passes nothing on before its end, and
         * may be ended again}
         */
        HeldFlow startHeld(Frame frame, Flow next);
    }

    /** A stage that makes groups. */
    interface Grouping extends Holding {
        /** {@return what gives a member of a group} */
        Node member();

        /** {@return how the members of its groups are used} */
        GroupUse use();

        /**
         * {@return whether the keys are single fields of a member, and so is all that is needed of
         * the members}
         */
        boolean takesBytes();

        @Override
        default boolean keeps() {
            return !takesBytes();
        }
    }
}
