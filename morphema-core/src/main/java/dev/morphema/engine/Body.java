package dev.morphema.engine;

import dev.morphema.engine.Action.Pass;
import dev.morphema.format.EventWriter;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A compiled block. Immutable, shared by all runs. */
final class Body {
    private final Action[] actions;
    /** What there is to do where attributes must come first: for them, and for the rest. */
    private final Action[] withAttributes;

    private final Action[] withContent;
    /** All there is to do in one pass. */
    private final Action[] inOne;

    private final int[] emptied;
    private final boolean attributes;
    private final boolean text;
    private final int streamed;

    /**
     * @param actions the statements, in order
     * @param emptied the slots of lets and kept fields, forgotten when the block is entered
     * @param streamed the statement on the way to the loop that streams, or -1
     */
    Body(List<Action> actions, List<Integer> emptied, int streamed) {
        List<Action> first = new ArrayList<>();
        List<Action> rest = new ArrayList<>();
        boolean anyText = false;
        for (Action action : actions) {
            if (action.writesAttributes()) {
                first.add(action);
            }
            if (!action.isAttribute()) {
                rest.add(action);
            }
            anyText |= action.writesText();
        }
        this.actions = actions.toArray(new Action[0]);
        this.withAttributes = Steps.joined(first);
        this.withContent = Steps.joined(rest);
        this.inOne = Steps.joined(actions);
        this.emptied = new int[emptied.size()];
        for (int i = 0; i < this.emptied.length; i++) {
            this.emptied[i] = emptied.get(i);
        }
        this.attributes = !first.isEmpty();
        this.text = anyText;
        this.streamed = streamed;
    }

    boolean writesAttributes() {
        return attributes;
    }

    boolean writesText() {
        return text;
    }

    /** {@return the first loop in this block or blocks within it, or null} */
    @Nullable
    LoopPlan outermost() {
        for (Action action : actions) {
            Content content = action.content();
            LoopPlan loop = content == null ? null : Streams.outermost(content);
            if (loop != null) {
                return loop;
            }
        }
        return null;
    }

    /** Writes the whole block. */
    void run(Frame frame, EventWriter out) {
        frame.clear(emptied);
        Pass pass = text || attributes ? begin(frame, out) : Pass.ALL;
        run(pass == Pass.ALL ? inOne : withContent, frame, out, pass);
    }

    private static void run(Action[] actions, Frame frame, EventWriter out, Pass pass) {
        for (Action action : actions) {
            action.run(frame, out, pass);
        }
    }

    /** Runs the block as a part of the one around it, whose pass it follows. */
    void run(Frame frame, EventWriter out, Pass pass) {
        if (pass != Pass.CONTENT) {
            frame.clear(emptied);
        }
        run(frame, out, pass, 0, actions.length);
    }

    /** Writes the attributes if they must come first, and says what is left to be written. */
    private Pass begin(Frame frame, EventWriter out) {
        if (text) {
            out.mixed();
        }
        if (!attributes || !out.attributesFirst()) {
            return Pass.ALL;
        }
        run(withAttributes, frame, out, Pass.ATTRIBUTES);
        return Pass.CONTENT;
    }

    private void run(Frame frame, EventWriter out, Pass pass, int from, int to) {
        for (int i = from; i < to; i++) {
            actions[i].run(frame, out, pass);
        }
    }

    /** Writes what stands before the streamed loop. */
    RecordSink open(Frame frame, EventWriter out) {
        frame.clear(emptied);
        Pass pass = begin(frame, out);
        run(frame, out, pass, 0, streamed);
        return actions[streamed].open(frame, out);
    }

    /** Writes what stands after the streamed loop. */
    void close(Frame frame, EventWriter out) {
        actions[streamed].close(frame, out);
        Pass pass = attributes && out.attributesFirst() ? Pass.CONTENT : Pass.ALL;
        run(frame, out, pass, streamed + 1, actions.length);
    }
}
