package dev.morphema.engine;

import dev.morphema.format.BareRecord;
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

    /** {@return whether it can do with most records before a value is made of them} */
    default boolean takesBare() {
        return false;
    }

    /** As {@link #accept(Value)}, for a record of which no value has been made. */
    default boolean accept(BareRecord record) {
        return accept(record.value());
    }

    /** There are no more records. */
    void end();
}
