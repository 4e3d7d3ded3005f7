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
        out.beginList();
        return turns((Content.Repeated) content, frame, out);
    }

    /** {@return what takes the records of the loop, each of which becomes turns} */
    static RecordSink turns(Content.Repeated repeated, Frame frame, EventWriter out) {
        return repeated.loop().stream(frame, new Flow() {
            @Override
            public boolean turn() {
                repeated.turn(frame, out);
                return true;
            }

            @Override
            public void end() {
                // what stands after the records is written when the target is closed
            }
        });
    }

    static void close(Content content, Frame frame, EventWriter out) {
        if (content instanceof Content.Nested nested) {
            nested.body().close(frame, out);
            out.endRecord();
        } else if (content instanceof Content.Pieces pieces) {
            pieces.body().close(frame, out);
            out.endList();
        } else {
            out.endList();
        }
    }

    /** {@return the first loop that stands directly in a document or in blocks within blocks, or null} */
    static @Nullable LoopPlan outermost(Content content) {
        if (content instanceof Content.Repeated repeated) {
            return repeated.loop();
        }
        if (content instanceof Content.Nested nested) {
            return nested.body().outermost();
        }
        return content instanceof Content.Pieces pieces ? pieces.body().outermost() : null;
    }
}
