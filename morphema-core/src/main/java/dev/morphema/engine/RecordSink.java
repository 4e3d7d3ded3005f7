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

    /** There are no more records. */
    void end();
}
