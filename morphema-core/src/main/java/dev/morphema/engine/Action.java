package dev.morphema.engine;

import dev.morphema.format.EventWriter;
import org.jspecify.annotations.Nullable;

/** A compiled statement. Immutable, shared by all runs. */
abstract class Action {
    /** What part of a block is being written. */
    enum Part {
        /** All of it, in written order. */
        ALL,
        /** Only attributes, for formats that must have them first. */
        ATTRIBUTES,
        /** All but attributes. */
        CONTENT
    }

    /** Does what the statement says, as far as the pass concerns it. */
    abstract void run(Frame frame, EventWriter out, Part pass);

    /** {@return whether it may write attributes of the block at hand} */
    boolean writesAttributes() {
        return false;
    }

    /** {@return whether it writes an attribute of the block at hand, and nothing else} */
    boolean isAttribute() {
        return false;
    }

    /** {@return whether it may write text of the block at hand, between its fields} */
    boolean writesText() {
        return false;
    }

    /** {@return what the statement writes, if it is a field or an item, else null} */
    @Nullable
    Content content() {
        return null;
    }

    /**
     * Begins to stream: writes what stands before the records. Only on the way to a loop that
     * streams.
     */
    RecordSink open(Frame frame, EventWriter out) {
        throw new IllegalStateException("cannot stream");
    }

    /** Ends to stream: writes what stands after the records. */
    void close(Frame frame, EventWriter out) {
        throw new IllegalStateException("cannot stream");
    }
}
