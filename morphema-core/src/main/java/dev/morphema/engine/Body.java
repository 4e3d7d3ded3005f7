package dev.morphema.engine;

import dev.morphema.engine.Action.Part;
import dev.morphema.event.NameGuard;
import dev.morphema.format.EventWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
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
     * Where the watch over the names of a record is kept while it is written, or -1 if no name can
     * come twice.
     */
    private final int guardedIn;

    private final NameGuard.Statement[] statements;

    /**
     * @param actions the statements, in order
     * @param statements the same, for messages
     * @param emptied the slots of lets and kept fields, forgotten when the block is entered
     * @param streamed the statement on the way to the loop that streams, or -1
     * @param sites numbers the places that look for fields
     * @param guardedIn a slot for the watch over names that may come twice, or -1 if none can
     */
    Body(
            List<Action> actions,
            List<NameGuard.Statement> statements,
            List<Integer> emptied,
            int streamed,
            int guardedIn,
            SlotSite.Numbering sites) {
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
        this.withAttributes = Steps.joined(first, sites);
        this.withContent = Steps.joined(rest, sites);
        this.inOne = Steps.joined(actions, sites);
        this.emptied = new int[emptied.size()];
        for (int i = 0; i < this.emptied.length; i++) {
            this.emptied[i] = emptied.get(i);
        }
        this.attributes = !first.isEmpty();
        this.text = anyText;
        this.streamed = streamed;
        this.guardedIn = guardedIn;
        this.statements = statements.toArray(new NameGuard.Statement[0]);
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
        if (guardedIn >= 0) {
            EventWriter guard = guard(out);
            frame.clear(emptied);
            run(frame, guard, begin(frame, guard), 0, actions.length);
            return;
        }
        frame.clear(emptied);
        Part pass = text || attributes ? begin(frame, out) : Part.ALL;
        run(pass == Part.ALL ? inOne : withContent, frame, out, pass);
    }

    private EventWriter guard(EventWriter out) {
        return new NameGuard(out, statements[0]);
    }

    private static void run(Action[] actions, Frame frame, EventWriter out, Part pass) {
        for (Action action : actions) {
            action.run(frame, out, pass);
        }
    }

    /** Runs the block as a part of the one around it, whose pass it follows. */
    void run(Frame frame, EventWriter out, Part pass) {
        if (pass != Part.CONTENT) {
            frame.clear(emptied);
        }
        run(frame, out, pass, 0, actions.length);
    }

    /** Writes the attributes if they must come first, and says what is left to be written. */
    private Part begin(Frame frame, EventWriter out) {
        if (text) {
            out.mixed();
        }
        if (!attributes || !out.attributesFirst()) {
            return Part.ALL;
        }
        if (guardedIn >= 0) {
            run(frame, out, Part.ATTRIBUTES, 0, actions.length);
        } else {
            run(withAttributes, frame, out, Part.ATTRIBUTES);
        }
        return Part.CONTENT;
    }

    private void run(Frame frame, EventWriter out, Part pass, int from, int to) {
        for (int i = from; i < to; i++) {
            writing(out, i);
            if (pass != Part.ATTRIBUTES || actions[i].writesAttributes()) {
                actions[i].run(frame, out, pass);
            }
        }
    }

    /** Writes what stands before the streamed loop. */
    RecordSink open(Frame frame, EventWriter out) {
        frame.clear(emptied);
        EventWriter to = out;
        if (guardedIn >= 0) {
            to = guard(out);
            frame.set(guardedIn, to);
        }
        Part pass = begin(frame, to);
        run(frame, to, pass, 0, streamed);
        writing(to, streamed);
        return actions[streamed].open(frame, to);
    }

    /** Writes what stands after the streamed loop. */
    void close(Frame frame, EventWriter out) {
        EventWriter to = guardedIn >= 0 ? (EventWriter) Objects.requireNonNull(frame.held(guardedIn)) : out;
        writing(to, streamed);
        actions[streamed].close(frame, to);
        Part pass = attributes && out.attributesFirst() ? Part.CONTENT : Part.ALL;
        run(frame, to, pass, streamed + 1, actions.length);
    }

    private void writing(EventWriter out, int statement) {
        if (out instanceof NameGuard guard) {
            guard.writing(statements[statement]);
        }
    }
}
