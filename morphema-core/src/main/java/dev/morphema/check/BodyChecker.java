package dev.morphema.check;

import dev.morphema.format.TargetFormat;
import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.syntax.Block;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Name;
import dev.morphema.syntax.Span;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.Missing;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Checks blocks: of targets, whose format limits what they may hold, and of records as values. */
final class BodyChecker {
    private final Checker checker;
    /** What the target can hold; null for a record as a value. */
    private final TargetFormat.@Nullable Traits traits;

    BodyChecker(Checker checker, TargetFormat.@Nullable Traits traits) {
        this.checker = checker;
        this.traits = traits;
    }

    /**
     * Checks the block of a record.
     *
     * @return the fields with their types, or null if they are not all known before the run
     */
    @Nullable
    Map<String, Type> block(Block block, Scope outer) {
        return new Statements(block, outer, false, null).check();
    }

    /** Checks a block whose statements are the items of a list. */
    void items(Block block, Scope outer) {
        new Statements(block, outer, true, null).check();
    }

    /** Checks what a target, or a turn of its loop, holds. */
    Type content(Stmt.Content content, Scope scope, @Nullable OwnFields ownFields) {
        if (content instanceof Stmt.Rule rule) {
            return rule(rule, scope, ownFields, false);
        }
        if (content instanceof Stmt.Nested nested) {
            Map<String, Type> fields = block(nested.block(), scope);
            return fields == null ? Type.of(Kind.RECORD) : Type.record(fields);
        }
        if (content instanceof Stmt.Repeated repeated) {
            Scope inner = new LoopChecker(checker, scope, ownFields).check(repeated.loop());
            return content(repeated.each(), inner, null).with(Cardinality.LIST);
        }
        Stmt.Pieces pieces = (Stmt.Pieces) content;
        items(new Block(pieces.span(), pieces.pieces()), scope);
        return Type.UNKNOWN.with(Cardinality.LIST);
    }

    private Type rule(Stmt.Rule rule, Scope scope, @Nullable OwnFields ownFields, boolean optional) {
        ExpressionChecker expressions = new ExpressionChecker(checker, scope, ownFields);
        Type type = optional ? expressions.checkForeseen(rule.value()) : expressions.check(rule.value());
        expressions.requireOne(rule.value().span(), type);
        checker.needs().whole(type);
        return type;
    }

    /** The statements of one block. */
    private final class Statements implements Stmt.Visitor<Void> {
        private final Block block;
        private Scope scope;
        private final boolean items;
        private final OwnFields ownFields;
        private final Map<String, Type> fields = new LinkedHashMap<>();
        private final Map<FieldName, Stmt.Field> written = new HashMap<>();
        /**
         * Fields that are written whenever the block is, and those that are whenever a branch
         * within it is.
         */
        private final Map<FieldName, Stmt.Field> certain = new HashMap<>();

        private final Map<FieldName, Stmt.Field> certainInBranch = new HashMap<>();
        private final boolean isBranch;
        private boolean allKnown = true;
        private boolean ownTextSeen;
        private boolean formRefused;

        Statements(Block block, Scope scope, boolean items, @Nullable OwnFields around) {
            this.isBranch = around != null;
            this.block = block;
            this.scope = scope;
            this.items = items;
            this.ownFields = new OwnFields(block, around);
        }

        @Nullable
        Map<String, Type> check() {
            checker.typing().put(block.span(), block.span().start(), scope);
            for (Stmt statement : block.statements()) {
                statement.accept(this);
            }
            if (!items && !isBranch && mayRepeatNames()) {
                checker.resolution().slotFor(block, scope.slots());
            }
            return allKnown ? fields : null;
        }

        private boolean mayRepeatNames() {
            WrittenNames names = new WrittenNames(
                    field -> checker.resolution().fieldName(field.name(), field.attribute()), isMarkup());
            return names.mayRepeat(block);
        }

        private boolean isMarkup() {
            return traits != null && traits.attributesFirst();
        }

        private ExpressionChecker expressions() {
            return new ExpressionChecker(checker, scope, ownFields);
        }

        @Override
        public Void field(Stmt.Field field) {
            if (items) {
                refuseForm(
                        field.name().span(),
                        "A list of items cannot have a field too.",
                        "put the field into a for or into braces of its own");
            }
            FieldName name = checker.fieldName(field.name(), field.attribute());
            checker.usePrefixOf(field.name());
            refuseTwice(field, name);
            refuseNesting(field);
            Type type = fieldType(field);
            if (field.content() instanceof Stmt.Rule) {
                ownFields.add(field, type);
            }
            fields.merge(name.toString(), type, Type::or);
            return null;
        }

        private Type fieldType(Stmt.Field field) {
            boolean optional = field.presence() == Stmt.Presence.OPTIONAL;
            Type type = optional && field.content() instanceof Stmt.Rule rule
                    ? rule(rule, scope, ownFields, true)
                    : content(field.content(), scope, ownFields);
            if (field.type() == null && field.content() instanceof Stmt.Rule rule) {
                onlyWritten(rule.value(), type);
            }
            if (field.type() != null) {
                DeclaredTypes.Declared declared = checker.declaredType(field.type());
                if (declared != null) {
                    checker.resolution().putConverter(field, declared.converter());
                    return Type.of(declared.kind());
                }
            }
            if (traits != null && traits.flat()) {
                refuseCell(field, type);
            }
            if (field.attribute() && type.cardinality() == Cardinality.LIST) {
                checker.report(field.name()
                        .span()
                        .error(Code.ONE_OR_MANY, "An attribute holds one value, this is a list.")
                        .withHelp("join(…, \" \") makes a text of it"));
            }
            return type;
        }

        private void refuseCell(Stmt.Field field, Type type) {
            boolean list = type.cardinality() == Cardinality.LIST;
            if (field.content() instanceof Stmt.Rule rule && (list || type.kind() == Kind.RECORD)) {
                checker.report(rule.value()
                        .span()
                        .error(Code.WRONG_KIND, "A cell holds one value, this is " + (list ? "a list." : "a record."))
                        .withHelp(
                                list
                                        ? "join(…, \"|\") makes one text of it"
                                        : "step down to one of its fields, each in a column of its own"));
            }
        }

        /** A rule that is one step writes what it finds, and does nothing else with it. */
        private void onlyWritten(Expr rule, Type type) {
            if (rule instanceof Expr.Step) {
                checker.needs().onlyWrite(type);
            }
        }

        /** Once for a block: it is the same mistake each time. */
        private void refuseForm(Span span, String why, String help) {
            if (!formRefused) {
                formRefused = true;
                checker.report(span.error(Code.TARGET_FORM, why).withHelp(help));
            }
        }

        private void refuseText(Span span) {
            checker.report(span.error(
                            Code.DUPLICATE_FIELD,
                            "This block has a field text beside a text of its own, which gets the same name here.")
                    .withHelp("give the field another name"));
        }

        private void refuseTwice(Stmt.Field field, FieldName name) {
            boolean markup = isMarkup();
            if (ownTextSeen && traits != null && !markup && name.local().equals("text")) {
                refuseText(field.name().span());
            }
            FieldName key = markup || traits == null ? name : FieldName.of(name.local());
            Stmt.Field before = written.putIfAbsent(key, field);
            if (markup && !field.attribute()) {
                return;
            }
            if (before != null) {
                checker.report(field.name()
                        .span()
                        .error(
                                Code.DUPLICATE_FIELD,
                                "This block has a field " + name.local() + " already, on line "
                                        + before.span().line() + ".")
                        .withHelp(
                                traits == null || traits.flat()
                                        ? null
                                        : "several values go into a list: " + name.local() + " = [ a, b ]"));
            } else if (isCertain(field)) {
                certain.put(key, field);
                refuseBoth(certainInBranch.get(key), field);
            }
        }

        /** Whether a field is written whenever its rule is reached. */
        private static boolean isCertain(Stmt.Field field) {
            return switch (field.presence()) {
                case REQUIRED -> true;
                case OPTIONAL -> false;
                case PLAIN ->
                    !(field.content() instanceof Stmt.Rule rule)
                            || rule.value() instanceof Expr.Template
                            || rule.value() instanceof Expr.Literal literal && literal.value() != Missing.ABSENT;
            };
        }

        private void refuseBoth(Stmt.@Nullable Field one, Stmt.@Nullable Field other) {
            if (one != null && other != null) {
                Stmt.Field later = one.span().start() > other.span().start() ? one : other;
                Stmt.Field earlier = later == one ? other : one;
                String name = later.name().text();
                checker.report(later.name()
                        .span()
                        .error(
                                Code.DUPLICATE_FIELD,
                                "The field " + name + " is written twice when the condition holds; it is also on line "
                                        + earlier.span().line() + ".")
                        .withHelp("write it by one rule: " + name + " = if … then … else …"));
            }
        }

        private void refuseNesting(Stmt.Field field) {
            if (traits != null && traits.flat() && !(field.content() instanceof Stmt.Rule)) {
                checker.report(field.name()
                        .span()
                        .error(Code.TARGET_FORM, "A cell holds one value, not a record or a list.")
                        .withHelp("give it a rule: " + field.name().text() + " = …"));
            }
        }

        @Override
        public Void ownText(Stmt.OwnText ownText) {
            Type type = expressions().one(ownText.value(), ParameterKind.ANY);
            onlyWritten(ownText.value(), type);
            if (items) {
                refuseForm(
                        ownText.span(),
                        "A list of items cannot have its own text too.",
                        "a single value is a list of one: name = [ value ]");
            }
            if (traits != null && traits.flat()) {
                checker.report(ownText.span()
                        .error(Code.TARGET_FORM, "A row has columns and no text of its own.")
                        .withHelp("give the column a name: name = …"));
            }
            Stmt.Field named = written.get(FieldName.TEXT);
            if (named != null && traits != null && !traits.attributesFirst()) {
                refuseText(named.name().span());
            }
            ownTextSeen = true;
            fields.put(FieldName.TEXT.local(), type);
            return null;
        }

        @Override
        public Void item(Stmt.Item item) {
            if (item.content() instanceof Stmt.Repeated repeated
                    && repeated.loop().keyedBy() != null) {
                if (items) {
                    refuseForm(
                            item.span(),
                            "A list of items cannot have fields too, and keyed by makes fields.",
                            "put the loop into braces of its own: { for … keyed by … }");
                }
                content(repeated, scope, ownFields);
                allKnown = false;
                return null;
            }
            if (!items) {
                refuseForm(
                        item.span(),
                        "Here every part of the record needs a name.",
                        "write name for … or name { … }; items without names stand at the root of a list");
            }
            content(item.content(), scope, ownFields);
            return null;
        }

        @Override
        public Void let(Stmt.Let let) {
            Type type = expressions().check(let.value());
            int slot = checker.resolution().slotFor(let, scope.slots(), block);
            scope = checker.declareLocal(scope, let.name(), new Scope.Entry(new Binding.LocalLet(slot), type));
            checker.typing().put(block.span(), let.span().end(), scope);
            return null;
        }

        @Override
        public Void ifThen(Stmt.If ifThen) {
            expressions().condition(ifThen.condition());
            branch(ifThen.then());
            if (ifThen.otherwise() != null) {
                branch(ifThen.otherwise());
            }
            return null;
        }

        private void branch(Block branch) {
            Statements inner = new Statements(branch, scope, items, ownFields);
            Map<String, Type> branchFields = inner.check();
            if (branchFields == null) {
                allKnown = false;
            }
            inner.fields.forEach((name, type) -> fields.merge(name, type, Type::or));
            inner.certain.forEach((name, field) -> {
                refuseBoth(certain.get(name), field);
                certainInBranch.putIfAbsent(name, field);
            });
        }

        @Override
        public Void copy(Stmt.Copy copy) {
            if (items) {
                refuseForm(
                        copy.span(),
                        "A list of items cannot have fields too, and copy writes fields.",
                        "put it into braces of its own: { copy x }");
            }
            Type type = expressions().one(copy.record(), ParameterKind.ANY);
            checker.useAllPrefixes();
            List<String> known = checker.knownFields(type);
            List<FieldName> names = new ArrayList<>();
            for (Name name : copy.names()) {
                names.add(checker.fieldName(name, false));
                warnIfMissing(name, known);
            }
            if (copy.choice() == Stmt.Copy.Choice.ONLY) {
                names.forEach(name -> fields.putIfAbsent(name.toString(), Type.UNKNOWN));
            } else {
                copiedFields(known, names);
            }
            // A field with a rule of its own takes the place of the copied one.
            for (Stmt statement : block.statements()) {
                if (statement instanceof Stmt.Field field) {
                    checker.resolution().slotFor(field.content(), scope.slots(), block);
                }
            }
            return null;
        }

        private void warnIfMissing(Name name, @Nullable List<String> known) {
            if (known != null && !known.contains(name.text()) && !known.contains("@" + name.text())) {
                checker.report(name.span()
                        .warning(Code.UNKNOWN_FIELD, "The record that is copied has no field " + name.text() + ".")
                        .withHelp(NearNames.proposal(name.text(), known).orElse(null)));
            }
        }

        private void copiedFields(@Nullable List<String> known, List<FieldName> without) {
            if (known == null) {
                allKnown = false;
                return;
            }
            List<String> left = new ArrayList<>(known);
            without.forEach(name -> left.remove(name.toString()));
            left.forEach(name -> fields.putIfAbsent(name, Type.UNKNOWN));
        }

        @Override
        public Void require(Stmt.Require require) {
            expressions().condition(require.condition());
            expressions().one(require.message(), ParameterKind.TEXT);
            return null;
        }
    }
}
