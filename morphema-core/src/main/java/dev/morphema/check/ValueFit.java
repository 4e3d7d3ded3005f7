package dev.morphema.check;

import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.shape.ScalarType;
import dev.morphema.shape.SchemaShape;
import dev.morphema.shape.Shape;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Span;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.Missing;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Compares the values that rules give with what a schema takes at their place. */
final class ValueFit {
    private final Checker checker;
    private final SchemaFit records;

    ValueFit(Checker checker, SchemaFit records) {
        this.checker = checker;
        this.records = records;
    }

    /** {@return what a schema takes, as a sentence names it} */
    String wanted(SchemaShape shape) {
        Set<String> codes = shape.codes();
        if (codes != null) {
            return codes.size() == 1 ? codes.iterator().next() : "one of " + NearNames.listed(codes);
        }
        Set<String> words = new LinkedHashSet<>();
        shape.scalars().forEach(type -> words.add(type.words()));
        if (shape.isRecord()) {
            words.add(Kind.RECORD.words());
        }
        return String.join(" or ", words);
    }

    /** Checks what an expression gives. */
    void check(Expr expr, SchemaShape shape) {
        if (shape.isAnything()) {
            return;
        }
        if (expr instanceof Expr.If ifThen) {
            check(ifThen.then(), shape);
            if (ifThen.otherwise() != null) {
                check(ifThen.otherwise(), shape);
            }
        } else if (expr instanceof Expr.Binary binary && binary.operator() == Expr.Operator.COALESCE) {
            check(binary.left(), shape);
            check(binary.right(), shape);
        } else if (expr instanceof Expr.Literal literal) {
            constant(literal.span(), literal.value(), shape);
        } else if (expr instanceof Expr.Template template && isConstant(template)) {
            String text = template.parts().stream()
                    .map(part -> ((Expr.Literal) part).value().toString())
                    .collect(Collectors.joining());
            constant(template.span(), TextValue.of(text), shape);
        } else if (expr instanceof Expr.RecordOf recordOf) {
            records.record(recordOf.block(), shape, recordOf.span());
        } else if (expr instanceof Expr.ListOf list) {
            if (severalAllowed(shape, list.span())) {
                list.items().forEach(item -> check(item, shape.item()));
            }
        } else {
            typed(expr, shape);
        }
    }

    private static boolean isConstant(Expr.Template template) {
        return template.parts().stream().allMatch(Expr.Literal.class::isInstance);
    }

    private boolean severalAllowed(SchemaShape shape, Span at) {
        boolean allowed = shape.isMany() || shape.isList();
        if (!allowed) {
            checker.report(at.error(Code.ONE_OR_MANY, "The schema wants one value here, this is a list.")
                    .in(shape.place())
                    .withHelp("first(…) or join(…, \" \") makes one of it"));
        }
        return allowed;
    }

    private void constant(Span at, Value value, SchemaShape shape) {
        if (value.isMissing()) {
            if (value != Missing.ABSENT && !shape.isNullable()) {
                checker.report(at.error(Code.VALUE_NOT_ALLOWED, "The schema does not take null here.")
                        .in(shape.place())
                        .withHelp("absent leaves the field out"));
            }
            return;
        }
        if (shape.items() == SchemaShape.Items.LIST) {
            wantsList(shape, at);
            return;
        }
        if (shape.isTextual() && shape.isRecord()) {
            records.reportUnwritten(shape, at);
        }
        List<ScalarType> types = shape.scalars();
        if (types.isEmpty()) {
            if (shape.isRecord()) {
                wrongKind(at, value.kind(), shape);
            }
            return;
        }
        String fault = null;
        for (ScalarType type : types) {
            Optional<String> found = type.faultOf(value, shape.isTextual());
            if (found.isEmpty()) {
                return;
            }
            fault = found.get();
        }
        Set<String> codes = shape.codes();
        checker.report(at.error(Code.VALUE_NOT_ALLOWED, "The schema wants " + fault + " here.")
                .in(shape.place())
                .withHelp(
                        codes == null
                                ? null
                                : NearNames.proposal(value.toString(), codes).orElse(null)));
    }

    private void wantsList(SchemaShape shape, Span at) {
        checker.report(at.error(Code.ONE_OR_MANY, "The schema wants a list here, this is one value.")
                .in(shape.place())
                .withHelp("square brackets make a list of it: [ … ]"));
    }

    private void typed(Expr expr, SchemaShape shape) {
        Type type = checker.typing().of(expr);
        Span at = expr.span();
        boolean several = type.cardinality() == Cardinality.LIST || type.cardinality() == Cardinality.MANY;
        if (several && !severalAllowed(shape, at)) {
            return;
        }
        if (type.cardinality() == Cardinality.ONE
                && shape.items() == SchemaShape.Items.LIST
                && (SchemaFit.isKnown(type.kind()) || !type.places().isEmpty())) {
            wantsList(shape, at);
            return;
        }
        if (type.fields() != null && type.places().isEmpty()) {
            fields(type.fields(), shape, at);
        } else {
            if (ofKind(type.kind(), shape, at)) {
                form(type, shape, at);
                codes(type, shape, at);
            }
            if (shape.isTextual() && shape.isRecord() && isSingle(type)) {
                records.reportUnwritten(shape, at);
            }
        }
    }

    /** Checks the fields of a record that is made elsewhere, such as by a define. */
    private void fields(Map<String, Type> fields, SchemaShape shape, Span at) {
        if (!shape.isRecord()) {
            wrongKind(at, Kind.RECORD, shape);
            return;
        }
        for (String name : fields.keySet()) {
            boolean attribute = name.startsWith("@");
            String local = attribute ? name.substring(1) : name;
            boolean ownText = name.equals(FieldName.TEXT.local()) && shape.isTextual();
            if (!ownText) {
                records.find(
                        shape, attribute && shape.isTextual() ? FieldName.attribute(local) : FieldName.of(local), at);
            }
        }
    }

    /** Whether a rule surely gives no element with attributes. */
    private static boolean isSingle(Type type) {
        return SchemaFit.isKnown(type.kind()) && type.kind() != Kind.RECORD
                || type.places().stream().anyMatch(path -> path.declared() != null)
                || !type.places().isEmpty()
                        && type.places().stream()
                                .allMatch(path -> path.shape() != null
                                        && !path.shape().isRecord()
                                        && path.shape().form() != null);
    }

    /** What the texts of a source read as is compared with what those of the target are to. */
    private void form(Type type, SchemaShape shape, Span at) {
        Kind wanted = shape.form();
        if (wanted == null || type.places().isEmpty()) {
            return;
        }
        if (wanted == Kind.NUMBER && type.odd()) {
            wrongKind(at, Kind.TEXT, shape);
            return;
        }
        for (Place path : type.places()) {
            Kind given = path.declared() != null
                    ? path.declared().kind()
                    : path.shape() == null ? null : path.shape().form();
            if (given == null || given == Kind.TEXT || given == wanted) {
                return;
            }
        }
        Shape source = type.places().get(0).shape();
        wrongKind(at, source == null || source.form() == null ? Kind.TEXT : source.form(), shape);
    }

    /** Checks that values of a kind can stand somewhere; says whether they can. */
    boolean ofKind(@Nullable Kind kind, SchemaShape shape, Span at) {
        if (!SchemaFit.isKnown(kind) || shape.isAnything()) {
            return true;
        }
        boolean fits = kind == Kind.RECORD
                ? shape.isRecord()
                : shape.scalars().isEmpty()
                        ? !shape.isRecord()
                        : shape.scalars().stream().anyMatch(type -> type.takes(kind, shape.isTextual()));
        if (fits || kind == Kind.LIST || kind == Kind.MANY) {
            return true;
        }
        wrongKind(at, kind, shape);
        return false;
    }

    private void wrongKind(Span at, Kind kind, SchemaShape shape) {
        checker.report(
                at.error(Code.WRONG_KIND, "The schema wants " + wanted(shape) + " here, this is " + kind.words() + ".")
                        .in(shape.place())
                        .withHelp(conversion(kind, shape)));
    }

    private static @Nullable String conversion(Kind kind, SchemaShape shape) {
        ScalarType first = shape.scalars().isEmpty() ? null : shape.scalars().get(0);
        Kind wanted = first == null ? null : first.kind();
        if (first != null && first.whole() && kind == Kind.TEXT && !shape.isTextual()) {
            return "name: integer = … converts it";
        }
        if (wanted == Kind.NUMBER && kind == Kind.TEXT) {
            return "name: number = … converts it, number(',') one with a decimal comma";
        }
        if (wanted == Kind.BOOLEAN && kind == Kind.TEXT) {
            return "name: boolean = … converts it, boolean('Y', 'N') from other words";
        }
        return wanted == Kind.TEXT && first.form() == Kind.TEXT && kind != Kind.RECORD
                ? "name: text = … makes a text of it"
                : null;
    }

    /** What a source holds by its own schema is compared code by code. */
    private void codes(Type type, SchemaShape shape, Span at) {
        Set<String> wanted = shape.codes();
        if (wanted == null || type.places().isEmpty()) {
            return;
        }
        Set<String> given = new LinkedHashSet<>();
        for (Place path : type.places()) {
            Shape source = path.shape();
            Set<String> codes = source == null || path.declared() != null ? null : source.codes();
            if (codes == null) {
                return;
            }
            given.addAll(codes);
        }
        given.removeAll(wanted);
        if (!given.isEmpty()) {
            checker.report(at.warning(
                            Code.VALUE_NOT_ALLOWED,
                            "The source may have " + String.join(", ", given) + " here; the schema wants "
                                    + wanted(shape) + ".")
                    .in(shape.place())
                    .withHelp("a table translates codes: table names { A = \"alpha\" }, names[x]"));
        }
    }

    /**
     * {@return whether the sample or schema of a source shows that an expression may give nothing}
     */
    boolean mayBeAbsent(Expr expr) {
        if (expr instanceof Expr.Literal literal) {
            return literal.value() == Missing.ABSENT;
        }
        if (expr instanceof Expr.If ifThen) {
            return ifThen.otherwise() == null || mayBeAbsent(ifThen.then()) || mayBeAbsent(ifThen.otherwise());
        }
        if (expr instanceof Expr.Binary binary) {
            return binary.operator() == Expr.Operator.COALESCE
                    ? mayBeAbsent(binary.right())
                    : binary.operator().isArithmetic() && (mayBeAbsent(binary.left()) || mayBeAbsent(binary.right()));
        }
        if (expr instanceof Expr.Step step) {
            return step.axis() == Expr.Axis.FIELD || step.axis() == Expr.Axis.ATTRIBUTE
                    ? stepMayBeAbsent(step)
                    : step.axis() == Expr.Axis.DEEP;
        }
        return expr instanceof Expr.Lookup;
    }

    private boolean stepMayBeAbsent(Expr.Step step) {
        Type base = checker.typing().of(step.base());
        FieldName name = checker.resolution().fieldName(step.name(), step.axis() == Expr.Axis.ATTRIBUTE);
        boolean optional = base.places().stream()
                .map(Place::shape)
                .filter(Objects::nonNull)
                // What the shape lacks was told, and is one mistake.
                .anyMatch(shape -> !shape.always(name) && !shape.lacks(name));
        return optional || mayBeAbsent(step.base());
    }
}
