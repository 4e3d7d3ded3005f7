package dev.morphema.check;

import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.shape.SchemaShape;
import dev.morphema.shape.SchemaShape.Field;
import dev.morphema.syntax.Block;
import dev.morphema.syntax.Name;
import dev.morphema.syntax.Span;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Compares what a target writes with the schema that it is to fit. Of values that only a run knows
 * it says what is sure for all of them.
 */
final class SchemaFit {
    /** Its attributes may stand on any element, whatever a schema says. */
    private static final String XSI = Resolution.KNOWN_NAMESPACES.get("xsi");

    private final Checker checker;
    private final ValueFit values;
    private final Set<String> wrongNamespaces = new HashSet<>();
    /** The namespace of names without a prefix. */
    private final @Nullable String namespace;

    /** @param namespace of elements without a prefix, or null */
    SchemaFit(Checker checker, @Nullable String namespace) {
        this.checker = checker;
        this.namespace = namespace;
        this.values = new ValueFit(checker, this);
    }

    /** Checks a block of fields, or of items if that is what a document holds. */
    void document(Block block, SchemaShape shape, boolean list, Span at) {
        if (!list) {
            if (shape.items() == SchemaShape.Items.LIST) {
                oneForMany(shape, at);
            } else {
                record(block, shape, at);
            }
        } else {
            items(block.statements(), shape.item());
        }
    }

    private void oneForMany(SchemaShape shape, Span at) {
        checker.report(at.error(Code.ONE_OR_MANY, "The schema wants a list here, this is one value.")
                .in(shape.place())
                .withHelp("square brackets make a list of it: name [ { … } ] or name = [ value ]"));
    }

    private void items(List<Stmt> statements, SchemaShape item) {
        for (Stmt statement : statements) {
            if (statement instanceof Stmt.Item each) {
                Stmt.Content content = each.content();
                while (content instanceof Stmt.Repeated repeated) {
                    content = repeated.each();
                }
                content(content, item, each.span());
            } else if (statement instanceof Stmt.If ifThen) {
                items(ifThen.then().statements(), item);
                if (ifThen.otherwise() != null) {
                    items(ifThen.otherwise().statements(), item);
                }
            }
        }
    }

    /** Checks what stands in a field or an item. */
    private void content(Stmt.Content content, SchemaShape shape, Span at) {
        if (content instanceof Stmt.Rule rule) {
            values.check(rule.value(), shape);
        } else if (content instanceof Stmt.Nested nested) {
            if (shape.items() == SchemaShape.Items.LIST) {
                oneForMany(shape, at);
                return;
            }
            record(nested.block(), shape, at);
        } else if (content instanceof Stmt.Repeated repeated) {
            if (repeated.loop().keyedBy() == null) {
                several(shape, at);
                content(repeated.each(), shape.item(), at);
            }
        } else if (content instanceof Stmt.Pieces pieces) {
            several(shape, at);
            items(pieces.pieces(), shape.item());
        }
    }

    private void several(SchemaShape shape, Span at) {
        if (!shape.isMany() && !shape.isList() && !shape.isAnything()) {
            checker.report(at.error(Code.ONE_OR_MANY, "The schema wants one value here, this may give several.")
                    .in(shape.place())
                    .withHelp("first(…) takes one of them, without for"));
        }
    }

    /** Checks the fields of a record. */
    void record(Block block, SchemaShape shape, Span at) {
        if (shape.isAnything()) {
            return;
        }
        if (!shape.isRecord()) {
            if (shape.isTextual() && isText(block)) {
                text(block, shape);
                return;
            }
            checker.report(at.error(
                            Code.WRONG_KIND,
                            "The schema wants " + values.wanted(shape) + " here, this writes a record with fields.")
                    .in(shape.place())
                    .withHelp("give it a rule: name = …"));
            return;
        }
        Written written = new Written(shape);
        written.statements(block, true);
        written.reportMissing(at);
    }

    /** Whether a block is an element with nothing but a text. */
    private static boolean isText(Block block) {
        return block.statements().stream()
                .allMatch(statement -> statement instanceof Stmt.OwnText || statement instanceof Stmt.Let);
    }

    private void text(Block block, SchemaShape shape) {
        for (Stmt statement : block.statements()) {
            if (statement instanceof Stmt.OwnText text) {
                values.check(text.value(), shape);
            }
        }
    }

    /** Reports the fields that an element lacks which is written by one rule. */
    void reportUnwritten(SchemaShape shape, Span at) {
        new Written(shape).reportMissing(at);
    }

    /** {@return what a name means in a record of a schema; reports it if it means nothing} */
    @Nullable
    Field find(SchemaShape record, FieldName name, Span at) {
        List<FieldName> meant = record.meant(name);
        if (XSI.equals(name.namespace())) {
            return null;
        }
        if (meant.isEmpty()) {
            unknown(record, name, at);
            return null;
        }
        String own = name.namespace() == null && !name.attribute() ? namespace : name.namespace();
        Field first = null;
        for (Field field : record.fields()) {
            if (meant.contains(field.name())) {
                if (own == null || own.equals(orNone(field.name()))) {
                    return field;
                }
                first = first == null ? field : first;
            }
        }
        wrongNamespace(first, at);
        return first;
    }

    private static String orNone(FieldName name) {
        return name.namespace() == null ? "" : name.namespace();
    }

    private void wrongNamespace(@Nullable Field field, Span at) {
        if (field != null && !field.name().attribute() && field.name().namespace() != null) {
            String wanted = field.name().namespace();
            if (!wrongNamespaces.add(wanted)) {
                // One option puts them all right.
                return;
            }
            checker.report(at.error(
                            Code.NOT_IN_SCHEMA,
                            "The schema has this element in "
                                    + (wanted.isEmpty() ? "no namespace" : "the namespace " + wanted) + ".")
                    .in(field.shape().get().place())
                    .withHelp(
                            wanted.isEmpty()
                                    ? "give the namespace of the others a prefix: prefix p = \"…\""
                                    : "namespace = \"" + wanted + "\" is that of all names without prefix"));
        }
    }

    private void unknown(SchemaShape record, FieldName name, Span at) {
        if (record.lacks(name)) {
            String message = "The schema has no field " + name + " here.";
            Problem problem =
                    record.isClosed() ? at.error(Code.NOT_IN_SCHEMA, message) : at.warning(Code.NOT_IN_SCHEMA, message);
            Set<String> known = new LinkedHashSet<>();
            record.names().forEach(each -> known.add(each.toString()));
            checker.report(problem.in(record.place())
                    .withHelp(NearNames.proposal(name.toString(), known).orElse(null)));
        }
    }

    /** What the statements of one record have written so far. */
    private final class Written {
        private final SchemaShape shape;
        private final List<FieldName> order = new ArrayList<>();
        private final Set<FieldName> always = new LinkedHashSet<>();
        /** With the place of their rules, as far as they have one of their own. */
        private final Map<FieldName, Span> perhaps = new LinkedHashMap<>();
        /** Where there is a rule for a field. */
        private final Map<FieldName, Span> places = new HashMap<>();
        /** Whether fields were written of which only the run knows the names. */
        private boolean unknown;
        /** The furthest that a field stood in the order of the schema, and its name. */
        private int furthest = -1;

        private boolean orderRefused;
        /**
         * Names that the schema does not know, one of which may be meant for one that is missing.
         */
        private final List<String> strange = new ArrayList<>();

        Written(SchemaShape shape) {
            this.shape = shape;
            shape.fields().forEach(field -> order.add(field.name()));
        }

        /** @param surely whether they are reached whenever the record is written */
        void statements(Block block, boolean surely) {
            for (Stmt statement : block.statements()) {
                if (statement instanceof Stmt.Field field) {
                    field(field, surely);
                } else if (statement instanceof Stmt.OwnText text) {
                    ownText(text);
                } else if (statement instanceof Stmt.If ifThen) {
                    branches(ifThen, surely);
                } else if (statement instanceof Stmt.Copy copy) {
                    copied(copy);
                } else if (statement instanceof Stmt.Item) {
                    unknown = true;
                }
            }
        }

        private void branches(Stmt.If ifThen, boolean surely) {
            Set<FieldName> before = new LinkedHashSet<>(always);
            statements(ifThen.then(), surely);
            Set<FieldName> then = new LinkedHashSet<>(always);
            always.retainAll(before);
            Set<FieldName> otherwise = new LinkedHashSet<>(before);
            if (ifThen.otherwise() != null) {
                statements(ifThen.otherwise(), surely);
                otherwise.addAll(always);
                always.retainAll(before);
            }
            then.forEach(name -> perhaps.putIfAbsent(name, places.getOrDefault(name, ifThen.span())));
            otherwise.forEach(name -> perhaps.putIfAbsent(name, places.getOrDefault(name, ifThen.span())));
            then.retainAll(otherwise);
            always.addAll(then);
        }

        private void field(Stmt.Field field, boolean surely) {
            FieldName name = checker.resolution().fieldName(field.name(), field.attribute());
            Span at = field.name().span();
            Field found = find(shape, shape.isTextual() ? name : FieldName.of(name.local()), at);
            if (found == null) {
                strange.add(name.toString());
                return;
            }
            inOrder(found, at);
            places.put(found.name(), at);
            if (surely && isAlways(field)) {
                always.add(found.name());
            } else {
                perhaps.put(found.name(), at);
            }
            SchemaShape held = shape.field(found.name());
            if (held == null) {
                return;
            }
            if (field.type() != null) {
                DeclaredTypes.Declared declared = checker.declaredType(field.type());
                if (declared != null) {
                    values.ofKind(declared.kind(), held, field.type().span());
                }
            } else {
                content(field.content(), held, at);
            }
        }

        private boolean isAlways(Stmt.Field field) {
            return switch (field.presence()) {
                case REQUIRED -> true;
                case OPTIONAL -> false;
                case PLAIN -> !(field.content() instanceof Stmt.Rule rule) || !values.mayBeAbsent(rule.value());
            };
        }

        private void ownText(Stmt.OwnText text) {
            SchemaShape own = shape.isTextual() ? shape.field(FieldName.OWN_TEXT) : shape.field(FieldName.TEXT);
            if (own != null) {
                values.check(text.value(), own);
                always.add(shape.isTextual() ? FieldName.OWN_TEXT : FieldName.TEXT);
            } else if (shape.isClosed() && shape.scalars().isEmpty()) {
                checker.report(text.span()
                        .error(Code.NOT_IN_SCHEMA, "The schema has no text of its own here, only fields.")
                        .in(shape.place()));
            } else {
                values.check(text.value(), shape);
            }
        }

        private void copied(Stmt.Copy copy) {
            if (copy.choice() == Stmt.Copy.Choice.ONLY) {
                for (Name name : copy.names()) {
                    always.addAll(shape.meant(FieldName.of(name.text())));
                    always.addAll(shape.meant(FieldName.attribute(name.text())));
                }
            }
            unknown = true;
        }

        /** Elements come in the order of the schema; attributes have none. */
        private void inOrder(Field found, Span at) {
            int place = order.indexOf(found.name());
            if (!shape.isTextual() || !shape.isOrdered() || found.name().attribute()) {
                return;
            }
            if (place < furthest && !orderRefused) {
                orderRefused = true;
                checker.report(at.error(
                                Code.FIELD_ORDER,
                                "The schema wants " + found.name() + " before " + order.get(furthest) + ".")
                        .in(shape.place())
                        .withHelp("the order is "
                                + String.join(
                                        ", ",
                                        order.stream()
                                                .filter(name -> !name.attribute())
                                                .map(FieldName::toString)
                                                .toList())));
            }
            furthest = Math.max(furthest, place);
        }

        void reportMissing(Span at) {
            for (Field field : shape.fields()) {
                boolean own = field.name().equals(FieldName.OWN_TEXT);
                if (!field.required() || own || always.contains(field.name())) {
                    continue;
                }
                Span place = perhaps.get(field.name());
                if (place != null) {
                    checker.report(place.warning(
                                    Code.REQUIRED_FIELD,
                                    "The schema requires the field " + field.name() + " here, which may be absent.")
                            .in(field.shape().get().place())
                            .withHelp(field.name() + "! = … ends the run where it is; ?? gives another value"));
                } else if (!unknown && !isMisspelt(field.name().toString())) {
                    checker.report(at.error(
                                    Code.REQUIRED_FIELD,
                                    "The schema requires a field " + field.name() + " here, and nothing writes it.")
                            .in(field.shape().get().place())
                            .withHelp(written(field)));
                }
            }
        }

        private boolean isMisspelt(String name) {
            return strange.stream()
                    .anyMatch(other -> NearNames.near(other, List.of(name)).contains(name));
        }

        private String written(Field field) {
            SchemaShape held = field.shape().get();
            Optional<String> description = held.description();
            String rule = held.isRecord() ? field.name() + " { … }" : field.name() + " = …";
            return "add " + rule
                    + description.map(words -> ": " + words).orElse("")
                    + (held.codes() == null ? "" : ", " + values.wanted(held));
        }
    }

    /** {@return whether something is sure to be nothing but one of some kind} */
    static boolean isKnown(@Nullable Kind kind) {
        return kind != null && kind != Kind.NULL && kind != Kind.ABSENT;
    }
}
