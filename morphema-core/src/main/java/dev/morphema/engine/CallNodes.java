package dev.morphema.engine;

import dev.morphema.function.Function;
import dev.morphema.function.ParameterKind;
import dev.morphema.function.Signature;
import dev.morphema.function.Tally;
import dev.morphema.function.Trait;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.problem.RuleLocation;
import dev.morphema.syntax.Span;
import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Calls of functions and defines. */
final class CallNodes {
    /** Defines that call one another, or themselves; deeper is refused. */
    private static final int MOST_DEEP = 200;

    private CallNodes() {}

    /** A function of single values. */
    static final class Scalar extends Node {
        private final boolean takesMissing;
        private final Node[] arguments;
        private final ParameterKind[] wants;
        /** The arguments that are the same each time, as they are wanted; null for others. */
        private final @Nullable Value[] constants;

        private final Function.Body body;

        Scalar(Span span, Function.Scalar function, List<Node> arguments, Function.Body body) {
            super(span);
            this.takesMissing = function.traits().has(Trait.TAKES_MISSING);
            this.arguments = arguments.toArray(Node[]::new);
            this.wants = wants(function.signature(), 0, arguments.size());
            this.constants = new Value[arguments.size()];
            for (int i = 0; i < constants.length; i++) {
                constants[i] = constant(this.arguments[i], wants[i]);
            }
            this.body = body;
        }

        private static @Nullable Value constant(Node argument, ParameterKind want) {
            try {
                return argument instanceof NameNodes.Constant constant
                                && !constant.value().isMissing()
                        ? want.take(constant.value())
                        : null;
            } catch (ProblemException e) {
                // It is told when, and if, the function is called.
                return null;
            }
        }

        @Override
        Value compute(Frame frame) {
            Value[] values = new Value[arguments.length];
            boolean isNull = false;
            for (int i = 0; i < values.length; i++) {
                Value value = argument(frame, i);
                if (value.isMissing() && !takesMissing) {
                    if (value == Missing.ABSENT) {
                        return value;
                    }
                    isNull = true;
                }
                values[i] = value;
            }
            return isNull ? Missing.NULL : body.apply(values, frame.run());
        }

        private Value argument(Frame frame, int i) {
            Value constant = constants[i];
            return constant == null ? calculated(frame, i) : constant;
        }

        private Value calculated(Frame frame, int i) {
            Node argument = arguments[i];
            Value value = wants[i] == ParameterKind.ANY || wants[i] == ParameterKind.RECORD
                    ? argument.one(frame)
                    : argument.scalar(frame);
            return value.isMissing() ? value : taken(argument, wants[i], value);
        }
    }

    private static Value taken(Node argument, ParameterKind want, Value value) {
        try {
            return want.take(value);
        } catch (ProblemException e) {
            throw argument.located(e);
        }
    }

    private static ParameterKind[] wants(Signature signature, int from, int to) {
        ParameterKind[] wants = new ParameterKind[to];
        for (int i = from; i < to; i++) {
            wants[i] = signature.parameter(i).kind();
        }
        return wants;
    }

    /** A function over many values. */
    static final class Aggregate extends Node {
        private final Function.Starter starter;
        /** The same in cells, or null. */
        private final @Nullable Tally tally;

        private final Node items;
        private final Node[] others;
        private final ParameterKind[] wants;

        Aggregate(Span span, Function.Aggregate function, List<Node> arguments) {
            super(span);
            this.starter = function.starter();
            this.tally = starter instanceof Tally inCells ? inCells : null;
            this.items = arguments.get(0);
            this.others = arguments.subList(1, arguments.size()).toArray(Node[]::new);
            this.wants = wants(function.signature(), 1, arguments.size());
        }

        @Override
        Value compute(Frame frame) {
            Function.Accumulator accumulator = start(frame);
            if (accumulator != null) {
                feed(frame, accumulator);
            }
            return result(accumulator);
        }

        /**
         * {@return an accumulator, or null if another argument has no value, so that the result is
         * absent}
         */
        Function.@Nullable Accumulator start(Frame frame) {
            Value[] values = new Value[others.length];
            for (int i = 0; i < values.length; i++) {
                Value value = others[i].scalar(frame);
                values[i] = value.isMissing() ? value : taken(others[i], wants[i + 1], value);
                if (value.isMissing()) {
                    return null;
                }
            }
            return starter.start(values);
        }

        /** Gives the items that there are now to an accumulator; says whether it wants more. */
        boolean feed(Frame frame, Function.Accumulator accumulator) {
            return items.each(frame, value -> value.isMissing() || accumulator.add(value));
        }

        @Nullable
        Tally tally() {
            return tally;
        }

        /** {@return what gives the items} */
        Node items() {
            return items;
        }

        /**
         * {@return whether this is what the same function over parts of the same items comes to,
         * added up}
         *
         * @param slot of the name of all items
         * @param ofPart the function over a part of them
         * @param partSlot of the name of that part
         */
        boolean addsUp(int slot, Aggregate ofPart, int partSlot) {
            boolean same = starter == ofPart.starter && tally != null && tally.addsUp();
            return same && PathNodes.areSameFrom(slot, items, partSlot, ofPart.items);
        }

        /** {@return what the values in some cells come to} */
        Value result(Tally from, long[] cells, int at) {
            try {
                return from.result(cells, at);
            } catch (ProblemException e) {
                throw located(e);
            }
        }

        Value result(Function.@Nullable Accumulator accumulator) {
            try {
                return accumulator == null ? Missing.ABSENT : accumulator.result();
            } catch (ProblemException e) {
                throw located(e);
            }
        }
    }

    /** A function over the members of a group, which is kept up to date while they come. */
    static final class Running extends Node {
        private final Aggregate aggregate;
        private final GroupUse use;
        private final int index;

        Running(Aggregate aggregate, GroupUse use) {
            super(aggregate.span());
            this.aggregate = aggregate;
            this.use = use;
            this.index = use.add(aggregate);
        }

        @Override
        Value compute(Frame frame) {
            return use.keeps()
                    ? aggregate.compute(frame)
                    : ((GroupState) Objects.requireNonNull(frame.held(use.slot()))).result(index);
        }
    }

    /** A define whose arguments stand in place of their names. */
    static final class Inlined extends Node {
        private final Node body;

        Inlined(Span span, Node body) {
            super(span);
            this.body = body;
        }

        @Override
        Value compute(Frame frame) {
            try {
                return body.eval(frame);
            } catch (ProblemException e) {
                throw calledFrom(e, span());
            }
        }

        @Override
        boolean each(Frame frame, ItemSink sink) {
            try {
                return body.each(frame, sink);
            } catch (ProblemException e) {
                throw calledFrom(e, span());
            }
        }
    }

    /** A define; its arguments are calculated when they are first used. */
    static final class Defined extends Node {
        private final Program.Unit unit;
        private final List<Node> arguments;

        Defined(Span span, Program.Unit unit, List<Node> arguments) {
            super(span);
            this.unit = unit;
            this.arguments = List.copyOf(arguments);
        }

        @Override
        Value compute(Frame frame) {
            if (frame.depth() >= MOST_DEEP) {
                throw fail(
                        Code.LIMIT,
                        "A define has called itself more than " + MOST_DEEP + " times deep.",
                        "is there a record that contains itself?");
            }
            try {
                frame.run().limits().step();
            } catch (ProblemException e) {
                throw located(e);
            }
            try {
                return unit.node().eval(frame.call(unit.slots(), arguments));
            } catch (ProblemException e) {
                throw calledFrom(e, span());
            }
        }
    }

    /** A rule in another file says little without the place that called it. */
    private static ProblemException calledFrom(ProblemException e, Span place) {
        Problem problem = e.problem();
        RuleLocation rule = problem.rule();
        RuleLocation call = place.location();
        if (rule == null || rule.file().equals(call.file())) {
            return e;
        }
        String note = "the rule was called at " + call;
        boolean noted = problem.help() != null && problem.help().contains("the rule was called at ");
        return noted ? e : new ProblemException(problem.withFurtherHelp(note), e);
    }
}
