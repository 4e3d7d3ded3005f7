package dev.morphema.check;

import dev.morphema.format.Options;
import dev.morphema.format.SourceFormat;
import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.LearnedShape;
import dev.morphema.syntax.Constant;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.FormatRef;
import dev.morphema.syntax.Span;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** Checks the declarations of the top level. */
final class Declarations {
    private final Checker checker;

    Declarations(Checker checker) {
        this.checker = checker;
    }

    /** Makes a declared name known; what needs other names is looked at later. */
    void declare(Decl decl) {
        if (decl instanceof Decl.Source source) {
            source(source);
        } else if (decl instanceof Decl.Param param) {
            param(param);
        } else if (decl instanceof Decl.Let let) {
            let(let);
        } else if (decl instanceof Decl.FileTable table) {
            fileTable(table);
        } else if (decl instanceof Decl.LoopTable table) {
            loopTable(table);
        } else if (decl instanceof Decl.InlineTable table) {
            inlineTable(table);
        } else if (decl instanceof Decl.Define define) {
            checker.defines().declare(define);
        }
    }

    private static Scope newScope() {
        return Scope.empty(new Scope.Slots());
    }

    private void source(Decl.Source decl) {
        SourceChecker.Found found = new SourceChecker(checker).check(decl);
        int index = checker.sources().size();
        if (found == null) {
            checker.globals().add(decl.name().text(), new Binding.Source(index), () -> Type.UNKNOWN);
            return;
        }
        checker.sources().add(found);
        checker.globals().add(decl.name().text(), new Binding.Source(index), () -> SourceChecker.type(found));
    }

    private void param(Decl.Param decl) {
        DeclaredTypes.Declared type = checker.declaredType(decl.type());
        int index = checker.params().size();
        Scope scope = newScope();
        checker.globals().add(decl.name().text(), new Binding.Param(index), () -> {
            if (decl.fallback() != null) {
                checker.isolated(decl.fallback(), scope, ParameterKind.ANY);
                if (type != null && decl.fallback() instanceof Expr.Literal literal) {
                    checkUsual(literal, type.converter());
                }
            }
            return Type.of(type == null ? null : type.kind());
        });
        checker.params().add(new CheckedMapping.Param(decl, type == null ? value -> value : type.converter(), 0));
    }

    /** A constant default must be of the parameter's type. */
    private void checkUsual(Expr.Literal literal, Converter type) {
        try {
            if (!literal.value().isMissing()) {
                type.convert(literal.value());
            }
        } catch (ProblemException e) {
            checker.report(e.problem().at(literal.span().location()));
        }
    }

    private void let(Decl.Let decl) {
        int index = checker.lets().size();
        checker.lets().add(new CheckedMapping.Global(decl, 0));
        checker.globals().add(decl.name().text(), new Binding.Global(index), () -> {
            Scope scope = newScope();
            Type type = new ExpressionChecker(checker, scope, null).check(decl.value());
            checker.lets()
                    .set(index, new CheckedMapping.Global(decl, scope.slots().count()));
            return type;
        });
    }

    private void fileTable(Decl.FileTable decl) {
        int index = checker.tables().size();
        String name = decl.name().text();
        List<Value> rows = rows(decl);
        LearnedShape shape = LearnedShape.unknown();
        rows.forEach(shape::learn);
        Map<String, Type> columns = new LinkedHashMap<>();
        for (FieldName column : shape.names()) {
            LearnedShape cells = shape.field(column);
            columns.put(
                    column.toString(),
                    new Type(cells == null ? null : cells.kind(), Cardinality.ONE, List.of(), null, false));
        }
        checker.tables().add(new CheckedMapping.Table(decl, rows, 0));
        warnOfMissingKeys(decl, rows, columns);
        for (Expr column : columnsOf(decl.columns())) {
            if (!(column instanceof Expr.Reference reference)) {
                checker.report(
                        column.span().error(Code.SYNTAX, "The key of a table from a file is the name of a column."));
            } else if (!columns.isEmpty() && !columns.containsKey(reference.name())) {
                checker.report(column.span()
                        .error(Code.UNKNOWN_FIELD, "The table has no column " + reference.name() + ".")
                        .withHelp(NearNames.proposal(reference.name(), columns.keySet())
                                .orElse(null)));
            }
        }
        Type row = columns.isEmpty() ? Type.UNKNOWN.item() : Type.record(columns);
        addTable(name, index, decl.columns(), row);
        checker.globals().add(name, new Binding.Table(index), () -> row.with(Cardinality.MANY));
    }

    private void warnOfMissingKeys(Decl.FileTable decl, List<Value> rows, Map<String, Type> columns) {
        for (Expr key : decl.columns().keys()) {
            if (key instanceof Expr.Reference column && columns.containsKey(column.name())) {
                FieldName name = FieldName.of(column.name());
                long missing = rows.stream()
                        .filter(row -> row instanceof RecordValue record
                                && record.get(name).isMissing())
                        .count();
                if (missing > 0) {
                    checker.report(key.span()
                            .warning(
                                    Code.MISSING_KEY,
                                    (missing == 1 ? "1 row" : missing + " rows")
                                            + " of this table cannot be looked up, as this key is blank."));
                }
            }
        }
    }

    private static List<Expr> columnsOf(Decl.Columns columns) {
        List<Expr> all = new ArrayList<>(columns.keys());
        if (columns.from() != null) {
            all.add(columns.from());
        }
        if (columns.to() != null) {
            all.add(columns.to());
        }
        return all;
    }

    private void addTable(String name, int index, Decl.Columns columns, Type row) {
        int keys = columns.keys().size() + (columns.from() == null ? 0 : 1);
        checker.globals().addTable(name, new GlobalNames.TableEntry(index, keys, columns.many(), row));
    }

    /**
     * What is given to a run, such as the rows of a database, is a source; a table goes over it.
     */
    private static String overSource(Decl.FileTable decl) {
        String keys = decl.columns().keys().stream()
                .map(key -> "x." + key.span().text())
                .collect(Collectors.joining(", "));
        return "csv(\"tables/codes.csv\"), or over a source: source rows: "
                + decl.format().span().text() + "  table " + decl.name().text() + " for x in rows key " + keys;
    }

    private List<Value> rows(Decl.FileTable decl) {
        SourceChecker sources = new SourceChecker(checker);
        FormatRef ref = decl.format();
        SourceFormat format = sources.format(ref);
        List<FormatRef.Option> unnamed =
                ref.options().stream().filter(o -> o.name() == null).toList();
        if (unnamed.size() != 1 || unnamed.get(0).value().form() != Constant.Form.TEXT) {
            checker.report(ref.span()
                    .error(Code.ARGUMENTS, "A table names the one file that it is read from.")
                    .withHelp(unnamed.isEmpty() ? overSource(decl) : "csv(\"tables/codes.csv\")"));
            return List.of();
        }
        if (format == null) {
            return List.of();
        }
        Options options = sources.options(ref, format);
        Constant file = unnamed.get(0).value();
        List<Value> rows = sources.rows(ref, format, options, file.span(), file.text());
        return rows == null ? List.of() : rows;
    }

    private void loopTable(Decl.LoopTable decl) {
        int index = checker.tables().size();
        String name = decl.name().text();
        int asked = checker.onDemand().sourceOf(decl);
        checker.tables().add(new CheckedMapping.Table(decl, List.of(), 0, asked));
        // The number of keys is known now, what a row is only when the loop is looked at.
        addTable(name, index, decl.columns(), Type.UNKNOWN.item());
        checker.globals().add(name, new Binding.Table(index), () -> {
            Scope scope = newScope();
            LoopChecker loop = new LoopChecker(checker, scope, null);
            Scope inner = loop.check(decl.loop());
            ExpressionChecker keys = new ExpressionChecker(checker, inner, null);
            columnsOf(decl.columns()).forEach(key -> keys.one(key, ParameterKind.ANY));
            checker.resolution().put(decl.loop().first(), loop.member());
            Type row = loop.memberType();
            addTable(name, index, decl.columns(), row);
            checker.tables()
                    .set(
                            index,
                            new CheckedMapping.Table(
                                    decl, List.of(), scope.slots().count(), asked));
            return row.with(Cardinality.MANY);
        });
    }

    private void inlineTable(Decl.InlineTable decl) {
        int index = checker.tables().size();
        String name = decl.name().text();
        checker.tables().add(new CheckedMapping.Table(decl, List.of(), 0));
        Set<String> keys = new HashSet<>();
        for (Decl.Entry entry : decl.entries()) {
            if (!keys.add(entry.key().text())) {
                checker.report(entry.key()
                        .span()
                        .error(Code.DUPLICATE_KEY, "The key " + entry.key().text() + " stands in this table already."));
            }
        }
        checker.globals().addTable(name, new GlobalNames.TableEntry(index, 1, false, inlineRow(decl)));
        checker.globals().add(name, new Binding.Table(index), () -> {
            Type value = inlineValues(decl, index);
            checker.globals().addTable(name, new GlobalNames.TableEntry(index, 1, false, value));
            return Type.record(Map.of("key", Type.of(Kind.TEXT), "value", value))
                    .with(Cardinality.MANY);
        });
    }

    private static Type inlineRow(Decl.InlineTable decl) {
        return decl.entries().isEmpty() ? Type.NOTHING : Type.UNKNOWN.item();
    }

    private Type inlineValues(Decl.InlineTable decl, int index) {
        Type value = Type.NOTHING;
        Scope scope = newScope();
        for (Decl.Entry entry : decl.entries()) {
            Type type = checker.isolated(entry.value(), scope, ParameterKind.ANY);
            value = value.or(new Type(type.kind(), type.cardinality(), List.of(), type.fields(), type.odd()));
        }
        checker.tables()
                .set(
                        index,
                        new CheckedMapping.Table(decl, List.of(), scope.slots().count()));
        return value;
    }

    /** Checks all targets. */
    void targets(List<CheckedMapping.Target> out) {
        for (var tree : checker.trees()) {
            for (Decl decl : tree.declarations()) {
                if (decl instanceof Decl.Target target) {
                    CheckedMapping.Target checked = new TargetChecker(checker).check(target);
                    if (checked != null) {
                        out.add(checked);
                    }
                }
            }
        }
        List<Decl> own = checker.trees().get(0).declarations();
        if (own.stream().noneMatch(Decl.Target.class::isInstance)) {
            Span start = new Span(checker.trees().get(0).source(), 0, 0);
            String message = "The mapping has no target, so there is nothing to write.";
            // Without sources it may be a file that other mappings use.
            boolean common = own.stream().noneMatch(Decl.Source.class::isInstance);
            checker.report((common ? start.warning(Code.TARGET_FORM, message) : start.error(Code.TARGET_FORM, message))
                    .withHelp(common ? "a file that other mappings use needs none" : "target result: json { … }"));
        }
    }
}
