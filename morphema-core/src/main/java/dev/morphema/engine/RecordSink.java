package dev.morphema.engine;

import dev.morphema.value.Value;

/** Takes the records of a source that streams, and is told when there are no more. */
interface RecordSink {
    /**
     * Takes one more record.
     *
     * @return whether more are wanted
     */
    boolean accept(Value record);

    /** {@return whether it may still have a record when it takes the next one} */
    default boolean keeps() {
        return true;
    }

    /** {@return whether it makes no values of most fields, so that they had best stay bytes} */
    default boolean takesBytes() {
        return false;
    }

    /** There are no more records. */
    void end();
}
