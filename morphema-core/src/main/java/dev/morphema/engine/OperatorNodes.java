package dev.morphema.engine;

import dev.morphema.convert.Numbers;
import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.store.Membership;
import dev.morphema.syntax.Expr.Operator;
import dev.morphema.syntax.Span;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.Comparison;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/** Operators. */
final class OperatorNodes {
    private OperatorNodes() {}

    /** {@code + - * / %}: absent if an operand is absent, else null if one is null. */
    static final class Arithmetic extends Node {
        private final Operator operator;
        private final Node left;
        private final Node right;

        Arithmetic(Span span, Operator operator, Node left, Node right) {
            super(span);
            this.operator = operator;
            this.left = left;
            this.right = right;
        }

        @Override
        Value compute(Frame frame) {
            Value a = left.scalar(frame);
            Value b = right.scalar(frame);
            return a instanceof NumberValue x && b instanceof NumberValue y ? result(x, y) : ofOthers(a, b);
        }

        private Value ofOthers(Value a, Value b) {
            if (a.isMissing() || b.isMissing()) {
                return a == Missing.ABSENT || b == Missing.ABSENT ? Missing.ABSENT : Missing.NULL;
            }
            return result(number(left, a), number(right, b));
        }

        private Value result(NumberValue x, NumberValue y) {
            try {
                return switch (operator) {
                    case PLUS -> x.plus(y);
                    case MINUS -> x.minus(y);
                    case TIMES -> x.times(y);
                    case DIVIDE -> x.dividedBy(y);
                    default -> x.remainder(y);
                };
            } catch (ArithmeticException e) {
                throw y.sign() == 0
                        ? fail(
                                Code.DIVISION_BY_ZERO,
                                "This divides by zero.",
                                "if x == 0 then absent else … leaves the field out")
                        : fail(Code.OUT_OF_RANGE, "The result has more digits than a number can have.", null);
            }
        }

        private NumberValue number(Node operand, Value value) {
            try {
                return Numbers.number(value);
            } catch (ProblemException e) {
                throw operand.located(
                        operator == Operator.PLUS && value instanceof TextValue
                                ? new ProblemException(
                                        e.problem().withHelp("to join texts, write a template: \"{a}{b}\""))
                                : e);
            }
        }
    }

    /** {@code -x}. */
    static final class Negated extends Node {
        private final Node operand;

        Negated(Span span, Node operand) {
            super(span);
            this.operand = operand;
        }

        @Override
        Value compute(Frame frame) {
            Value value = operand.scalar(frame);
            return value.isMissing() ? value : Numbers.number(value).negated();
        }
    }

    /**
     * {@code == !=}, which are total, and {@code < <= > >=}, which are false for absent and null.
     */
    static final class Compared extends Node {
        private final Operator operator;
        private final Node left;
        private final Node right;

        Compared(Span span, Operator operator, Node left, Node right) {
            super(span);
            this.operator = operator;
            this.left = left;
            this.right = right;
        }

        Node left() {
            return left;
        }

        Node right() {
            return right;
        }

        @Override
        Value compute(Frame frame) {
            if (operator == Operator.EQUAL || operator == Operator.NOT_EQUAL) {
                boolean equal = Comparison.equal(comparable(left, frame), comparable(right, frame));
                return BooleanValue.of(equal == (operator == Operator.EQUAL));
            }
            Value a = left.scalar(frame);
            Value b = right.scalar(frame);
            if (a.isMissing() || b.isMissing()) {
                return BooleanValue.FALSE;
            }
            int order = Comparison.compare(a, b);
            return BooleanValue.of(
                    switch (operator) {
                        case LESS -> order < 0;
                        case AT_MOST -> order <= 0;
                        case MORE -> order > 0;
                        default -> order >= 0;
                    });
        }

        /** Records and lists can be compared as a whole; an element stands for its text. */
        private static Value comparable(Node node, Frame frame) {
            Value value = node.one(frame);
            return value instanceof RecordValue record && record.isElement() ? ParameterKind.scalar(value) : value;
        }
    }

    /** {@code and or}, which look at the right side only if need be. */
    static final class Logic extends Node {
        private final boolean decides;
        private final Node left;
        private final Node right;

        /** @param decides what the left side must be to decide: false for and, true for or */
        Logic(Span span, boolean decides, Node left, Node right) {
            super(span);
            this.decides = decides;
            this.left = left;
            this.right = right;
        }

        Node left() {
            return left;
        }

        Node right() {
            return right;
        }

        @Override
        Value compute(Frame frame) {
            return BooleanValue.of(left.holds(frame) == decides ? decides : right.holds(frame));
        }
    }

    /** {@code not x}. */
    static final class Not extends Node {
        private final Node operand;

        Not(Span span, Node operand) {
            super(span);
            this.operand = operand;
        }

        @Override
        Value compute(Frame frame) {
            return BooleanValue.of(!operand.holds(frame));
        }
    }

    /**
     * {@code x in many}: whether one of them is equal, as {@code ==} says; a text that is no number
     * equals none.
     */
    static final class In extends Node {
        private final boolean wanted;
        private final Node item;
        private final Node items;
        private final boolean invariant;

        /** @param invariant whether the items are the same all through a run */
        In(Span span, boolean wanted, Node item, Node items, boolean invariant) {
            super(span);
            this.wanted = wanted;
            this.item = item;
            this.items = items;
            this.invariant = invariant;
        }

        @Override
        Value compute(Frame frame) {
            Value asked = item.scalar(frame);
            Membership members = invariant ? frame.run().memory().members(this, () -> collected(frame)) : null;
            boolean found = members == null
                    ? !items.each(frame, value -> !Membership.areSame(asked, plain(value)))
                    : members.contains(asked);
            return BooleanValue.of(found == wanted);
        }

        /** {@return all items, or null if one has no value; then it fails when it is come to} */
        private @Nullable Membership collected(Frame frame) {
            Membership members = new Membership();
            try {
                items.each(frame, value -> {
                    members.add(plain(value));
                    return true;
                });
                return members;
            } catch (ProblemException e) {
                return null;
            }
        }

        private static Value plain(Value value) {
            return value instanceof RecordValue ? ParameterKind.scalar(value) : value;
        }
    }

    /** {@code a ?? b}: b where a is absent, null or has no items. */
    static final class Coalesce extends Node {
        private final Node left;
        private final Node right;

        Coalesce(Span span, Node left, Node right) {
            super(span);
            this.left = left;
            this.right = right;
        }

        @Override
        Value compute(Frame frame) {
            Value value = left.eval(frame);
            boolean empty = value.isMissing()
                    || value instanceof Many many && many.items().isEmpty()
                    || value instanceof ListValue list && list.items().isEmpty();
            return empty ? right.eval(frame) : value;
        }
    }

    /** {@code if c then a else b}. */
    static final class Choice extends Node {
        private final Node condition;
        private final Node then;
        private final Node otherwise;

        Choice(Span span, Node condition, Node then, Node otherwise) {
            super(span);
            this.condition = condition;
            this.then = then;
            this.otherwise = otherwise;
        }

        @Override
        Value compute(Frame frame) {
            return condition.holds(frame) ? then.eval(frame) : otherwise.eval(frame);
        }
    }
}
