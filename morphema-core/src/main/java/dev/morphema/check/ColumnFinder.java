package dev.morphema.check;

import dev.morphema.syntax.Block;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.List;

/** Finds all columns that the records of a flat target may have, in written order. */
final class ColumnFinder {
    private final Checker checker;
    private final List<String> columns = new ArrayList<>();
    private boolean complete = true;

    private ColumnFinder(Checker checker) {
        this.checker = checker;
    }

    /** {@return what was found in the items of a list} */
    static ColumnFinder find(Checker checker, Block items) {
        ColumnFinder finder = new ColumnFinder(checker);
        finder.items(items);
        return finder;
    }

    List<String> columns() {
        return List.copyOf(columns);
    }

    boolean complete() {
        return complete;
    }

    private void items(Block block) {
        for (Stmt statement : block.statements()) {
            if (statement instanceof Stmt.Item item) {
                item(item.content());
            } else if (statement instanceof Stmt.If ifThen) {
                items(ifThen.then());
                if (ifThen.otherwise() != null) {
                    items(ifThen.otherwise());
                }
            }
        }
    }

    private void item(Stmt.Content content) {
        if (content instanceof Stmt.Nested nested) {
            fields(nested.block());
        } else if (content instanceof Stmt.Repeated repeated) {
            item(repeated.each());
        } else if (content instanceof Stmt.Rule rule) {
            rule(rule.value());
        }
    }

    private void rule(Expr value) {
        if (value instanceof Expr.RecordOf recordOf) {
            fields(recordOf.block());
        } else if (value instanceof Expr.If ifThen && ifThen.otherwise() != null) {
            rule(ifThen.then());
            rule(ifThen.otherwise());
        } else {
            type(checker.typing().of(value));
        }
    }

    private void type(Type type) {
        List<String> known = checker.knownFields(type);
        if (known == null) {
            complete = false;
        } else {
            known.forEach(name -> add(column(name)));
        }
    }

    private void fields(Block block) {
        for (Stmt statement : block.statements()) {
            if (statement instanceof Stmt.Field field) {
                add(field.name().text());
            } else if (statement instanceof Stmt.If ifThen) {
                fields(ifThen.then());
                if (ifThen.otherwise() != null) {
                    fields(ifThen.otherwise());
                }
            } else if (statement instanceof Stmt.Copy copy) {
                copied(copy);
            } else if (statement instanceof Stmt.Item) {
                complete = false;
            }
        }
    }

    private void copied(Stmt.Copy copy) {
        if (copy.choice() == Stmt.Copy.Choice.ONLY) {
            copy.names().forEach(name -> add(name.text()));
            return;
        }
        List<String> known = checker.knownFields(checker.typing().of(copy.record()));
        if (known == null) {
            complete = false;
            return;
        }
        known.stream()
                .map(ColumnFinder::column)
                .filter(name -> copy.names().stream().noneMatch(n -> n.text().equals(name)))
                .forEach(this::add);
    }

    /**
     * {@return the column that a field of an input becomes}: an attribute, and the own text of an
     * element, are columns like others
     */
    private static String column(String field) {
        return field.isEmpty() ? FieldName.TEXT.local() : field.startsWith("@") ? field.substring(1) : field;
    }

    private void add(String column) {
        if (!columns.contains(column)) {
            columns.add(column);
        }
    }
}
