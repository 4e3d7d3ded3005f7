package dev.morphema.engine;

import dev.morphema.format.EventWriter;

/** A compiled statement. Immutable, shared by all runs. */
abstract class Action {
    /** What part of a block is being written. */
    enum Pass {
        /** All of it, in written order. */
        ALL,
        /** Only attributes, for formats that must have them first. */
        ATTRIBUTES,
        /** All but attributes. */
        CONTENT
    }

    /** Does what the statement says, as far as the pass concerns it. */
    abstract void run(Frame frame, EventWriter out, Pass pass);

    /** {@return whether it may write attributes of the block at hand} */
    boolean writesAttributes() {
        return false;
    }

    /** Begins to stream: writes what stands before the records. Only on the way to a loop that streams. */
    RecordSink open(Frame frame, EventWriter out) {
        throw new IllegalStateException("cannot stream");
    }

    /** Ends to stream: writes what stands after the records. */
    void close(Frame frame, EventWriter out) {
        throw new IllegalStateException("cannot stream");
    }
}
