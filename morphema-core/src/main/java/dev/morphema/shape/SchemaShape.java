package dev.morphema.shape;

import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * What a schema allows at one place. The shapes of fields are found when they are asked for, so a
 * schema may be large, and refer to itself. Immutable.
 */
public final class SchemaShape implements Shape {
    /** How many of a record's kind a place may hold. */
    public enum Items {
        /** One value. */
        ONE,
        /** A list. */
        LIST,
        /** One value or a list. */
        EITHER
    }

    /** Whether a record may have fields that the schema does not name. */
    public enum Others {
        /** There are none. */
        NONE,
        /** There may be, but only since nobody said that there are none. */
        UNSAID,
        /** There are, by intent. */
        ANY
    }

    /**
     * A field of a record.
     *
     * @param name with its namespace, where the format has such
     * @param required whether each record has it
     * @param repeated whether a record may have it more than once
     * @param fixed the value that it has if it is there, or null
     * @param shape what it holds; asked for when it is needed
     */
    public record Field(
            FieldName name,
            boolean required,
            boolean repeated,
            @Nullable String fixed,
            Supplier<SchemaShape> shape) {
        /** {@return the field, which a record may do without} */
        public Field optional() {
            return new Field(name, false, repeated, fixed, shape);
        }
    }

    private final Body body;

    private final boolean many;

    SchemaShape(Body body, boolean many) {
        this.body = body;
        this.many = many;
    }

    /** What all occurrences of one definition share. */
    record Body(
            Map<FieldName, Field> fields,
            List<ScalarType> scalars,
            boolean record,
            Items items,
            Others others,
            boolean ordered,
            boolean textual,
            boolean nullable,
            @Nullable String description,
            Supplier<@Nullable InputLocation> place) {}

    /** {@return what makes a shape} */
    public static SchemaShapeBuilder builder() {
        return new SchemaShapeBuilder();
    }

    /** {@return a shape that allows everything} */
    public static SchemaShape anything() {
        return builder().others(Others.ANY).build();
    }

    @Override
    public String origin() {
        return "schema";
    }

    @Override
    public @Nullable InputLocation place() {
        return body.place.get();
    }

    Body body() {
        return body;
    }

    /** {@return the fields, in the order of the schema} */
    public Collection<Field> fields() {
        return body.fields.values();
    }

    /** {@return the types of which single values may be; none where nothing is said} */
    public List<ScalarType> scalars() {
        return body.scalars;
    }

    /** {@return how many values a place holds} */
    public Items items() {
        return body.items;
    }

    /** {@return whether fields come in the order of {@link #fields}} */
    public boolean isOrdered() {
        return body.ordered;
    }

    /** {@return whether values are written as texts, whatever their form} */
    public boolean isTextual() {
        return body.textual;
    }

    /** {@return whether null may stand here} */
    public boolean isNullable() {
        return body.nullable;
    }

    /** {@return what the schema tells people of it} */
    public Optional<String> description() {
        return Optional.ofNullable(body.description);
    }

    /** {@return whether this allows everything, so that nothing can be said} */
    public boolean isAnything() {
        return body.fields.isEmpty() && body.scalars.isEmpty() && body.others == Others.ANY && body.items == Items.ONE;
    }

    /** {@return whether each record has a field} */
    public boolean requires(FieldName name) {
        return meant(name).stream().anyMatch(known -> body.fields.get(known).required());
    }

    @Override
    public Set<FieldName> names() {
        return body.fields.keySet();
    }

    @Override
    public @Nullable SchemaShape field(FieldName name) {
        List<FieldName> meant = meant(name);
        if (meant.isEmpty()) {
            return null;
        }
        Field field = body.fields.get(meant.get(0));
        SchemaShape shape = field.shape().get();
        return field.repeated() || meant.size() > 1 ? new SchemaShape(shape.body, true) : shape;
    }

    /** {@return the shape of one of several values here} */
    public SchemaShape item() {
        return new SchemaShape(
                new Body(
                        body.fields,
                        body.scalars,
                        body.record,
                        Items.ONE,
                        body.others,
                        body.ordered,
                        body.textual,
                        body.nullable,
                        body.description,
                        body.place),
                false);
    }

    /** Each definition is looked into once, however often it is used, and also if by itself. */
    @Override
    public List<SchemaShape> below(FieldName name) {
        List<SchemaShape> found = new ArrayList<>();
        visit(shape -> {
            SchemaShape field = shape.field(name);
            if (field != null) {
                found.add(field);
            }
            return true;
        });
        return found;
    }

    @Override
    public void addNamesBelow(Set<String> names) {
        visit(shape -> {
            shape.names().forEach(name -> names.add(name.toString()));
            return true;
        });
    }

    /** Goes through this and all shapes below it, each once. */
    private void visit(Predicate<SchemaShape> visitor) {
        Set<Body> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        List<SchemaShape> open = new ArrayList<>(List.of(this));
        while (!open.isEmpty()) {
            SchemaShape next = open.remove(open.size() - 1);
            if (seen.add(next.body) && visitor.test(next)) {
                next.fields().forEach(field -> open.add(field.shape().get()));
            }
        }
    }

    /** {@return what is the same for two shapes that come of one definition} */
    @Override
    public Object definition() {
        return body;
    }

    @Override
    public @Nullable Problem refusedBy(Converter type) {
        for (ScalarType scalar : body.scalars) {
            for (Value example : scalar.examples()) {
                try {
                    type.convert(example);
                } catch (ProblemException e) {
                    return e.problem();
                }
            }
        }
        SchemaShape ownText = body.fields.containsKey(FieldName.OWN_TEXT) ? field(FieldName.OWN_TEXT) : null;
        return ownText == null ? null : ownText.refusedBy(type);
    }

    @Override
    public boolean lacks(FieldName name) {
        return body.others != Others.ANY
                && (body.record || isScalar())
                && meant(name).isEmpty();
    }

    @Override
    public boolean isClosed() {
        return body.others == Others.NONE;
    }

    @Override
    public boolean isScalar() {
        return !body.scalars.isEmpty() && !body.record;
    }

    @Override
    public boolean always(FieldName name) {
        return body.record && body.scalars.isEmpty() && requires(name);
    }

    @Override
    public boolean isMany() {
        return many;
    }

    @Override
    public boolean isList() {
        return body.items != Items.ONE;
    }

    @Override
    public boolean isRecord() {
        return body.record;
    }

    @Override
    public boolean hasOddText() {
        return isScalar() && body.scalars.stream().allMatch(SchemaShape::isOdd);
    }

    private static boolean isOdd(ScalarType type) {
        return type.kind() == Kind.TEXT
                && type.form() != Kind.NUMBER
                && (type.form() != Kind.TEXT
                        || !type.codes().isEmpty()
                                && type.codes().stream()
                                        .noneMatch(
                                                code -> NumberValue.parse(code).isPresent()));
    }

    @Override
    public boolean isMisorderedAsText() {
        return isNumeric();
    }

    @Override
    public boolean isNumeric() {
        return isScalar() && body.scalars.stream().allMatch(type -> type.form() == Kind.NUMBER);
    }

    @Override
    public @Nullable Kind kind() {
        if (body.record) {
            return body.scalars.isEmpty() && !body.fields.containsKey(FieldName.OWN_TEXT) ? Kind.RECORD : null;
        }
        List<Kind> kinds =
                body.scalars.stream().map(ScalarType::kind).distinct().toList();
        return kinds.size() == 1 ? kinds.get(0) : null;
    }

    @Override
    public @Nullable Kind form() {
        List<Kind> forms =
                body.scalars.stream().map(ScalarType::form).distinct().toList();
        return forms.size() == 1 && forms.get(0) != Kind.TEXT ? forms.get(0) : null;
    }

    @Override
    public @Nullable Set<String> codes() {
        Set<String> codes = new LinkedHashSet<>();
        for (ScalarType scalar : body.scalars) {
            if (scalar.codes().isEmpty()) {
                return null;
            }
            codes.addAll(scalar.codes());
        }
        return codes.isEmpty() ? null : codes;
    }
}
