package dev.morphema.check;

import dev.morphema.problem.Code;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.MappingTree;
import java.util.HashSet;
import java.util.Set;

/**
 * Finds what a mapping declares and nobody uses: often the trace of a slip. Files that others use
 * may hold more.
 */
final class UnusedNames {
    private final Checker checker;

    UnusedNames(Checker checker) {
        this.checker = checker;
    }

    void report(MappingTree tree) {
        if (tree.declarations().stream().noneMatch(Decl.Target.class::isInstance)) {
            return;
        }
        Set<String> used = used();
        for (Decl decl : tree.declarations()) {
            if (decl instanceof Decl.Named named
                    && !(decl instanceof Decl.Target)
                    && !(decl instanceof Decl.Prefix)
                    && !used.contains(named.name().text())) {
                checker.report(named.name()
                        .span()
                        .warning(Code.UNUSED, "Nothing uses " + named.name().text() + ".")
                        .withHelp("take it away if it is not needed"));
            }
        }
    }

    private Set<String> used() {
        Set<String> used = new HashSet<>();
        for (Expr.Reference reference : checker.resolution().references().keySet()) {
            used.add(reference.name());
        }
        for (SourceChecker.Found source : checker.sources()) {
            used.addAll(source.format().parameters(source.options()));
        }
        for (Resolution.Callee callee : checker.resolution().calls().values()) {
            if (callee instanceof Resolution.Defined defined) {
                used.add(checker.defines().nameOf(defined.index()));
            }
        }
        return used;
    }
}
