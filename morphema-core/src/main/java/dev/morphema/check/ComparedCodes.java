package dev.morphema.check;

import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.shape.Shape;
import dev.morphema.syntax.Expr;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Finds comparisons with a code that a schema does not know, which have always the same answer. */
final class ComparedCodes {
    private final Checker checker;

    ComparedCodes(Checker checker) {
        this.checker = checker;
    }

    /** Checks both sides of an equation. */
    void check(Expr left, Type leftType, Expr right, Type rightType) {
        compared(left, rightType);
        compared(right, leftType);
    }

    /** Checks the items of a list that is searched for a value. */
    void checkIn(Type value, Expr list) {
        List<Expr> items = list instanceof Expr.ListOf several ? several.items() : List.of(list);
        items.forEach(item -> compared(item, value));
    }

    private void compared(Expr expr, Type other) {
        if (!(expr instanceof Expr.Literal literal) || literal.value().isMissing()) {
            return;
        }
        Set<String> codes = codes(other);
        String text = literal.value().toString();
        if (codes != null && !codes.contains(text)) {
            checker.report(literal.span()
                    .error(Code.VALUE_NOT_ALLOWED, "By its schema the value that this is compared with is never that.")
                    .in(other.shown())
                    .withHelp(NearNames.proposal(text, codes).orElse(null)));
        }
    }

    /** {@return the only values that something may have, or null if it may have others} */
    private static @Nullable Set<String> codes(Type type) {
        Set<String> all = new LinkedHashSet<>();
        for (Place path : type.places()) {
            Shape shape = path.shape();
            Set<String> codes = shape == null || path.declared() != null ? null : shape.codes();
            if (codes == null) {
                return null;
            }
            all.addAll(codes);
        }
        return all.isEmpty() ? null : all;
    }
}
