package dev.morphema.engine;

import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Span;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/** A compiled expression. Immutable, shared by all runs. */
abstract class Node {
    private final Span span;

    Node(Span span) {
        this.span = span;
    }

    Span span() {
        return span;
    }

    /** {@return the expression as it is written, in one line} */
    final String written() {
        return span.text().replaceAll("\\s+", " ");
    }

    /** The value; problems may lack the place of the rule. */
    abstract Value compute(Frame frame);

    /** {@return the value, possibly many} */
    final Value eval(Frame frame) {
        try {
            return compute(frame);
        } catch (ProblemException e) {
            throw located(e);
        }
    }

    /** {@return the problem with this rule as its place, unless it has one already} */
    final ProblemException located(ProblemException e) {
        return e.unlessPlaced(span.location());
    }

    /** {@return the value, which must not be many} */
    final Value one(Frame frame) {
        Value value = eval(frame);
        return value instanceof Many many ? only(many) : value;
    }

    private Value only(Many many) {
        if (many.items().size() > 1) {
            throw fail(
                    Code.MANY,
                    "Expected one value, found " + many.items().size() + ".",
                    "take one by first(…), make a text of all by join(…, \", \"), a list by [ … ], or go through them by for");
        }
        return many.items().isEmpty() ? Missing.ABSENT : many.items().get(0);
    }

    /** {@return the value, which must be able to stand in a cell; an XML element gives its text} */
    final Value scalar(Frame frame) {
        Value value = one(frame);
        return value.isScalar() ? value : scalar(value);
    }

    private Value scalar(Value value) {
        try {
            return ParameterKind.scalarIfAny(value);
        } catch (ProblemException e) {
            throw located(e);
        }
    }

    /** {@return whether a condition holds; absent counts as false} */
    final boolean holds(Frame frame) {
        Value value = scalar(frame);
        if (value instanceof BooleanValue truth) {
            return truth.isTrue();
        }
        if (value == Missing.ABSENT) {
            return false;
        }
        throw fail(
                Code.KIND,
                "A condition is true or false, this is " + value.kind().words() + ".",
                "compare it, as in x == \"Y\", or give it the type boolean");
    }

    /**
     * Gives each of many values to a sink; a list counts as its items, absent and null as none.
     *
     * @return whether the sink wants more
     */
    boolean each(Frame frame, ItemSink sink) {
        Value value = eval(frame);
        if (value instanceof Many many) {
            return sink.acceptAll(many.items());
        }
        if (value instanceof ListValue list) {
            return sink.acceptAll(list.items());
        }
        return value.isMissing() || sink.accept(value);
    }

    /**
     * {@return what takes the records of the one source that this sequence goes over, and gives the
     * sequence's values on to a sink}; only for nodes that the plan found able to stream.
     */
    RecordSink stream(Frame frame, RecordSink sink) {
        throw new IllegalStateException("cannot stream");
    }

    final ProblemException fail(Code code, String message, @Nullable String help) {
        return new ProblemException(Problem.error(code, message).withHelp(help).at(span.location()));
    }
}
