package dev.morphema.check;

import dev.morphema.function.Stability;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Name;
import dev.morphema.syntax.Span;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The defines of a mapping. The expression of each is checked once by itself, and once more for
 * each list of argument types that it is called with, so that a field which an argument lacks is
 * found within it. Not thread-safe.
 */
final class Defines {
    /**
     * A define that is called with more different lists of types is taken as it is by itself from
     * then on.
     */
    private static final int MOST_INSTANCES = 64;
    /** So many defines are looked through, each called from the expression of the one before. */
    private static final int DEEPEST = 40;

    /** One define. */
    private static final class Known {
        private final Decl.Define decl;
        private final Scope.Slots slots = new Scope.Slots();
        private final Map<List<Type>, Type> results = new HashMap<>();
        private final Set<Resolution.Callee> calls = Collections.newSetFromMap(new IdentityHashMap<>());
        private boolean open;

        Known(Decl.Define decl) {
            this.decl = decl;
        }
    }

    private final Checker checker;
    private final Map<String, Integer> indexes = new LinkedHashMap<>();
    private final List<Known> all = new ArrayList<>();
    /**
     * The defines whose expressions are being checked, the innermost first; and the calls that led
     * there.
     */
    private final Deque<Known> open = new ArrayDeque<>();

    private final Deque<Expr.Call> calls = new ArrayDeque<>();

    Defines(Checker checker) {
        this.checker = checker;
    }

    void declare(Decl.Define decl) {
        if (checker.function(decl.name().text()) != null) {
            checker.report(decl.name()
                    .span()
                    .error(
                            Code.DUPLICATE_NAME,
                            "There is a function " + decl.name().text() + " already.")
                    .withHelp("choose another name"));
        }
        indexes.put(decl.name().text(), all.size());
        all.add(new Known(decl));
    }

    Set<String> names() {
        return indexes.keySet();
    }

    /** {@return the index of a define} */
    Optional<Integer> find(String name) {
        return Optional.ofNullable(indexes.get(name));
    }

    String nameOf(int define) {
        return all.get(define).decl.name().text();
    }

    int parameters(int define) {
        return all.get(define).decl.parameters().size();
    }

    /** The expression that is being checked calls something. */
    void addCall(Resolution.Callee callee) {
        if (!open.isEmpty()) {
            open.element().calls.add(callee);
        }
    }

    /** Checks each define by itself, whatever it is called with. */
    List<CheckedMapping.Define> checkAll() {
        for (Known define : all) {
            List<Type> unknown = Collections.nCopies(define.decl.parameters().size(), Type.UNKNOWN);
            if (!define.results.containsKey(unknown)) {
                define.results.put(unknown, check(define, unknown));
            }
        }
        return all.stream()
                .map(define -> new CheckedMapping.Define(define.decl, define.slots.count()))
                .toList();
    }

    /**
     * {@return what a call gives}; of arguments that cannot be followed into the define all is
     * needed.
     */
    Type result(Expr.Call call, int index, List<Type> arguments) {
        Known define = all.get(index);
        boolean followed = arguments.size() == define.decl.parameters().size()
                && !define.open
                && open.size() < DEEPEST
                && (define.results.size() < MOST_INSTANCES || define.results.containsKey(arguments));
        if (!followed) {
            arguments.forEach(checker.needs()::whole);
            return Type.UNKNOWN;
        }
        Type known = define.results.get(arguments);
        if (known == null) {
            calls.push(call);
            known = check(define, arguments);
            calls.pop();
            define.results.put(List.copyOf(arguments), known);
        }
        return known;
    }

    private Type check(Known define, List<Type> arguments) {
        Scope scope = Scope.empty(define.slots);
        for (int i = 0; i < arguments.size(); i++) {
            Name parameter = define.decl.parameters().get(i);
            int slot = checker.resolution().slotFor(parameter, define.slots);
            scope = checker.declareLocal(
                    scope, parameter, new Scope.Entry(new Binding.Argument(slot), arguments.get(i)));
        }
        define.open = true;
        open.push(define);
        Type type = new ExpressionChecker(checker, scope, null).check(define.decl.value());
        open.pop();
        define.open = false;
        return type;
    }

    /** {@return a problem with the call that leads to it, if it is within a define} */
    Problem withCall(Problem problem) {
        Expr.Call first = calls.peekLast();
        if (first == null || first.arguments().isEmpty() || problem.rule() == null) {
            return problem;
        }
        Span call = first.span();
        String file = call.source().name();
        String place = problem.rule().file().equals(file) ? "on line " + call.line() : "at " + call.location();
        String note = "this is for the call " + place;
        String help = problem.help();
        return problem.withHelp(help == null ? note : help + (help.endsWith("?") ? " " : "; ") + note);
    }

    /** {@return the defines that give something else on each call, directly or through others} */
    Set<Integer> volatileDefines() {
        Set<Integer> found = new HashSet<>();
        boolean more = true;
        while (more) {
            more = false;
            for (int i = 0; i < all.size(); i++) {
                more |= all.get(i).calls.stream().anyMatch(callee -> isVolatile(callee, found)) && found.add(i);
            }
        }
        return found;
    }

    static boolean isVolatile(Resolution.Callee callee, Set<Integer> volatileDefines) {
        return callee instanceof Resolution.Defined defined
                ? volatileDefines.contains(defined.index())
                : ((Resolution.Builtin) callee).function().traits().stability() == Stability.VOLATILE;
    }
}
