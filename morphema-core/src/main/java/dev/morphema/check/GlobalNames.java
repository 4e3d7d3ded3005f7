package dev.morphema.check;

import dev.morphema.problem.Code;
import dev.morphema.syntax.Expr;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The names of the top level. What a let or a table over a loop is, is found out when it is first
 * asked for.
 */
final class GlobalNames {
    /** A table as a look-up sees it. */
    record TableEntry(int index, int keys, boolean many, Type row) {}

    /** Finds out what is known of a declaration. */
    @FunctionalInterface
    interface Finder {
        Type find();
    }

    private static final class Known {
        private final Binding binding;
        private final Finder finder;
        private @Nullable Type type;
        private boolean busy;

        Known(Binding binding, Finder finder) {
            this.binding = binding;
            this.finder = finder;
        }
    }

    private final Checker checker;
    private final Map<String, Known> names = new LinkedHashMap<>();
    private final Map<String, TableEntry> tables = new LinkedHashMap<>();

    GlobalNames(Checker checker) {
        this.checker = checker;
    }

    void add(String name, Binding binding, Finder finder) {
        names.put(name, new Known(binding, finder));
    }

    void addTable(String name, TableEntry table) {
        tables.put(name, table);
    }

    Set<String> names() {
        return names.keySet();
    }

    Scope.@Nullable Entry find(Expr.Reference reference) {
        Known known = names.get(reference.name());
        if (known == null) {
            return null;
        }
        if (known.type == null) {
            if (known.busy) {
                checker.report(reference
                        .span()
                        .error(Code.CYCLE, "What " + reference.name() + " is depends on itself.")
                        .withHelp("a let cannot use itself, nor through another let"));
                return new Scope.Entry(known.binding, Type.UNKNOWN);
            }
            known.busy = true;
            known.type = known.finder.find();
            known.busy = false;
        }
        return new Scope.Entry(known.binding, known.type);
    }

    /** {@return what is known of all names, asked for or not} */
    Map<String, Type> findAll() {
        Map<String, Type> types = new LinkedHashMap<>();
        names.forEach((name, known) -> {
            if (known.type == null && !known.busy) {
                known.busy = true;
                known.type = known.finder.find();
                known.busy = false;
            }
            types.put(name, known.type == null ? Type.UNKNOWN : known.type);
        });
        return types;
    }

    @Nullable
    TableEntry table(Expr.Reference reference) {
        Known known = names.get(reference.name());
        if (known == null || !(known.binding instanceof Binding.Table)) {
            return null;
        }
        Scope.Entry entry = find(reference);
        if (entry != null) {
            checker.resolution().put(reference, entry.binding());
        }
        return tables.get(reference.name());
    }
}
