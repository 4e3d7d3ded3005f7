package dev.morphema.check;

import dev.morphema.function.Function;
import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.shape.Shape;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Name;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/** Finds out where steps lead: in the sources, and in records that the mapping makes. */
final class PathChecker {
    private final Checker checker;
    private final ExpressionChecker expressions;

    PathChecker(Checker checker, ExpressionChecker expressions) {
        this.checker = checker;
        this.expressions = expressions;
    }

    Type step(Expr.Step step) {
        Type base = expressions.check(step.base());
        switch (step.axis()) {
            case FIELD, ATTRIBUTE -> {
                checker.resolution().putStep(step);
                Type ofLoop = step.axis() == Expr.Axis.FIELD && step.name().prefix() == null
                        ? base.names().get(step.name().text())
                        : null;
                if (ofLoop != null) {
                    return overAll(base, ofLoop);
                }
                FieldName name = checker.fieldName(step.name(), step.axis() == Expr.Axis.ATTRIBUTE, base.places());
                return overAll(base, field(base, name, step));
            }
            case ANY_FIELD, ANY_ATTRIBUTE, DEEP -> {
                checker.needs().whole(base);
                return foundBy(step, base).with(Cardinality.MANY);
            }
        }
        throw new IllegalStateException("no such axis");
    }

    /**
     * {@return what is known of each value that a step leads to, whatever the name or the depth is}
     */
    private Type foundBy(Expr.Step step, Type base) {
        if (step.axis() != Expr.Axis.DEEP) {
            boolean attributes = step.axis() == Expr.Axis.ANY_ATTRIBUTE;
            return anyField(base, field -> field.attribute() == attributes && !field.equals(FieldName.OWN_TEXT));
        }
        FieldName name = checker.fieldName(step.name(), false);
        warnIfNowhere(base, name, step.name());
        boolean shown = base.places().stream().allMatch(node -> node.shape() != null);
        return shown && base.fields() == null
                ? Type.anyOf(base.places().stream()
                        .flatMap(node -> node.below(name).stream())
                        .map(PathChecker::typeOf)
                        .toList())
                : Type.UNKNOWN;
    }

    /** {@return what is known of a field of a record of which only the run tells the name} */
    static Type anyField(Type base, Predicate<FieldName> wanted) {
        List<Type> types = new ArrayList<>();
        if (base.fields() != null) {
            types.addAll(base.fields().values());
        }
        for (Place node : base.places()) {
            if (node.shape() == null) {
                return Type.UNKNOWN;
            }
            node.children(wanted).forEach(child -> types.add(typeOf(child)));
        }
        return Type.anyOf(types);
    }

    /** {@return what tells of the places that are meant, as a message names it} */
    private static String origin(Type base) {
        Shape shape = base.places().get(0).shape();
        return shape == null ? "sample" : shape.origin();
    }

    private void warnIfNowhere(Type base, FieldName name, Name written) {
        Set<String> known = new TreeSet<>();
        boolean nowhere = !base.places().isEmpty();
        for (Place node : base.places()) {
            nowhere &= node.shape() != null && node.shape().below(name).isEmpty();
            if (nowhere) {
                node.shape().addNamesBelow(known);
            }
        }
        if (nowhere) {
            checker.report(written.span()
                    .warning(
                            Code.UNKNOWN_FIELD, "The " + origin(base) + " has no field " + name + " at any depth here.")
                    .in(base.shown())
                    .withHelp(NearNames.proposal(name.toString(), known).orElse(null)));
        }
    }

    /** What a step gives that goes over one or many. */
    private static Type overAll(Type base, Type field) {
        return switch (base.cardinality()) {
            case MANY, LIST -> field.with(Cardinality.MANY);
            case UNKNOWN -> field.cardinality() == Cardinality.ONE ? field.with(Cardinality.UNKNOWN) : field;
            case ONE -> field;
        };
    }

    private Type field(Type base, FieldName name, Expr.Step step) {
        Name written = step.name();
        Type known = base.fields() == null ? null : base.fields().get(name.toString());
        if (known != null) {
            return known;
        }
        if (!base.places().isEmpty()) {
            return fieldOfPaths(base, name, step);
        }
        if (base.fields() != null) {
            checker.report(written.span()
                    .error(Code.UNKNOWN_FIELD, "There is no field " + name + " here.")
                    .withHelp(NearNames.proposal(name.toString(), base.fields().keySet())
                            .orElse(null)));
        } else if (base.kind() != null && base.kind() != Kind.RECORD) {
            checker.report(written.span()
                    .error(Code.UNKNOWN_FIELD, "This is " + base.kind().words() + ", which has no fields."));
        }
        return Type.UNKNOWN;
    }

    private Type fieldOfPaths(Type base, FieldName name, Expr.Step step) {
        Name written = step.name();
        boolean isForeseen = expressions.isForeseen(step);
        Type type = null;
        if (isLoopItself(base, name, step)) {
            return Type.UNKNOWN;
        }
        boolean missing = true;
        boolean scalar = true;
        Set<String> known = new TreeSet<>();
        boolean sure = false;
        for (Place node : base.places()) {
            Place child = node.child(name);
            checker.needs().step(child, isForeseen);
            Type of = typeOf(child);
            if (isDocument(child)) {
                checker.needs().whole(child);
            }
            type = type == null ? of : type.or(of);
            Shape shape = node.shape();
            warnIfAmbiguous(shape, name, written);
            missing &= shape != null && shape.lacks(name);
            scalar &= shape != null && shape.isScalar();
            sure |= node.isFlat() || shape != null && shape.isClosed();
            if (shape != null) {
                shape.names().forEach(n -> known.add(n.toString()));
            }
            known.addAll(base.names().keySet());
        }
        if (missing && !(isForeseen && NearNames.near(name.local(), known).isEmpty())) {
            String message = scalar
                    ? "The " + origin(base) + " has a single value here, and no field " + name + " in it."
                    : "The " + origin(base) + " has no field " + name + " here.";
            Problem problem = (sure
                            ? written.span().error(Code.UNKNOWN_FIELD, message)
                            : written.span().warning(Code.UNKNOWN_FIELD, message))
                    .in(base.shown())
                    .withHelp(help(base, name, known));
            checker.reportMissing(base.places(), name, problem);
        }
        return Objects.requireNonNull(type);
    }

    private static boolean takesMany(@Nullable Function function) {
        return function != null
                && !function.signature().parameters().isEmpty()
                && function.signature().parameters().get(0).kind() == ParameterKind.MANY;
    }

    /** {@return what may have been meant: another name, the same one elsewhere, or a function} */
    private @Nullable String help(Type base, FieldName name, Set<String> known) {
        if (NearNames.near(name.toString(), known).isEmpty()) {
            for (Place node : base.places()) {
                String elsewhere = node.shape() == null ? null : Elsewhere.find(node.shape(), name);
                if (elsewhere != null) {
                    return elsewhere;
                }
            }
            boolean many = base.cardinality() == Cardinality.MANY || base.cardinality() == Cardinality.LIST;
            if (many && !name.attribute() && takesMany(checker.function(name.local()))) {
                return "a function stands before what it takes: " + name.local() + "(…)";
            }
        }
        return minusHelp(name.local(), known);
    }

    /**
     * Whether a member of a group is asked for the name of its loop, though it is what that name
     * stood for.
     */
    private boolean isLoopItself(Type base, FieldName name, Expr.Step step) {
        boolean known = base.places().stream()
                .anyMatch(node -> node.shape() != null && !node.shape().lacks(name));
        if (!name.local().equals(base.loopName()) || name.attribute() || known) {
            return false;
        }
        checker.report(step.name()
                .span()
                .error(
                        Code.UNKNOWN_FIELD,
                        "A member of the group is what " + name.local() + " was, and has no field of that name.")
                .withHelp("leave the step out: m.x, not m." + name.local() + ".x"));
        return true;
    }

    /** A step without prefix takes all elements of its name, which may be of different kinds. */
    private void warnIfAmbiguous(@Nullable Shape shape, FieldName name, Name written) {
        if (shape == null) {
            return;
        }
        List<FieldName> meant = shape.meant(name);
        if (meant.size() > 1) {
            List<String> namespaces = meant.stream()
                    .map(field -> field.namespace() == null ? "none" : field.namespace())
                    .toList();
            checker.report(written.span()
                    .warning(
                            Code.AMBIGUOUS_NAME,
                            "The " + shape.origin() + " has elements " + name
                                    + " in several namespaces here, and this means all.")
                    .in(shape.place())
                    .withHelp("a prefix means one of them; the namespaces are " + String.join(", ", namespaces)));
        }
    }

    /** What may have been meant by a name that is not known, perhaps a subtraction. */
    static @Nullable String minusHelp(String name, Set<String> known) {
        int minus = name.indexOf('-');
        return minus > 0 && known.contains(name.substring(0, minus))
                ? "a minus wants blanks around it: " + name.substring(0, minus) + " - " + name.substring(minus + 1)
                : NearNames.proposal(name, known).orElse(null);
    }

    private static boolean isDocument(Place node) {
        return node.declared() != null && node.declared().isDocument();
    }

    /** What is known of the value at a place in a source; in a document of its own is anything. */
    private static Type typeOf(Place node) {
        if (isDocument(node)) {
            return Type.UNKNOWN;
        }
        Shape shape = node.shape();
        Cardinality cardinality = node.isFlat() ? Cardinality.ONE : Cardinality.UNKNOWN;
        if (shape != null && shape.isMany()) {
            cardinality = Cardinality.MANY;
        } else if (shape != null && shape.isList()) {
            cardinality = Cardinality.LIST;
        }
        if (node.declared() != null) {
            return new Type(node.declared().kind(), cardinality, List.of(node), null, false);
        }
        Kind kind = node.isFlat() ? Kind.TEXT : null;
        if (shape != null && kind == null && shape.kind() != null) {
            kind = shape.kind();
        }
        boolean odd = kind == Kind.TEXT && shape != null && shape.hasOddText();
        return new Type(kind, cardinality, List.of(node), null, odd);
    }
}
