package dev.morphema.check;

import dev.morphema.problem.Code;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;

/**
 * Sources whose records are asked for by a key, when somebody looks one up. All that can be done
 * with one is a table over it, by just that key.
 */
final class OnDemandSources {
    private final Checker checker;
    /** Where a table names its source. */
    private final Set<Expr> ofTables = Collections.newSetFromMap(new IdentityHashMap<>());

    OnDemandSources(Checker checker) {
        this.checker = checker;
    }

    /** None of a source or table that is wrong, which is told elsewhere. */
    private List<String> askedBy(int source) {
        if (source >= checker.sources().size()) {
            return List.of();
        }
        SourceChecker.Found found = checker.sources().get(source);
        return found.format().askedBy(found.options());
    }

    /** {@return the source that a table asks on demand, or -1 if it is filled by reading} */
    int sourceOf(Decl.LoopTable table) {
        Loop loop = table.loop();
        if (!(loop.first().sequence() instanceof Expr.Reference reference)) {
            return -1;
        }
        int source = source(reference.name());
        if (source < 0 || askedBy(source).isEmpty()) {
            return -1;
        }
        ofTables.add(reference);
        String name = loop.first().name().text();
        List<String> keys = table.columns().keys().stream()
                .map(key -> key instanceof Expr.Step step
                                && step.axis() == Expr.Axis.FIELD
                                && step.base() instanceof Expr.Reference base
                                && base.name().equals(name)
                        ? step.name().text()
                        : "")
                .toList();
        boolean plain = loop.clauses().size() == 1
                && !loop.first().optional()
                && table.columns().from() == null;
        if (!plain || !keys.equals(askedBy(source))) {
            checker.report(table.name()
                    .span()
                    .error(
                            Code.ARGUMENTS,
                            "The records of " + reference.name() + " are asked for on demand by "
                                    + String.join(", ", askedBy(source)) + ", and this table is another one.")
                    .withHelp(help(table.name().text(), source)));
        }
        return source;
    }

    private int source(String name) {
        for (int i = 0; i < checker.sources().size(); i++) {
            if (checker.sources().get(i).decl().name().text().equals(name)) {
                return i;
            }
        }
        return -1;
    }

    private String help(String table, int source) {
        List<String> keys = askedBy(source).stream().map(key -> "x." + key).toList();
        return "table " + table + " for x in "
                + checker.sources().get(source).decl().name().text() + " key " + String.join(", ", keys);
    }

    /** All records of such a source, or of a table over it, cannot be had. */
    void refuse(Expr.Reference reference, Binding binding) {
        boolean ofSource = binding instanceof Binding.Source source
                && !ofTables.contains(reference)
                && !askedBy(source.index()).isEmpty();
        boolean ofTable = binding instanceof Binding.Table table
                && table.index() < checker.tables().size()
                && checker.tables().get(table.index()).onDemand() >= 0;
        if (ofSource || ofTable) {
            int source = binding instanceof Binding.Source found
                    ? found.index()
                    : checker.tables().get(((Binding.Table) binding).index()).onDemand();
            checker.report(reference
                    .span()
                    .error(
                            Code.WRONG_KIND,
                            "The records of "
                                    + checker.sources()
                                            .get(source)
                                            .decl()
                                            .name()
                                            .text()
                                    + " are asked for on demand, so there is no going through all of them.")
                    .withHelp(
                            ofSource
                                    ? help("found", source) + " finds some by their key"
                                    : "one is looked up: " + reference.name() + "[…]"));
        }
    }
}
