package dev.morphema.engine;

import dev.morphema.format.EventWriter;
import org.jspecify.annotations.Nullable;

/** The contents on the way to a loop that streams: begun before the records, ended after them. */
final class Streams {
    private Streams() {}

    static RecordSink open(Content content, Frame frame, EventWriter out) {
        if (content instanceof Content.Nested nested) {
            out.beginRecord();
            return nested.body().open(frame, out);
        }
        if (content instanceof Content.Pieces pieces) {
            out.beginList();
            return pieces.body().open(frame, out);
        }
        Content.Looped looped = (Content.Looped) content;
        looped.begin(out);
        return turns(looped, frame, out);
    }

    /** {@return what takes the records of the loop, each of which becomes turns} */
    static RecordSink turns(Content.Looped looped, Frame frame, EventWriter out) {
        return looped.loop().stream(frame, looped.turns(frame, out), false);
    }

    static void close(Content content, Frame frame, EventWriter out) {
        if (content instanceof Content.Nested nested) {
            nested.body().close(frame, out);
            out.endRecord();
        } else if (content instanceof Content.Pieces pieces) {
            pieces.body().close(frame, out);
            out.endList();
        } else {
            ((Content.Looped) content).end(out);
        }
    }

    /**
     * {@return the first loop that stands directly in a document or in blocks within blocks, or
     * null}
     */
    static @Nullable LoopPlan outermost(Content content) {
        if (content instanceof Content.Looped looped) {
            return looped.loop();
        }
        if (content instanceof Content.Nested nested) {
            return nested.body().outermost();
        }
        return content instanceof Content.Pieces pieces ? pieces.body().outermost() : null;
    }
}
