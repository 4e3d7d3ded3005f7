package dev.morphema.check;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.Root;
import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.shape.SchemaShape;
import dev.morphema.syntax.Block;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.FormatRef;
import dev.morphema.syntax.Loop;
import dev.morphema.syntax.Stmt;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Checks a target: its format and options, what its document is, and whether the format can hold
 * it.
 */
final class TargetChecker {
    private final Checker checker;

    TargetChecker(Checker checker) {
        this.checker = checker;
    }

    /** {@return the target, or null if its format is not known} */
    CheckedMapping.@Nullable Target check(Decl.Target decl) {
        FormatRef ref = decl.format();
        TargetFormat format = checker.environment().formats().target(ref.name()).orElse(null);
        if (format == null) {
            checker.report(ref.span()
                    .error(Code.UNKNOWN_FORMAT, "There is no format " + ref.name() + " that can be written.")
                    .withHelp(FormatChecker.help(
                            ref.name(), checker.environment().formats().targetNames())));
            return null;
        }
        List<OptionSpec> specs = new ArrayList<>(format.options());
        specs.add(SchemaFinder.OPTION);
        Options options = new FormatChecker(checker).options(ref, specs, format::faultOf);
        Scope outer = Scope.empty(new Scope.Slots());
        Scope scope = decl.split() == null ? outer : split(decl, outer);
        BodyChecker bodies = new BodyChecker(checker, format.traits());
        boolean list;
        List<String> columns = List.of();
        if (decl.content() instanceof Stmt.Nested nested) {
            list = holdsItems(nested.block(), format.traits().root());
            if (list) {
                bodies.items(nested.block(), scope);
                columns = columns(nested.block(), format, options, scope, decl);
            } else {
                bodies.block(nested.block(), scope);
            }
            checkRoot(decl, nested.block(), format, list);
        } else {
            Type type = bodies.content(decl.content(), scope, null);
            list = type.cardinality() == Cardinality.LIST;
            if (format.traits().root() != Root.ANY) {
                checker.report(decl.format()
                        .span()
                        .error(Code.TARGET_FORM, format.name() + " cannot write a document that is a single rule.")
                        .withHelp(rootHelp(format.traits().root())));
            }
        }
        boolean items = list;
        Optional<SchemaShape> shape = checker.schemas().find(ref, options);
        shape.ifPresent(schema -> fit(decl, schema, options, items));
        return new CheckedMapping.Target(
                decl,
                format,
                options,
                decl.split() != null,
                list,
                columns,
                checker.takeUsedPrefixes(),
                scope.slots().count(),
                shape.orElse(null));
    }

    private void fit(Decl.Target decl, SchemaShape schema, Options options, boolean list) {
        SchemaFit fit = new SchemaFit(checker, options.text("namespace").orElse(null));
        if (decl.content() instanceof Stmt.Nested nested) {
            fit.document(nested.block(), schema, list, decl.name().span());
        } else if (decl.content() instanceof Stmt.Rule rule) {
            new ValueFit(checker, fit).check(rule.value(), schema);
        }
    }

    /**
     * {@return the scope of each document} of a target that has many, with what names it checked
     */
    private Scope split(Decl.Target decl, Scope outer) {
        Loop loop = Objects.requireNonNull(decl.split());
        if (loop.keyedBy() != null) {
            checker.report(loop.span()
                    .error(Code.TARGET_FORM, "Documents are told apart by their names, not by keyed by.")
                    .withHelp("put the key into the name: into \"name-{key}\""));
        }
        Scope scope = new LoopChecker(checker, outer, null).check(loop);
        Expr into = Objects.requireNonNull(decl.into());
        new ExpressionChecker(checker, scope, null).one(into, ParameterKind.TEXT);
        if (into instanceof Expr.Literal) {
            checker.report(into.span()
                    .error(Code.TARGET_FORM, "Each document needs a name of its own, this one is always the same.")
                    .withHelp("put something of the turn into it: into \"call-{x.id}.json\""));
        }
        return scope;
    }

    /**
     * Whether the statements of a block are items of a list, and not fields; where there are both,
     * most of them tell.
     */
    private static boolean holdsItems(Block block, Root root) {
        int items = count(block, TargetChecker::isItem);
        return items > 0 && (root == Root.RECORDS || items >= count(block, Stmt.Field.class::isInstance));
    }

    private static int count(Block block, Predicate<Stmt> what) {
        int count = 0;
        for (Stmt statement : block.statements()) {
            if (statement instanceof Stmt.If ifThen) {
                count += count(ifThen.then(), what);
                count += ifThen.otherwise() == null ? 0 : count(ifThen.otherwise(), what);
            }
            count += what.test(statement) ? 1 : 0;
        }
        return count;
    }

    private static boolean isItem(Stmt statement) {
        return statement instanceof Stmt.Item item
                && !(item.content() instanceof Stmt.Repeated repeated
                        && repeated.loop().keyedBy() != null);
    }

    private void checkRoot(Decl.Target decl, Block block, TargetFormat format, boolean list) {
        Root root = format.traits().root();
        boolean wrong = root == Root.RECORDS && !list || root == Root.ONE_FIELD && list;
        if (wrong) {
            checker.report(decl.name()
                    .span()
                    .error(
                            Code.TARGET_FORM,
                            list
                                    ? "A document in " + format.name() + " is one named element, not a list."
                                    : "A document in " + format.name() + " is a list of records, not one.")
                    .withHelp(rootHelp(root)));
            return;
        }
        if (root == Root.ONE_FIELD) {
            checkOneField(decl, block, format);
        }
    }

    private static String rootHelp(Root root) {
        return root == Root.RECORDS
                ? "write for x in … { … }, or { … } for a single record"
                : "write one element around the rest: Name { … }";
    }

    private void checkOneField(Decl.Target decl, Block block, TargetFormat format) {
        List<Stmt.Field> fields = new ArrayList<>();
        boolean conditional = false;
        for (Stmt statement : block.statements()) {
            if (statement instanceof Stmt.Field field) {
                fields.add(field);
                if (field.attribute()) {
                    checker.report(field.name()
                            .span()
                            .error(Code.TARGET_FORM, "An attribute needs an element around it.")
                            .withHelp(rootHelp(Root.ONE_FIELD)));
                }
            }
            conditional |=
                    statement instanceof Stmt.If || statement instanceof Stmt.Copy || statement instanceof Stmt.Item;
        }
        if (fields.isEmpty() && !conditional) {
            checker.report(decl.name()
                    .span()
                    .error(Code.TARGET_FORM, "A document in " + format.name() + " needs one element.")
                    .withHelp(rootHelp(Root.ONE_FIELD)));
        } else if (fields.size() > 1) {
            checker.report(fields.get(1)
                    .name()
                    .span()
                    .error(
                            Code.TARGET_FORM,
                            "A document in " + format.name() + " has one element at its root; this would be a second.")
                    .withHelp(rootHelp(Root.ONE_FIELD)));
        }
    }

    /** All columns of a flat target, in written order. */
    private List<String> columns(Block block, TargetFormat format, Options options, Scope scope, Decl.Target decl) {
        if (!format.traits().flat()) {
            return List.of();
        }
        List<String> given = options.texts("columns").orElse(null);
        ColumnFinder found = ColumnFinder.find(checker, block);
        if (given == null) {
            if (!found.complete()) {
                checker.report(decl.format()
                        .span()
                        .error(Code.TARGET_FORM, "The columns are not all known before the run.")
                        .withHelp("name them: " + format.name()
                                + "(columns = [\"a\", \"b\"]), or give the source that is copied a sample"));
            }
            return found.columns();
        }
        found.columns().stream()
                .filter(column -> !given.contains(column))
                .findFirst()
                .ifPresent(column -> checker.report(decl.format()
                        .span()
                        .error(
                                Code.TARGET_FORM,
                                "The option columns does not name the column " + column + ", which is written.")));
        return given;
    }
}
